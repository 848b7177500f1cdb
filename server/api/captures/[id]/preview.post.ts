import { ChangeCaptures } from '~~/shared/timetable/change-captures'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { mustPlanCapture } from '~~/server/services/planners'
import { previewChange } from '~~/server/services/changing'
import { beyondForChange } from '~~/server/services/requests'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'What a change would do, date by date' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  await mustPlanCapture(who, idOf(event))
  const wish = await body(event, ChangeCaptures)
  return { ...await previewChange(idOf(event), wish), beyond: await beyondForChange(who, idOf(event), wish) }
})
