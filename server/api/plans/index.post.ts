import { setResponseStatus } from 'h3'
import { PlanCaptures } from '~~/shared/timetable/plan-captures'
import { body, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { planCaptures } from '~~/server/services/planning'
import { beyondForPlan, mustBeWithin } from '~~/server/services/requests'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Saves a plan and its captures; 409 names the clashes and the ways out' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const plan = await body(event, PlanCaptures)
  must(ask(who, 'plan', { kind: 'section', sectionId: plan.sectionId }))
  mustBeWithin(await beyondForPlan(who, plan))
  const planned = await planCaptures(plan, who.id)
  setResponseStatus(event, 201)
  return planned
})
