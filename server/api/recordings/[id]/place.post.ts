import { PlaceFiling } from '~~/shared/library/changes'
import { body, idOf, originOf, route, signedIn } from '~~/server/http/route'
import { askRecording, must } from '~~/server/services/access'
import { place } from '~~/server/services/placing'

defineRouteMeta({ openAPI: { tags: ['placement'], summary: 'A code for a course page: a player or a descriptive link' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const id = idOf(event)
  must(await askRecording(who, 'place', id))
  const wish = await body(event, PlaceFiling)
  return place(id, wish.filingId, wish.kind, who.id, originOf(event))
})
