import { LeaveOut } from '~~/shared/imports/requests'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { decideImport } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Leaves plans of an import out' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  const { plans } = await body(event, LeaveOut)
  await decideImport(idOf(event), (options) => ({ ...options, propose: false, leftOut: plans }))
  return { done: true }
})
