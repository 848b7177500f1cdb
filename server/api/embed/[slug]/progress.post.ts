import { WatchProgress } from '~~/shared/watch/progress'
import { body, route, slugOf, ticketHolder, visitor } from '~~/server/http/route'
import { askRecording, must, whoIs } from '~~/server/services/access'
import { nothingHere, Refusal } from '~~/server/services/errors'
import { placementOf } from '~~/server/services/placing'
import { watched } from '~~/server/services/watching'

defineRouteMeta({ openAPI: { tags: ['placement'], summary: 'Watched spans from a frame' } })

export default route(async (event) => {
  const placement = await placementOf(slugOf(event))
  if (!placement) throw nothingHere()
  const holder = await ticketHolder(event)
  const session = holder?.placementId === placement.id ? holder : await visitor(event)
  const who = await whoIs(session?.personId)
  if (who.kind === 'nobody') throw new Refusal(401, 'Sign in again to go on.')
  must(await askRecording(who, 'watch', placement.recordingId, 'placement'))
  await watched(who, placement.recordingId, await body(event, WatchProgress), placement.id)
  return { kept: true }
})
