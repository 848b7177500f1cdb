import { getQuery } from 'h3'
import { route, signedIn } from '~~/server/http/route'
import { editsOf } from '~~/server/services/edits'
import { nothingHere } from '~~/server/services/errors'
import { mustPlanCapture, planningSections } from '~~/server/services/planners'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'What was done to the timetable, newest first' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const { capture } = getQuery(event)
  if (capture === undefined) return editsOf({ sectionIds: planningSections(who) })
  if (typeof capture !== 'string' || !/^[0-9a-f-]{36}$/.test(capture)) throw nothingHere()
  await mustPlanCapture(who, capture)
  return editsOf({ captureId: capture })
})
