import { getRequestURL, sendRedirect } from 'h3'
import { finishSignIn } from '~~/server/adapters/sign-in'
import { takeSigningIn, writeSessionToken } from '~~/server/http/cookie'
import { originOf, route } from '~~/server/http/route'
import { Refusal } from '~~/server/services/errors'
import { beginSession, personOf } from '~~/server/services/sessions'

defineRouteMeta({ openAPI: { tags: ['sign-in'], summary: 'Where the campus sign-in sends people back to' } })

export default route(async (event) => {
  const kept = await takeSigningIn(event)
  try {
    const identity = await finishSignIn(originOf(event), getRequestURL(event).search, kept)
    const person = await personOf(identity.subject, identity.email)
    if (!person) return sendRedirect(event, `/no-entry?as=${encodeURIComponent(identity.email ?? identity.name ?? identity.subject)}`)
    await writeSessionToken(event, await beginSession(person, identity.idToken))
    return sendRedirect(event, kept.to ?? '/')
  } catch (error) {
    if (error instanceof Refusal && error.status === 400) return sendRedirect(event, `/no-entry?why=${encodeURIComponent(error.message)}`)
    throw error
  }
})
