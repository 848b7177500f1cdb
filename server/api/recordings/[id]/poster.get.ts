import { idOf, route, signedIn } from '~~/server/http/route'
import { sendFile } from '~~/server/http/send-file'
import { pathOf } from '~~/server/adapters/store'
import { Recording } from '~~/server/models/recording'
import { askRecording, must } from '~~/server/services/access'
import { nothingHere } from '~~/server/services/errors'

defineRouteMeta({ openAPI: { tags: ['media'], summary: 'The poster of a recording the reader may see' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const id = idOf(event)
  must(await askRecording(who, 'see', id))
  const recording = await Recording.findByPk(id, { attributes: ['storePrefix'], raw: true })
  if (!recording?.storePrefix) throw nothingHere()
  return sendFile(event, pathOf(recording.storePrefix, 'poster.jpg'), 'private, max-age=300')
})
