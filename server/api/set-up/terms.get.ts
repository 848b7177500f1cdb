import { route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { termsSetUp } from '~~/server/services/set-up'

defineRouteMeta({ openAPI: { tags: ['set-up'], summary: 'Terms with their weeks' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  return termsSetUp()
})
