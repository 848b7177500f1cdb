import { route, slugOf, ticketHolder, visitor } from '~~/server/http/route'
import { placementOf } from '~~/server/services/placing'
import { watchView } from '~~/server/services/watching'
import type { Refused } from '~~/shared/watch/watch'

defineRouteMeta({ openAPI: { tags: ['placement'], summary: 'What a frame on a course page shows: the player’s facts, or why there is no player' } })

const gone: Refused = { say: 'told', title: 'This placement is gone', advice: 'The recording that was placed here has been taken away. Tell the instructor of this page.' }

export default route(async (event) => {
  const placement = await placementOf(slugOf(event))
  if (!placement) return gone
  // A ticket opens its own placement only; the cookie is there when frame and page are of one site.
  const holder = await ticketHolder(event)
  const who = holder?.placementId === placement.id ? holder : await visitor(event)
  return watchView(who, placement.recordingId, 'placement', placement.section)
})
