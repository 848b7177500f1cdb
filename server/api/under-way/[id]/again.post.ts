import { idOf, requestIdOf, route, signedIn } from '~~/server/http/route'
import { askRecording, must } from '~~/server/services/access'
import { nothingHere } from '~~/server/services/errors'
import { makeAgain } from '~~/server/services/making'
import { Undertaking } from '~~/server/models/undertaking'

defineRouteMeta({ openAPI: { tags: ['media'], summary: 'Makes again what failed or was cancelled' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const undertaking = await Undertaking.findByPk(idOf(event), { raw: true })
  if (!undertaking) throw nothingHere()
  must(await askRecording(who, 'release', undertaking.recordingId))
  await makeAgain(undertaking.id, who.id, requestIdOf(event))
  return { done: true }
})
