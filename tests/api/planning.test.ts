import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ClashView, PlanChoices } from '~~/shared/timetable/views'
import { wallOf } from '~~/core/term/calendar'
import { campusNow, closeSql, origin, sql } from '../support/house'
import { people, PersonClient } from '../support/person'

let staff: PersonClient
let choices: PlanChoices
const day = 24 * 3600_000

beforeAll(async () => {
  staff = await PersonClient.signIn(people.staff)
  choices = (await staff.api<PlanChoices>('GET', '/api/plan/choices')).data
})
afterAll(closeSql)

const room = (name: string) => choices.rooms.find((r) => r.name === name)!
async function plan(change: object = {}) {
  const section = choices.sections.find((s) => s.code === 'CAV-410/01')!
  const { date } = wallOf('Europe/London', await campusNow() + 3 * day)
  return { sectionId: section.id, roomId: room('Lock Studio').id, date, start: '19:00', minutes: 45, presenterId: section.presenterIds[0], inputs: ['sound', 'lectern screen'], topic: '', ...change }
}

describe('planning one capture', () => {
  it('lets one of two win who plan the same room at the same moment, and tells the other', async () => {
    const other = await PersonClient.signIn('teodor.brand@fennick.example')
    const wish = await plan()
    const answers = await Promise.all([staff, other].map((who) => who.api<ClashView & { id?: string }>('POST', '/api/captures', wish)))
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409])
    const refused = answers.find((a) => a.status === 409)!.data
    expect(refused.sentence).toContain('Lock Studio')
    const rows = await sql('SELECT 1 FROM captures WHERE room_id = $1 AND starts_at > now() AND state <> $2 AND extract(hour FROM starts_at AT TIME ZONE $3) = 19', [wish.roomId, 'cancelled', 'Europe/London'])
    expect(rows).toHaveLength(1)
  })

  it('names the clash, the nearest free start and rooms that have what is asked', async () => {
    const { status, data } = await staff.api<ClashView>('POST', '/api/captures', await plan({ start: '19:20' }))
    expect(status).toBe(409)
    expect(data.clash?.section).toBe('CAV-410/01')
    expect(data.sentence).toMatch(/taken: CAV-410\/01 with .*, 19:00 to 19:45, and 10 min to turn the room around\./)
    expect(data.nearestStart).toBe('19:55')
    for (const free of data.freeRooms) expect(room(free.name).inputs).toEqual(expect.arrayContaining(['sound', 'lectern screen']))
    expect(data.freeRooms.length).toBeGreaterThan(0)
  })

  it('is held by the database too, whatever program writes', async () => {
    const [capture] = await sql<{ id: string }>('SELECT id FROM captures WHERE state = $1 LIMIT 1', ['armed'])
    const copy = sql('INSERT INTO captures (section_id, room_id, presenter_id, starts_at, ends_at, inputs) SELECT section_id, room_id, presenter_id, starts_at, ends_at, inputs FROM captures WHERE id = $1', [capture!.id])
    await expect(copy).rejects.toThrow('one_capture_a_room')
  })

  it('refuses what the room does not have, in the form’s field and in the database', async () => {
    const { status, data } = await staff.api<{ fields: Record<string, string> }>('POST', '/api/captures', await plan({ start: '17:00', inputs: ['sound', 'document camera'] }))
    expect(status).toBe(422)
    expect(data.fields.inputs).toBe('Lock Studio has no document camera.')
    await expect(sql(`UPDATE captures SET inputs = '{x-ray}' WHERE id = (SELECT id FROM captures WHERE state = 'planned' LIMIT 1)`)).rejects.toThrow('cannot take in')
  })

  it.each([['a past day', { date: '2020-01-06' }, 'start'], ['no such day', { date: '2027-02-30' }, 'date'], ['a student presenting', {}, 'presenterId'], ['a wrong field', { colour: 'red' }, 'colour']])('refuses %s', async (what, change, field) => {
    const [student] = await sql<{ id: string }>('SELECT id FROM people WHERE email = $1', [people.student])
    const { status, data } = await staff.api<{ fields: Record<string, string> }>('POST', '/api/captures', await plan({ start: '16:00', ...change, ...(what === 'a student presenting' ? { presenterId: student!.id } : {}) }))
    expect(status).toBe(422)
    expect(Object.keys(data.fields)).toEqual([field])
  })

  it('warns of a presenter in two places, and plans all the same; cancelled and put back', async () => {
    const { status, data } = await staff.api<{ id: string, warnings: string[] }>('POST', '/api/captures', await plan({ start: '19:10', roomId: room('Tithe Room').id }))
    expect(status).toBe(201)
    expect(data.warnings[0]).toContain('is also in Lock Studio')
    expect((await staff.api('POST', `/api/captures/${data.id}/cancel`)).status).toBe(200)
    expect((await staff.api('POST', `/api/captures/${data.id}/restore`)).status).toBe(200)
    expect((await sql<{ state: string, revision: number }>('SELECT state, revision FROM captures WHERE id = $1', [data.id]))[0]).toMatchObject({ state: expect.stringMatching(/planned|armed/), revision: 2 })
  })

  it('leaves what has begun alone', async () => {
    const [filed] = await sql<{ id: string }>('SELECT id FROM captures WHERE state = $1 LIMIT 1', ['filed'])
    expect((await staff.api('POST', `/api/captures/${filed!.id}/cancel`)).status).toBe(409)
  })

  it('is the team’s alone', async () => {
    for (const email of [people.instructor, people.student]) {
      const person = await PersonClient.signIn(email)
      expect((await person.api('POST', '/api/captures', await plan())).status).toBe(404)
      expect((await person.api('GET', '/api/plan/choices')).status).toBe(404)
    }
  })
})

describe('requests from elsewhere', () => {
  it('do nothing, with or without a form’s disguise', async () => {
    const body = JSON.stringify(await plan({ start: '15:00' }))
    for (const headers of [{ origin: 'http://127.0.0.1:9' }, { 'origin': 'null' }, { 'sec-fetch-site': 'cross-site' }, { 'sec-fetch-site': 'same-site' }, {}] as Record<string, string>[]) {
      const answer = await staff.fetch('/api/captures', { method: 'POST', body, headers: { 'content-type': 'text/plain', ...headers } })
      expect(answer.status, JSON.stringify(headers)).toBe(403)
    }
    expect((await staff.fetch('/api/captures', { method: 'POST', body: 'not json', headers: { origin, 'content-type': 'application/json' } })).status).toBe(422)
  })
})
