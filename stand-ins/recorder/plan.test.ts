import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { Plan } from './plan'

const folder = mkdtempSync(join(tmpdir(), 'karstland-plan-'))
const text = (summary: string) => ['BEGIN:VCALENDAR', 'VERSION:2.0', 'BEGIN:VEVENT', 'UID:a@x', 'DTSTART:20261125T100000Z', 'DTEND:20261125T105000Z', `SUMMARY:${summary}`, 'CATEGORIES:sound,lectern screen', 'END:VEVENT', 'END:VCALENDAR', ''].join('\r\n')
let server: Server
let answer: { status: number, body: string }
let seen: (string | undefined)[]

beforeAll(async () => {
  server = createServer((request, response) => {
    seen.push(request.headers['if-none-match'])
    response.writeHead(answer.status, { etag: '"one"' }).end(answer.body)
  })
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
})
beforeEach(() => (seen = []))
afterAll(() => {
  server.close()
  rmSync(folder, { recursive: true })
})
const planAt = (file: string) => new Plan(join(folder, file), `http://127.0.0.1:${(server.address() as AddressInfo).port}`, 'key')

describe('a recorder’s plan', () => {
  it('is read from the calendar, and asked for again by its tag', async () => {
    answer = { status: 200, body: text('HYD-210/01 Wells') }
    const plan = planAt('a.ics')
    expect(await plan.refresh()).toBe(true)
    expect(plan.events).toEqual([{ uid: 'a@x', start: Date.UTC(2026, 10, 25, 10), end: Date.UTC(2026, 10, 25, 10, 50), summary: 'HYD-210/01 Wells', inputs: ['sound', 'lectern screen'] }])
    answer = { status: 304, body: '' }
    expect(await plan.refresh()).toBe(true)
    expect(plan.events).toHaveLength(1)
    expect(seen).toEqual([undefined, '"one"'])
  })

  it('holds when the server is away or talks nonsense, and after a restart', async () => {
    answer = { status: 200, body: text('kept') }
    await planAt('b.ics').refresh()
    for (const bad of [{ status: 500, body: '' }, { status: 200, body: 'not a calendar' }, { status: 401, body: '{}' }]) {
      answer = bad
      const again = planAt('b.ics')
      expect(await again.refresh()).toBe(false)
      expect(again.events[0]!.summary).toBe('kept')
    }
    const away = new Plan(join(folder, 'b.ics'), 'http://127.0.0.1:9', 'key')
    expect(await away.refresh()).toBe(false)
    expect(away.events).toHaveLength(1)
  })

  it('is empty before anything was fetched', () => {
    expect(planAt('c.ics').events).toEqual([])
    writeFileSync(join(folder, 'd.ics'), text('from before'))
    expect(planAt('d.ics').events).toHaveLength(1)
  })
})
