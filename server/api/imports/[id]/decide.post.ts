import { Decide } from '~~/shared/imports/requests'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { decideImport, withDecisions } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Takes one way out for a plan that clashes' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  const decision = await body(event, Decide)
  await decideImport(idOf(event), (options) => withDecisions(options, [{ ...decision }]))
  return { done: true }
})
