import { HoldFiling } from '~~/shared/library/changes'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { askRecording, must } from '~~/server/services/access'
import { recordingView } from '~~/server/services/library'
import { hold } from '~~/server/services/releasing'

defineRouteMeta({ openAPI: { tags: ['access'], summary: 'Holds a filing again' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const id = idOf(event)
  must(await askRecording(who, 'release', id))
  await hold(id, (await body(event, HoldFiling)).filingId, who.id)
  return recordingView(who, id)
})
