import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { CaptureView, ChangePreview, Edited, EditView, PlanChoices, PlanPreview } from '~~/shared/timetable/views'
import { addDays, wallOf } from '~~/core/term/calendar'
import { campusNow, closeSql, origin, sql } from '../support/house'
import { people, PersonClient } from '../support/person'

let staff: PersonClient
let choices: PlanChoices
const day = 24 * 3600_000

beforeAll(async () => {
  staff = await PersonClient.signIn(people.staff)
  choices = (await staff.api<PlanChoices>('GET', '/api/plans/choices')).data
})
afterAll(closeSql)

const room = (name: string) => choices.rooms.find((r) => r.name === name)!
async function plan(change: object = {}) {
  const section = choices.sections.find((s) => s.code === 'CAV-410/01')!
  const { date } = wallOf('Europe/London', await campusNow() + 3 * day)
  return { sectionId: section.id, roomId: room('Lock Studio').id, date, start: '19:00', minutes: 45, presenterId: section.presenterIds[0], inputs: ['sound', 'lectern screen'], title: '', ...change }
}

describe('planning one capture', () => {
  it('lets one of two win who plan the same room at the same moment, and tells the other', async () => {
    const other = await PersonClient.signIn('teodor.brand@fennick.example')
    const wish = await plan()
    const answers = await Promise.all([staff, other].map((who) => who.api<PlanPreview & { sentence: string }>('POST', '/api/plans', wish)))
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409])
    const refused = answers.find((a) => a.status === 409)!.data
    expect(refused.sentence).toContain('Lock Studio is taken: CAV-410/01')
    expect(refused.clashes[0]!.ways.length).toBeGreaterThan(1)
    const rows = await sql('SELECT 1 FROM captures WHERE room_id = $1 AND starts_at > now() AND state <> $2 AND extract(hour FROM starts_at AT TIME ZONE $3) = 19', [wish.roomId, 'cancelled', 'Europe/London'])
    expect(rows).toHaveLength(1)
  })

  it('names the clash, the nearest free start and rooms that have what is asked', async () => {
    const { status, data } = await staff.api<PlanPreview & { sentence: string }>('POST', '/api/plans', await plan({ start: '19:20' }))
    expect(status).toBe(409)
    expect(data.sentence).toMatch(/taken: CAV-410\/01 with .*, .* 19:00–19:45, and 10 min to turn the room around\./)
    const { ways } = data.clashes[0]!
    expect(ways.find((w) => w.kind === 'start')).toMatchObject({ start: '20:00' })
    const free = ways.filter((w) => w.kind === 'room')
    for (const way of free) expect(room(way.room).inputs).toEqual(expect.arrayContaining(['sound', 'lectern screen']))
    expect(free.length).toBeGreaterThan(0)
    expect(ways.at(-1)).toMatchObject({ kind: 'leave out' })
  })

  it('is held by the database too, whatever program writes', async () => {
    const [capture] = await sql<{ id: string }>('SELECT id FROM captures WHERE state = $1 LIMIT 1', ['armed'])
    const copy = sql('INSERT INTO captures (section_id, room_id, presenter_id, starts_at, ends_at, inputs) SELECT section_id, room_id, presenter_id, starts_at, ends_at, inputs FROM captures WHERE id = $1', [capture!.id])
    await expect(copy).rejects.toThrow('one_capture_a_room')
  })

  it('refuses what the room does not have, in the form’s field and in the database', async () => {
    const { status, data } = await staff.api<{ fields: Record<string, string> }>('POST', '/api/plans', await plan({ start: '17:00', inputs: ['sound', 'document camera'] }))
    expect(status).toBe(422)
    expect(data.fields.inputs).toBe('Lock Studio has no document camera.')
    await expect(sql(`UPDATE captures SET inputs = '{x-ray}' WHERE id = (SELECT id FROM captures WHERE state = 'planned' LIMIT 1)`)).rejects.toThrow('cannot take in')
  })

  it.each([['a past day', { date: '2020-01-06' }, 'start'], ['no such day', { date: '2027-02-30' }, 'date'], ['a student presenting', {}, 'presenterId'], ['a wrong field', { colour: 'red' }, 'colour']])('refuses %s', async (what, change, field) => {
    const [student] = await sql<{ id: string }>('SELECT id FROM people WHERE email = $1', [people.student])
    const { status, data } = await staff.api<{ fields: Record<string, string> }>('POST', '/api/plans', await plan({ start: '16:00', ...change, ...(what === 'a student presenting' ? { presenterId: student!.id } : {}) }))
    expect(status).toBe(422)
    expect(Object.keys(data.fields)).toEqual([field])
  })

  it('warns of a presenter in two places, and plans all the same; cancelled and undone', async () => {
    const { status, data } = await staff.api<Edited & { captureId: string }>('POST', '/api/plans', await plan({ start: '19:10', roomId: room('Tithe Room').id }))
    expect(status).toBe(201)
    expect(data.warnings[0]).toContain('is also in Lock Studio for CAV-410/01')
    const stateOf = async () => (await sql<{ state: string, revision: number }>('SELECT state, revision FROM captures WHERE id = $1', [data.captureId]))[0]
    const cancelled = await staff.api<Edited>('POST', `/api/captures/${data.captureId}/change`, { cancelled: true })
    expect(cancelled.data.sentence).toMatch(/^CAV-410\/01 of .* cancelled\.$/)
    expect(await stateOf()).toMatchObject({ state: 'cancelled', revision: 1 })
    expect((await staff.api('POST', `/api/edits/${data.editId}/undo`)).data).toMatchObject({ sentence: expect.stringContaining('changed after that, by Odile Vance') })
    expect((await staff.api('POST', `/api/edits/${cancelled.data.editId}/undo`)).status).toBe(200)
    expect(await stateOf()).toMatchObject({ state: expect.stringMatching(/planned|armed/), revision: 2 })
    expect((await staff.api('POST', `/api/edits/${cancelled.data.editId}/undo`)).status).toBe(409)
    expect((await staff.api('POST', `/api/edits/${data.editId}/undo`)).status).toBe(200)
    expect(await stateOf()).toBeUndefined()
  })

  it('leaves what has begun alone', async () => {
    const [filed] = await sql<{ id: string }>('SELECT id FROM captures WHERE state = $1 LIMIT 1', ['filed'])
    expect((await staff.api('POST', `/api/captures/${filed!.id}/change`, { cancelled: true })).status).toBe(409)
  })

  it('is nobody’s who does not teach the section', async () => {
    for (const email of [people.instructor, people.student]) {
      const person = await PersonClient.signIn(email)
      expect((await person.api('POST', '/api/plans', await plan())).status).toBe(404)
      expect((await person.api('POST', '/api/plans/preview', await plan())).status).toBe(404)
      const [capture] = await sql<{ id: string }>(`SELECT c.id FROM captures c JOIN sections s ON s.id = c.section_id JOIN courses k ON k.id = s.course_id WHERE k.code = 'CAV-410' LIMIT 1`)
      for (const path of ['change', 'preview']) expect((await person.api('POST', `/api/captures/${capture!.id}/${path}`, { start: '11:00' })).status).toBe(404)
      const [edit] = await sql<{ id: string }>('SELECT id FROM timetable_edits LIMIT 1')
      expect((await person.api('POST', `/api/edits/${edit!.id}/undo`)).status).toBe(404)
    }
    expect((await (await PersonClient.signIn(people.student)).api('GET', '/api/plans/choices')).status).toBe(404)
    const own = await (await PersonClient.signIn(people.instructor)).api<PlanChoices>('GET', '/api/plans/choices')
    expect(own.data.sections.map((s) => s.code)).toEqual(['HYD-210/01', 'PRACTICE/Tamsin Okoro'])
  })
})

