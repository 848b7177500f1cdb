import { route, signedIn } from '~~/server/http/route'
import { noticesOf } from '~~/server/services/notices'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'What I was told, newest first' } })

export default route(async (event) => noticesOf((await signedIn(event)).who.id))
