/** The campus sign-in, by OpenID Connect (authorization code with PKCE). */
import * as oidc from 'openid-client'
import { Refusal } from '../services/errors'

export interface Identity { subject: string, email: string | undefined, name: string | undefined, idToken: string | undefined }

let found: Promise<oidc.Configuration> | undefined

/** @throws Refusal 503 while the sign-in does not answer */
async function provider(): Promise<oidc.Configuration> {
  const issuer = new URL(process.env.OIDC_ISSUER ?? 'http://127.0.0.1:3200')
  // Plain http is for a sign-in on this very machine only.
  const local = issuer.hostname === '127.0.0.1' || issuer.hostname === 'localhost'
  found ??= oidc.discovery(issuer, process.env.OIDC_CLIENT_ID ?? 'karstland', process.env.OIDC_CLIENT_SECRET, undefined, local ? { execute: [oidc.allowInsecureRequests] } : {})
  try {
    return await found
  } catch {
    found = undefined
    throw new Refusal(503, 'The campus sign-in does not answer. Nothing is lost; try again in a minute.')
  }
}

const callback = (origin: string) => `${origin}/api/auth/callback`

/** Where to send somebody to sign in, and what must be kept until they come back. */
export async function beginSignIn(origin: string): Promise<{ address: string, state: string, nonce: string, verifier: string }> {
  const config = await provider()
  const verifier = oidc.randomPKCECodeVerifier()
  const state = oidc.randomState()
  const nonce = oidc.randomNonce()
  const address = oidc.buildAuthorizationUrl(config, {
    redirect_uri: callback(origin), scope: 'openid profile email', state, nonce,
    code_challenge: await oidc.calculatePKCECodeChallenge(verifier), code_challenge_method: 'S256',
  })
  return { address: address.href, state, nonce, verifier }
}

/** Who came back. @throws Refusal 400 when the answer does not belong to a sign-in begun here */
export async function finishSignIn(origin: string, query: string, kept: { state?: string, nonce?: string, verifier?: string }): Promise<Identity> {
  const config = await provider()
  if (!kept.state || !kept.verifier) throw new Refusal(400, 'This sign-in was begun too long ago or in another browser. Begin again.')
  try {
    const tokens = await oidc.authorizationCodeGrant(config, new URL(`${callback(origin)}${query}`), {
      expectedState: kept.state, expectedNonce: kept.nonce, pkceCodeVerifier: kept.verifier,
    })
    const claims = tokens.claims()!
    const text = (value: unknown) => (typeof value === 'string' ? value : undefined)
    return { subject: claims.sub, email: text(claims.email), name: text(claims.name), idToken: tokens.id_token }
  } catch {
    throw new Refusal(400, 'The campus sign-in did not confirm who you are. Begin again.')
  }
}

/** Where to end the campus sign-in as well, after ours is ended. */
export async function endAddress(origin: string, idToken: string | null): Promise<string> {
  const config = await provider()
  const back = `${origin}/signed-out`
  if (!config.serverMetadata().end_session_endpoint || !idToken) return back
  return oidc.buildEndSessionUrl(config, { post_logout_redirect_uri: back, id_token_hint: idToken }).href
}
