import { endAddress } from '~~/server/adapters/sign-in'
import { dropSession } from '~~/server/http/cookie'
import { originOf, route, visitor } from '~~/server/http/route'
import { endSession } from '~~/server/services/sessions'

defineRouteMeta({ openAPI: { tags: ['sign-in'], summary: 'Ends the session here; answers where to end the campus sign-in too' } })

export default route(async (event) => {
  const session = await visitor(event)
  const idToken = session ? await endSession(session.sessionId) : null
  await dropSession(event)
  return { address: await endAddress(originOf(event), idToken) }
})
