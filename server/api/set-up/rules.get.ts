import { route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { settings } from '~~/server/services/choices'

defineRouteMeta({ openAPI: { tags: ['set-up'], summary: 'The campus hours and the rules for instructors' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  return settings()
})
