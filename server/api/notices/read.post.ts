import { route, signedIn } from '~~/server/http/route'
import { markRead } from '~~/server/services/notices'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'Marks all my notices as read' } })

export default route(async (event) => {
  await markRead((await signedIn(event)).who.id, null)
  return { done: true }
})
