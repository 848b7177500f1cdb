import { route, signedIn } from '~~/server/http/route'
import { noticeChoices } from '~~/server/services/notices'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'How I want to be told of what' } })

export default route(async (event) => noticeChoices((await signedIn(event)).who.id))
