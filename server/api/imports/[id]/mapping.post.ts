import { MapColumns } from '~~/shared/imports/requests'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { decideImport } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Says which column holds what' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  const { mapping } = await body(event, MapColumns)
  await decideImport(idOf(event), (options) => ({ ...options, mapping, decisions: [], leftOut: [] }))
  return { done: true }
})
