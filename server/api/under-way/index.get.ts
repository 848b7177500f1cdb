import { route, signedIn } from '~~/server/http/route'
import { sectionsOf } from '~~/server/services/library'
import { underWay } from '~~/server/services/making'
import { Refusal } from '~~/server/services/errors'

defineRouteMeta({ openAPI: { tags: ['media'], summary: 'What is being made, waits, or ended lately' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  if (who.role === 'student') throw new Refusal(404, 'There is nothing at this address.')
  return underWay(sectionsOf(who))
})
