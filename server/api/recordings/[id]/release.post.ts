import { ReleaseFiling } from '~~/shared/library/changes'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { askRecording, must } from '~~/server/services/access'
import { recordingView } from '~~/server/services/library'
import { release } from '~~/server/services/releasing'

defineRouteMeta({ openAPI: { tags: ['access'], summary: 'Releases a filing to its class list' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const id = idOf(event)
  must(await askRecording(who, 'release', id))
  await release(id, await body(event, ReleaseFiling), who.id)
  return recordingView(who, id)
})
