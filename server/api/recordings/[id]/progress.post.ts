import { WatchProgress } from '~~/shared/watch/progress'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { askRecording, must } from '~~/server/services/access'
import { watched } from '~~/server/services/watching'

defineRouteMeta({ openAPI: { tags: ['watch'], summary: 'Watched spans and the place to go on' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const id = idOf(event)
  must(await askRecording(who, 'watch', id))
  await watched(who, id, await body(event, WatchProgress), null)
  return { kept: true }
})
