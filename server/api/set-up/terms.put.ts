import { SaveTerm } from '~~/shared/set-up/changes'
import { body, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { saveTerm } from '~~/server/services/set-up'

defineRouteMeta({ openAPI: { tags: ['set-up'], summary: 'Saves a term with its days without teaching' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'plan', { kind: 'house' }))
  return saveTerm(await body(event, SaveTerm), who.id)
})
