import { getQuery, sendRedirect, getHeader } from 'h3'
import { beginSignIn } from '~~/server/adapters/sign-in'
import { keepSigningIn } from '~~/server/http/cookie'
import { originOf, route } from '~~/server/http/route'

defineRouteMeta({ openAPI: { tags: ['sign-in'], summary: 'Sends the visitor to the campus sign-in' } })

/** Only addresses of our own: `//elsewhere` and `https:` would lead somebody away after signing in. */
const ownPath = (to: unknown) => (typeof to === 'string' && /^\/(?![/\\])/.test(to) ? to : '/')

export default route(async (event) => {
  const { address, ...kept } = await beginSignIn(originOf(event))
  await keepSigningIn(event, { ...kept, to: ownPath(getQuery(event).to) })
  if (getHeader(event, 'sec-fetch-dest') === 'iframe') return 'Sign-in opens in a window of its own.'
  return sendRedirect(event, address)
})
