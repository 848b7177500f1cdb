import { bearer, route, slugOf } from '~~/server/http/route'
import { Refusal } from '~~/server/services/errors'
import { renewTicket } from '~~/server/services/sessions'

defineRouteMeta({ openAPI: { tags: ['placement'], summary: 'Gives a frame’s ticket another while' } })

export default route(async (event) => {
  slugOf(event)
  const token = bearer(event)
  const expires = token ? await renewTicket(token) : undefined
  if (!expires) throw new Refusal(401, 'Your time here has run out. Sign in again to go on watching.')
  return { expires }
})
