/**
 * The campus clock: one service that all programs ask for the time of the campus.
 *
 * - `GET /` → `{ realAnchor, campusAnchor, rate }`; campus time is `campusAnchor + (real − realAnchor) · rate`, all ms
 * - `GET /next?after=REAL_ANCHOR` → the same, held open until it changes (at most 30 s)
 * - `PUT /` with `{ at?, rate? }` and the key as bearer: sets and speeds it. Demo and tests alone have the key.
 *
 * Switched off, it stands still: a demo opened days later is where it was left.
 */
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import type { ServerResponse } from 'node:http'
import { bodyOf, json, serve, setting } from '../common/program'

interface Setting { realAnchor: number, campusAnchor: number, rate: number }

const file = setting('CLOCK_STATE')
const waiting = new Set<ServerResponse>()
let clock = begin()

function begin(): Setting {
  const kept = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) as { campus: number, rate: number } : { campus: Date.now(), rate: 1 }
  return { realAnchor: Date.now(), campusAnchor: kept.campus, rate: kept.rate }
}

const campus = () => Math.round(clock.campusAnchor + (Date.now() - clock.realAnchor) * clock.rate)

function keep(): void {
  writeFileSync(`${file}.new`, JSON.stringify({ campus: campus(), rate: clock.rate }))
  renameSync(`${file}.new`, file)
}

function set(at: number, rate: number): void {
  // Anchors tell settings apart, so no two are alike.
  clock = { realAnchor: Math.max(Date.now(), clock.realAnchor + 1), campusAnchor: at, rate }
  keep()
  for (const response of waiting) json(response, 200, clock)
  waiting.clear()
}

setInterval(keep, 2000).unref()
process.once('SIGTERM', keep)
keep()

serve('clock', Number(setting('PORT')), async (request, response, url) => {
  if (request.method === 'GET' && url.pathname === '/') return json(response, 200, clock)
  if (request.method === 'GET' && url.pathname === '/next') {
    if (Number(url.searchParams.get('after')) !== clock.realAnchor) return json(response, 200, clock)
    waiting.add(response)
    const enough = setTimeout(() => waiting.delete(response) && json(response, 200, clock), 30_000)
    response.once('close', () => {
      clearTimeout(enough)
      waiting.delete(response)
    })
    return
  }
  if (request.method === 'PUT' && url.pathname === '/') {
    if (request.headers.authorization !== `Bearer ${setting('CLOCK_KEY')}`) return json(response, 403, { sentence: 'The campus clock is set by the demo and by tests alone.' })
    const wish = JSON.parse(await bodyOf(request)) as { at?: unknown, rate?: unknown }
    const at = wish.at ?? campus()
    const rate = wish.rate ?? clock.rate
    if (typeof at !== 'number' || !Number.isFinite(at) || typeof rate !== 'number' || !(rate >= 0 && rate <= 3600)) {
      return json(response, 422, { sentence: 'Give `at` in milliseconds and `rate` between 0 and 3600.' })
    }
    set(at, rate)
    return json(response, 200, clock)
  }
  json(response, 404, { sentence: 'Nothing here.' })
})
