import { PlanCaptures } from '~~/shared/timetable/plan-captures'
import { body, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { previewPlan } from '~~/server/services/planning'
import { beyondForPlan } from '~~/server/services/requests'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'The dates of a plan before it is saved, its clashes and the ways out' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const plan = await body(event, PlanCaptures)
  must(ask(who, 'plan', { kind: 'section', sectionId: plan.sectionId }))
  return { ...await previewPlan(plan), beyond: await beyondForPlan(who, plan) }
})
