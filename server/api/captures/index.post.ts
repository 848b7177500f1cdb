import { setResponseStatus } from 'h3'
import { PlanCapture } from '~~/shared/timetable/plan-capture'
import { body, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { planOne } from '~~/server/services/planning'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Plans one capture; 409 names the clash and the ways out' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'plan', { kind: 'house' }))
  const planned = await planOne(await body(event, PlanCapture), who.id)
  setResponseStatus(event, 201)
  return planned
})
