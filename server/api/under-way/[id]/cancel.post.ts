import { idOf, route, signedIn } from '~~/server/http/route'
import { askRecording, must } from '~~/server/services/access'
import { nothingHere } from '~~/server/services/errors'
import { cancelMaking } from '~~/server/services/making'
import { Undertaking } from '~~/server/models/undertaking'

defineRouteMeta({ openAPI: { tags: ['media'], summary: 'Stops a making; the file that arrived is kept' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const undertaking = await Undertaking.findByPk(idOf(event), { raw: true })
  if (!undertaking) throw nothingHere()
  must(await askRecording(who, 'release', undertaking.recordingId))
  await cancelMaking(undertaking.id, who.id)
  return { done: true }
})
