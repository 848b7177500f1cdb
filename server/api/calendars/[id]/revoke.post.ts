import { idOf, route, signedIn } from '~~/server/http/route'
import { revokeAddress } from '~~/server/services/calendars'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Revokes a private calendar address at once' } })

export default route(async (event) => {
  await revokeAddress(idOf(event), (await signedIn(event)).who.id)
  return { done: true }
})
