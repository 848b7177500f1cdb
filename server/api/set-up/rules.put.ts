import { SaveRules } from '~~/shared/set-up/changes'
import { body, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { saveRules } from '~~/server/services/set-up'

defineRouteMeta({ openAPI: { tags: ['set-up'], summary: 'Saves the campus hours and the rules for instructors' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'plan', { kind: 'house' }))
  return saveRules(await body(event, SaveRules))
})
