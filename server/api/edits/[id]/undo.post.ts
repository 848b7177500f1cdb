import { idOf, route, signedIn } from '~~/server/http/route'
import { undo } from '~~/server/services/edits'
import { mustUndo } from '~~/server/services/planners'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Puts everything that an edit changed back as it was' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  await mustUndo(who, idOf(event))
  return undo(idOf(event), who.id)
})
