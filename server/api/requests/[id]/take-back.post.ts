import { idOf, route, signedIn } from '~~/server/http/route'
import { takeBackRequest } from '~~/server/services/requests'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Takes my own request back while it waits' } })

export default route(async (event) => {
  await takeBackRequest(idOf(event), (await signedIn(event)).who.id)
  return { done: true }
})
