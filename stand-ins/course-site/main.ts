/** A small plain course system on a site of its own: courses, pages, draft and published, its own sign-in. */
import { randomBytes } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import * as oidc from 'openid-client'
import { bodyOf, serve, setting } from '../common/program'
import { addPage, changePage, courseById, coursesOf, pageById, pagesOf, partIn } from './data'
import { contentPage, coursePage, editPage, home, message } from './pages'

const port = Number(setting('PORT'))
const origin = `http://127.0.0.1:${port}`

interface Visit { email?: string, name?: string, verifier?: string, state?: string, to?: string }
const visits = new Map<string, Visit>()

let provider: oidc.Configuration | undefined
const signIn = async () => provider ??= await oidc.discovery(new URL(setting('OIDC_ISSUER')), 'course-site', setting('COURSE_SECRET'), undefined, { execute: [oidc.allowInsecureRequests] })

function visitOf(request: IncomingMessage, response: ServerResponse): Visit {
  const id = /(?:^|; )course_site=([\w-]+)/.exec(request.headers.cookie ?? '')?.[1]
  const known = id && visits.get(id)
  if (known) return known
  const fresh = randomBytes(24).toString('base64url')
  const visit: Visit = {}
  visits.set(fresh, visit)
  response.setHeader('set-cookie', `course_site=${fresh}; Path=/; HttpOnly; SameSite=Lax`)
  return visit
}

const go = (response: ServerResponse, to: string) => void response.writeHead(303, { location: to }).end()

async function sendToSignIn(response: ServerResponse, visit: Visit, to: string) {
  const config = await signIn()
  visit.verifier = oidc.randomPKCECodeVerifier()
  visit.state = oidc.randomState()
  visit.to = to
  go(response, oidc.buildAuthorizationUrl(config, {
    redirect_uri: `${origin}/signed-in`, scope: 'openid profile email', state: visit.state,
    code_challenge: await oidc.calculatePKCECodeChallenge(visit.verifier), code_challenge_method: 'S256',
  }).href)
}

async function signedIn(response: ServerResponse, visit: Visit, url: URL) {
  const tokens = await oidc.authorizationCodeGrant(await signIn(), new URL(url.pathname + url.search, origin), { expectedState: visit.state!, pkceCodeVerifier: visit.verifier! })
  const claims = tokens.claims()!
  visit.email = String(claims.email)
  visit.name = String(claims.name)
  go(response, visit.to ?? '/')
}

serve('course-site', port, async (request, response, url) => {
  const visit = visitOf(request, response)
  const html = (text: string, status = 200) => void response.writeHead(status, { 'content-type': 'text/html; charset=utf-8' }).end(text)
  if (url.pathname === '/signed-in') return signedIn(response, visit, url)
  if (url.pathname === '/signed-out') return html(message(null, 'Signed out', 'You have left.'))
  const { email, name } = visit
  if (!email || !name) return sendToSignIn(response, visit, request.method === 'GET' ? url.pathname : '/')
  const fields = request.method === 'POST' ? new URLSearchParams(await bodyOf(request)) : new URLSearchParams()
  if (url.pathname === '/leave') {
    delete visit.email
    return html(message(null, 'You have left', 'Your campus sign-in may still hold.'))
  }
  if (url.pathname === '/') return html(home(name, coursesOf(email)))
  const [, kind, id = '', verb] = url.pathname.split('/')
  const page = kind === 'p' ? pageById(id) : undefined
  const course = kind === 'c' ? courseById(id) : page && courseById(page.course)
  const part = course && partIn(course, email)
  if (!course || !part || (page && !page.published && part === 'student')) return html(message(name, 'Not found', 'There is no such page for you.'), 404)
  if (request.method === 'POST' && part !== 'teacher') return html(message(name, 'Not allowed', 'Only teachers change pages.'), 403)
  if (kind === 'c') {
    if (request.method === 'POST' && verb === 'pages') return go(response, `/p/${addPage(course.id, fields.get('title') ?? '').id}/edit`)
    return html(coursePage(name, course, pagesOf(course.id).filter((p) => p.published || part === 'teacher'), part))
  }
  if (request.method === 'POST' && verb === 'edit') changePage(page!, { title: fields.get('title') ?? '', html: fields.get('html') ?? '' })
  if (request.method === 'POST' && verb === 'publish') changePage(page!, { published: fields.get('published') === 'yes' })
  if (request.method === 'POST') return go(response, `/p/${page!.id}`)
  if (verb === 'edit' && part === 'teacher') return html(editPage(name, course, page!))
  html(contentPage(name, course, page!, part))
})
