import { AnswerRequest } from '~~/shared/timetable/requests'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { answerRequest } from '~~/server/services/requests'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Accepts a request, or turns it down with a word' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'plan', { kind: 'house' }))
  return answerRequest(idOf(event), await body(event, AnswerRequest), who.id)
})
