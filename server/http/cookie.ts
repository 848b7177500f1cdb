/** The session cookie: an opaque token, sealed, read by nobody but us. */
import { clearSession, getCookie, getSession, updateSession, type EventHandlerRequest, type H3Event, type SessionConfig } from 'h3'
import { sessionSecret } from '../services/secrets'

type Event = H3Event<EventHandlerRequest>

const config = (name: string, maxAge: number): SessionConfig => ({
  name,
  password: sessionSecret(),
  maxAge,
  cookie: { httpOnly: true, sameSite: 'lax', secure: (process.env.PUBLIC_ORIGIN ?? '').startsWith('https:'), path: '/' },
})
const session = () => config('karstland', 12 * 3600)
const signingIn = () => config('karstland-signing-in', 600)

/** The token of the cookie; undefined without a cookie or with one that is not ours. */
export async function readSessionToken(event: Event): Promise<string | undefined> {
  // Asked for first: reading a session that is not there would begin one.
  if (!getCookie(event, 'karstland')) return undefined
  return (await getSession<{ token?: string }>(event, session())).data.token
}

export const writeSessionToken = (event: Event, token: string) => updateSession(event, session(), { token })
export const dropSession = (event: Event) => clearSession(event, session())

/** What must come back unchanged from the sign-in: kept sealed for ten minutes. */
export interface SigningIn { state: string, nonce: string, verifier: string, to: string }

export const keepSigningIn = (event: Event, data: SigningIn) => updateSession(event, signingIn(), data)
export async function takeSigningIn(event: Event): Promise<Partial<SigningIn>> {
  if (!getCookie(event, 'karstland-signing-in')) return {}
  const { data } = await getSession<Partial<SigningIn>>(event, signingIn())
  const copy = { ...data }
  await clearSession(event, signingIn())
  return copy
}
