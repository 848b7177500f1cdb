import { AnswerMessage } from '~~/shared/help/messages'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { answerMessage } from '~~/server/services/help'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'Answers a message to the team' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'run', { kind: 'house' }))
  return answerMessage(idOf(event), (await body(event, AnswerMessage)).answer, who.id)
})
