import { route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { roomStates } from '~~/server/services/rooms'

defineRouteMeta({ openAPI: { tags: ['capture'], summary: 'Rooms with what their recorders last reported' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'run', { kind: 'house' }))
  return roomStates()
})
