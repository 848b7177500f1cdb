import { idOf, route, signedIn } from '~~/server/http/route'
import { markRead } from '~~/server/services/notices'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'Marks one of my notices as read' } })

export default route(async (event) => {
  await markRead((await signedIn(event)).who.id, idOf(event))
  return { done: true }
})
