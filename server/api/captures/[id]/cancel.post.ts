import { idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { setCancelled } from '~~/server/services/planning'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Takes a capture that has not begun out of the plan' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  await setCancelled(idOf(event), true)
  return { done: true }
})
