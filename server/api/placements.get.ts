import { route, signedIn } from '~~/server/http/route'
import { nothingHere } from '~~/server/services/errors'
import { sectionsOf } from '~~/server/services/library'
import { placementList } from '~~/server/services/placing'

defineRouteMeta({ openAPI: { tags: ['placement'], summary: 'All placements the reader looks after, latest first' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  if (who.role === 'student') throw nothingHere()
  return placementList(sectionsOf(who))
})
