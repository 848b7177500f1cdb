import { SaveRoom } from '~~/shared/set-up/changes'
import { body, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { saveRoom } from '~~/server/services/set-up'

defineRouteMeta({ openAPI: { tags: ['set-up'], summary: 'Saves a room' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'plan', { kind: 'house' }))
  return saveRoom(await body(event, SaveRoom), who.id)
})
