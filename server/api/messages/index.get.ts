import { route, signedIn } from '~~/server/http/route'
import { messagesFor } from '~~/server/services/help'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'Messages to the team: all for the team, my own otherwise' } })

export default route(async (event) => messagesFor((await signedIn(event)).who))
