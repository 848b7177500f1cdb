import { afterAll, describe, expect, it } from 'vitest'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { closeSql, origin, sql, until } from '../support/house'
import { listenLive } from '../support/listen'
import { people, PersonClient } from '../support/person'

afterAll(closeSql)

describe('sign-in', () => {
  it('shows somebody the campus knows and we do not the door, kindly', async () => {
    const stranger = await PersonClient.signIn(people.stranger)
    expect(stranger.landed).toContain('/no-entry?as=ida.krall%40fennick.example')
    expect((await stranger.api('GET', '/api/me')).status).toBe(401)
  })

  it('keeps sessions here: ended in the database, the cookie opens nothing', async () => {
    const person = await PersonClient.signIn(people.student)
    expect((await person.api<{ person: object }>('GET', '/api/me')).data.person).toMatchObject({ name: 'Linnea Ashdown', role: 'student' })
    await sql('UPDATE sessions SET ended_at = now() WHERE person_id = (SELECT id FROM people WHERE email = $1)', [people.student])
    expect((await person.api('GET', '/api/me')).status).toBe(401)
  })

  it('leads nobody away to another site afterwards', async () => {
    for (const to of ['//elsewhere.example', 'https://elsewhere.example', '/\\elsewhere.example']) {
      const person = new PersonClient()
      const form = await person.follow(await person.fetch(`${origin}/api/auth/sign-in?to=${encodeURIComponent(to)}`))
      const landed = await person.follow(await person.fetch(form.url, { method: 'POST', body: new URLSearchParams({ email: people.student }), headers: { 'content-type': 'application/x-www-form-urlencoded' } }))
      expect(new URL(landed.url).origin).toBe(origin)
    }
  })

  it('does not take an answer that belongs to no sign-in begun here', async () => {
    const answer = await fetch(`${origin}/api/auth/callback?code=abc&state=def`, { redirect: 'manual' })
    expect(answer.headers.get('location')).toMatch(/^\/no-entry\?why=/)
  })
})

describe('under the floor', () => {
  it('says that it lives and is ready, with figures and its own description', async () => {
    expect((await fetch(`${origin}/health`)).status).toBe(200)
    expect((await fetch(`${origin}/ready`)).status).toBe(200)
    const metrics = await (await fetch(`${origin}/metrics`)).text()
    expect(metrics).toContain('karstland_request_seconds_bucket')
    const api = await (await fetch(`${origin}/api/openapi.json`)).json() as { paths: Record<string, object> }
    expect(Object.keys(api.paths)).toEqual(expect.arrayContaining(['/api/captures', '/api/recordings/{id}/release', '/recorders/plan.ics']))
  })

  it('frames nothing but embeds, and runs no script that is not ours', async () => {
    const page = await fetch(`${origin}/today`)
    const policy = page.headers.get('content-security-policy')!
    expect(policy).toMatch(/frame-ancestors 'none'/)
    expect(policy).toMatch(/script-src 'self' 'nonce-[^']{16,}'/)
    expect(await page.text()).toMatch(/<script[^>]+nonce="[^"]{16,}"/)
    const embed = await fetch(`${origin}/embed/AAAAAAAAAAAA`)
    expect(embed.headers.get('content-security-policy')).toMatch(/frame-ancestors \*/)
    expect(embed.headers.get('x-frame-options')).toBeNull()
  })

  it('carries a request’s id from the recorder’s upload into the worker’s log', async () => {
    const [row] = await sql<{ recording_id: string }>('SELECT recording_id FROM source_files LIMIT 1')
    if (!row) return expect(row, 'an earlier test sends a file').toBeDefined()
    const line = await until('the worker’s line', async () => readFileSync(join(process.env.TEST_LOGS!, 'worker.log'), 'utf8').split('\n').find((l) => l.includes(row.recording_id) && l.includes('requestId')))
    const { requestId } = JSON.parse(line) as { requestId: string }
    expect(readFileSync(join(process.env.TEST_LOGS!, 'web.log'), 'utf8')).toContain(requestId)
  })

  it('tells live listeners what concerns them, and nobody else anything', async () => {
    expect((await fetch(`${origin}/api/live`)).status).toBe(401)
    const teacher = await PersonClient.signIn(people.instructor)
    const { heard, hangUp } = await listenLive(teacher)
    await until('the greeting', async () => heard.some((e) => e.topic === 'hello'))
    const [own] = await sql<{ id: string }>(`SELECT s.id FROM sections s JOIN courses c ON c.id = s.course_id WHERE c.code = 'HYD-210' AND s.number = '01'`)
    const [foreign] = await sql<{ id: string }>(`SELECT s.id FROM sections s JOIN courses c ON c.id = s.course_id WHERE c.code = 'LIM-230' AND s.number = '01'`)
    for (const sectionId of [foreign!.id, own!.id]) await sql('SELECT pg_notify($1, $2)', ['karstland_live', JSON.stringify({ topic: 'recording', id: 'x', sectionId })])
    await until('the news', async () => heard.some((e) => e.sectionId === own!.id))
    expect(heard.some((e) => e.sectionId === foreign!.id)).toBe(false)
    await hangUp()
  })

  it('limits how often a sign-in is begun', async () => {
    const statuses = new Set<number>()
    // From an address of its own, so that other tests may still sign in.
    const headers = { 'x-forwarded-for': '203.0.113.7' }
    for (let i = 0; i < 700 && !statuses.has(429); i++) statuses.add((await fetch(`${origin}/api/auth/sign-in`, { redirect: 'manual', headers })).status)
    expect(statuses).toContain(429)
  })
})
