import { ChangeCaptures } from '~~/shared/timetable/change-captures'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { mustPlanCapture } from '~~/server/services/planners'
import { changeCaptures } from '~~/server/services/changing'
import { beyondForChange, mustBeWithin } from '~~/server/services/requests'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Changes this capture, this and later ones, or all to come' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  await mustPlanCapture(who, idOf(event))
  const wish = await body(event, ChangeCaptures)
  mustBeWithin(await beyondForChange(who, idOf(event), wish))
  return changeCaptures(idOf(event), wish, who.id)
})
