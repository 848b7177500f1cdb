import { route, signedIn } from '~~/server/http/route'
import { unreadCount } from '~~/server/services/notices'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'How many notices I have not read' } })

export default route(async (event) => ({ unread: await unreadCount((await signedIn(event)).who.id) }))
