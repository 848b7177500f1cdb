import { route, signedIn, slugOf } from '~~/server/http/route'
import { issueTicket } from '~~/server/services/sessions'

defineRouteMeta({ openAPI: { tags: ['placement'], summary: 'A short-lived ticket for the frame of one placement' } })

export default route(async (event) => issueTicket((await signedIn(event)).session.sessionId, slugOf(event)))
