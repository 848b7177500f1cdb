import { route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { roomsSetUp } from '~~/server/services/set-up'

defineRouteMeta({ openAPI: { tags: ['set-up'], summary: 'Rooms, retired ones too' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  return roomsSetUp()
})
