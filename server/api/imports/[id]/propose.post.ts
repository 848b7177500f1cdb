import { idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { decideImport } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Works out ways out for every clash, to be looked over' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  await decideImport(idOf(event), (options) => ({ ...options, propose: true }))
  return { done: true }
})
