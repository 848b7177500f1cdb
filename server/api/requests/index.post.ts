import { getQuery, readBody, setResponseStatus } from 'h3'
import { ChangeCaptures } from '~~/shared/timetable/change-captures'
import { PlanCaptures } from '~~/shared/timetable/plan-captures'
import { AskTeam } from '~~/shared/timetable/requests'
import { check } from '~~/shared/validate'
import { route, signedIn, termAsked } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { Refusal } from '~~/server/services/errors'
import { mustPlanCapture } from '~~/server/services/planners'
import { askForChange, askForPlan } from '~~/server/services/requests'
import { captureOf } from '~~/server/services/captures'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Asks the team for a plan, or for a change of ?capture=' } })

/** @throws Refusal 422 */
async function checked<T extends object>(Class: new () => T, data: unknown): Promise<T> {
  const found = await check(Class, data)
  if ('value' in found) return found.value
  throw new Refusal(422, Object.values(found.errors)[0]!, { fields: found.errors })
}

export default route(async (event) => {
  const { who } = await signedIn(event)
  const sent = await readBody<{ note?: unknown, wish?: unknown } | null>(event).catch(() => null)
  const { note } = await checked(AskTeam, { note: sent?.note ?? '' })
  const captureId = termAsked(getQuery(event).capture)
  setResponseStatus(event, 201)
  if (captureId) {
    await mustPlanCapture(who, captureId)
    return askForChange(who, captureId, (await captureOf(captureId)).sectionId, await checked(ChangeCaptures, sent?.wish), note)
  }
  const plan = await checked(PlanCaptures, sent?.wish)
  must(ask(who, 'plan', { kind: 'section', sectionId: plan.sectionId }))
  return askForPlan(who, plan, note)
})
