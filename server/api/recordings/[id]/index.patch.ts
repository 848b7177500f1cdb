import { RenameRecording } from '~~/shared/library/changes'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { askRecording, must } from '~~/server/services/access'
import { recordingView } from '~~/server/services/library'
import { rename } from '~~/server/services/releasing'

defineRouteMeta({ openAPI: { tags: ['library'], summary: 'Renames a recording' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const id = idOf(event)
  must(await askRecording(who, 'rename', id))
  await rename(id, (await body(event, RenameRecording)).name, who.id)
  return recordingView(who, id)
})
