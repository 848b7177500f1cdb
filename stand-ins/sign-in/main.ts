/**
 * The campus sign-in: an OpenID Connect provider with the college's people. Asks who, but for no
 * password. People and clients come from files that the demo writes.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { exportJWK, generateKeyPair } from 'jose'
import Provider, { type Configuration, type JWKS } from 'oidc-provider'
import { bodyOf, serve, setting } from '../common/program'
import { choosePage, leavePage, leftPage } from './pages'
import type { Somebody } from './people'

const port = Number(setting('PORT'))
const issuer = `http://127.0.0.1:${port}`
const people = () => JSON.parse(readFileSync(setting('PEOPLE_FILE'), 'utf8')) as Somebody[]

async function keys(): Promise<JWKS> {
  const file = setting('KEYS_FILE')
  if (!existsSync(file)) {
    const { privateKey } = await generateKeyPair('RS256', { extractable: true })
    writeFileSync(file, JSON.stringify({ keys: [{ ...await exportJWK(privateKey), use: 'sig', alg: 'RS256', kid: 'campus' }] }), { mode: 0o600 })
  }
  return JSON.parse(readFileSync(file, 'utf8')) as JWKS
}

const client = (id: string, secret: string, origin: string, callback: string) => ({
  client_id: id, client_secret: secret, redirect_uris: [`${origin}${callback}`], post_logout_redirect_uris: [`${origin}/signed-out`],
  response_types: ['code' as const], grant_types: ['authorization_code'],
})

const configuration: Configuration = {
  clients: [
    client('karstland', setting('KARSTLAND_SECRET'), setting('KARSTLAND_ORIGIN'), '/api/auth/callback'),
    client('course-site', setting('COURSE_SECRET'), setting('COURSE_ORIGIN'), '/signed-in'),
  ],
  claims: { openid: ['sub'], email: ['email'], profile: ['name'] },
  conformIdTokenClaims: false,
  findAccount: (_ctx, sub) => {
    const found = people().find((p) => p.sub === sub)
    return found && { accountId: sub, claims: () => ({ sub, email: found.email, name: found.name }) }
  },
  jwks: await keys(),
  cookies: { keys: [setting('COURSE_SECRET')], names: { session: 'campus_session', interaction: 'campus_interaction', resume: 'campus_resume' } },
  features: {
    devInteractions: { enabled: false },
    rpInitiatedLogout: {
      enabled: true,
      logoutSource: (ctx, form) => void (ctx.body = leavePage(form)),
      postLogoutSuccessSource: (ctx) => void (ctx.body = leftPage()),
    },
  },
  interactions: { url: (_ctx, interaction) => `/who/${interaction.uid}` },
  // One campus: whoever may sign in may use its programs, so nobody is asked for consent.
  async loadExistingGrant(ctx) {
    const { client, session } = ctx.oidc
    const grant = new ctx.oidc.provider.Grant({ clientId: client!.clientId, accountId: session!.accountId! })
    grant.addOIDCScope('openid email profile')
    await grant.save()
    return grant
  },
  pkce: { required: () => true },
  renderError: (ctx, out) => void (ctx.body = `The campus sign-in could not go on: ${out.error_description ?? out.error}`),
  ttl: { Session: 12 * 3600, Interaction: 3600, Grant: 12 * 3600, AccessToken: 3600, IdToken: 3600 },
}

const provider = new Provider(issuer, configuration)
const oidc = provider.callback()

serve('sign-in', port, async (request, response, url) => {
  if (!url.pathname.startsWith('/who/')) return void await oidc(request, response)
  const html = (text: string) => void response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' }).end(text)
  if (request.method !== 'POST') return html(choosePage(people(), url.pathname, ''))
  const email = new URLSearchParams(await bodyOf(request)).get('email')?.trim().toLowerCase() ?? ''
  const found = people().find((p) => p.email === email)
  if (!found) return html(choosePage(people(), url.pathname, email))
  await provider.interactionFinished(request, response, { login: { accountId: found.sub } }, { mergeWithLastSubmission: false })
})