describe('a plan for the rest of the term', () => {
  const rule = async (change: object = {}) => ({ ...await plan(), repeat: 'every', weekdays: [2, 4], start: '18:30', minutes: 30, roomId: room('Lock Studio').id, ...change })
  const capturesOf = async (planId: string) => sql<{ id: string, date: string, time: string, room: string, own: string[] }>(`
    SELECT c.id, to_char(c.starts_at AT TIME ZONE 'Europe/London', 'YYYY-MM-DD') AS date, to_char(c.starts_at AT TIME ZONE 'Europe/London', 'HH24:MI') AS time, r.name AS room, c.own
    FROM captures c JOIN rooms r ON r.id = c.room_id WHERE c.plan_id = $1 ORDER BY c.starts_at`, [planId])

  it('makes its dates, is changed from one date on, keeps what was changed by hand, and is undone step by step', async () => {
    const preview = await staff.api<PlanPreview>('POST', '/api/plans/preview', await rule())
    expect(preview.data.dates.filter((d) => d.skipped === 'Reading')).toHaveLength(2)
    const kept = preview.data.dates.filter((d) => !d.skipped)
    const planned = await staff.api<Edited & { planId: string }>('POST', '/api/plans', await rule())
    expect(planned.status).toBe(201)
    const made = await capturesOf(planned.data.planId)
    expect(made.map((c) => c.date)).toEqual(kept.map((d) => d.date))
    expect(new Set(made.map((c) => c.time))).toEqual(new Set(['18:30']))
    // One by hand, then all from the third on to another room and an hour later.
    const byHand = made[4]!
    expect((await staff.api('POST', `/api/captures/${byHand.id}/change`, { scope: 'one', start: '20:00' })).status).toBe(200)
    const wish = { scope: 'later', start: '19:30', roomId: room('Millrace 104').id }
    const look = await staff.api<ChangePreview>('POST', `/api/captures/${made[2]!.id}/preview`, wish)
    expect(look.data.lines).toHaveLength(made.length - 2)
    expect(look.data.lines.find((l) => l.captureId === byHand.id)).toMatchObject({ keeps: ['start'], what: ['Lock Studio → Millrace 104'] })
    const changed = await staff.api<Edited>('POST', `/api/captures/${made[2]!.id}/change`, wish)
    expect(changed.status).toBe(200)
    const [newPlan] = await sql<{ plan_id: string }>('SELECT plan_id FROM captures WHERE id = $1', [made[2]!.id])
    expect(newPlan!.plan_id).not.toBe(planned.data.planId)
    expect(await capturesOf(planned.data.planId)).toHaveLength(2)
    expect((await capturesOf(newPlan!.plan_id)).map((c) => c.time)).toEqual(made.slice(2).map((c) => (c.id === byHand.id ? '20:00' : '19:30')))
    const history = await staff.api<EditView[]>('GET', `/api/edits?capture=${made[2]!.id}`)
    expect(history.data.map((h) => h.kind)).toEqual(['changed', 'planned'])
    expect((await staff.api('POST', `/api/edits/${changed.data.editId}/undo`)).status).toBe(200)
    expect((await capturesOf(planned.data.planId)).map((c) => c.time)).toEqual(made.map((c) => (c.id === byHand.id ? '20:00' : '18:30')))
  })

  it('changes one weekday of two, told and all, and comes together again when undone', async () => {
    const planned = await staff.api<Edited & { planId: string }>('POST', '/api/plans', await rule({ start: '07:00', minutes: 20, weekdays: [1, 3], leftOut: [] }))
    const made = await capturesOf(planned.data.planId)
    const [, second] = made.filter((c) => new Date(c.date).getUTCDay() === 3)
    const presenter = choices.presenters[0]!.id
    const changed = await staff.api<Edited>('POST', `/api/captures/${second!.id}/change`, { scope: 'later', weekdayOnly: true, start: '07:30', told: [presenter] })
    expect(changed.status).toBe(200)
    // Mondays, Wednesdays before and Wednesdays after: three plans, each true of its captures.
    const plans = await sql<{ start: string, n: number }>('SELECT p.start, count(*)::int AS n FROM captures c JOIN capture_plans p ON p.id = c.plan_id WHERE c.id = ANY($1) GROUP BY p.id, p.start ORDER BY 2', [made.map((c) => c.id)])
    expect(plans.map((p) => p.start).sort()).toEqual(['07:00', '07:00', '07:30'])
    expect((await staff.api('POST', `/api/edits/${changed.data.editId}/undo`)).status).toBe(200)
    expect(await capturesOf(planned.data.planId)).toEqual(made)
    const toldOf = async () => (await sql<{ told: string[] }>('SELECT told FROM capture_plans WHERE id = $1', [planned.data.planId]))[0]!.told
    const told = await staff.api<Edited>('POST', `/api/captures/${made[0]!.id}/change`, { told: [presenter] })
    expect([told.status, await toldOf()]).toEqual([200, [presenter]])
    await staff.api('POST', `/api/edits/${told.data.editId}/undo`)
    expect(await toldOf()).toEqual([])
    expect((await staff.api('POST', `/api/edits/${planned.data.editId}/undo`)).status).toBe(200)
  })

  it('moves to the next weekday through the places of its own captures', async () => {
    const planned = await staff.api<Edited & { planId: string }>('POST', '/api/plans', await rule({ start: '08:00', weekdays: [1, 2, 3], roomId: room('Orchard Seminar').id, inputs: ['sound'] }))
    expect(planned.status).toBe(201)
    const [first] = await capturesOf(planned.data.planId)
    const moved = await staff.api<Edited>('POST', `/api/captures/${first!.id}/change`, { scope: 'all', date: addDays(first!.date, 1) })
    expect(moved.status, JSON.stringify(moved.data)).toBe(200)
    expect(new Date((await capturesOf(planned.data.planId)).at(-1)!.date).getUTCDay()).not.toBe(1)
    expect((await staff.api('POST', `/api/edits/${planned.data.editId}/undo`)).status).toBe(409)
    expect((await staff.api('POST', `/api/edits/${moved.data.editId}/undo`)).status).toBe(200)
    expect((await staff.api('POST', `/api/edits/${planned.data.editId}/undo`)).status).toBe(200)
    expect(await capturesOf(planned.data.planId)).toEqual([])
  })

  it('names every date that is taken, and nothing is written', async () => {
    const [standing] = (await staff.api<CaptureView[]>('GET', `/api/captures?from=${await campusNow() + 6 * day}&to=${await campusNow() + 30 * day}`)).data.filter((c) => c.room === 'Adit Theatre')
    const wall = wallOf('Europe/London', standing!.start)
    const before = await sql('SELECT 1 FROM capture_plans')
    const { status, data } = await staff.api<PlanPreview>('POST', '/api/plans', await rule({ roomId: room('Adit Theatre').id, weekdays: [wall.weekday], start: wall.time }))
    expect(status).toBe(409)
    expect(data.clashes[0]!.dates).toContain(wall.date)
    expect(data.dates.filter((d) => d.clash).map((d) => d.date)).toEqual(data.clashes[0]!.dates)
    expect(await sql('SELECT 1 FROM capture_plans')).toHaveLength(before.length)
  })

  it.each([['an end before its start', { from: '2090-01-01' }, 'from'], ['a week the term has not', { repeat: 'chosen', weekNumbers: [77] }, 'weeks'], ['no weekday', { weekdays: [] }, 'weekdays']])('refuses %s', async (_, change, field) => {
    const { status, data } = await staff.api<{ fields: object }>('POST', '/api/plans', await rule(change))
    expect([status, Object.keys(data.fields)]).toEqual([422, [field]])
  })
})

describe('requests from elsewhere', () => {
  it('do nothing, with or without a form’s disguise', async () => {
    const body = JSON.stringify(await plan({ start: '15:00' }))
    for (const headers of [{ origin: 'http://127.0.0.1:9' }, { 'origin': 'null' }, { 'sec-fetch-site': 'cross-site' }, { 'sec-fetch-site': 'same-site' }, {}] as Record<string, string>[]) {
      const answer = await staff.fetch('/api/plans', { method: 'POST', body, headers: { 'content-type': 'text/plain', ...headers } })
      expect(answer.status, JSON.stringify(headers)).toBe(403)
    }
    expect((await staff.fetch('/api/plans', { method: 'POST', body: 'not json', headers: { origin, 'content-type': 'application/json' } })).status).toBe(422)
  })
})
