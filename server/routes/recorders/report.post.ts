import { RecorderReport } from '~~/shared/capture/report'
import { bearer, body, route } from '~~/server/http/route'
import { recorderOf, takeReport } from '~~/server/services/recorders'

defineRouteMeta({ openAPI: { tags: ['recorders'], summary: 'A recorder says how it is and what it does' } })

export default route(async (event) => {
  const recorder = await recorderOf(bearer(event))
  await takeReport(recorder, await body(event, RecorderReport))
  return { heard: true }
})
