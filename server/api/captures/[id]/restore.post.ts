import { idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { setCancelled } from '~~/server/services/planning'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Puts a cancelled capture back into the plan' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  await setCancelled(idOf(event), false)
  return { done: true }
})
