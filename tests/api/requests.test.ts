import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { wallOf } from '~~/core/term/calendar'
import type { RequestView } from '~~/shared/timetable/requests'
import type { Edited, PlanChoices, PlanPreview } from '~~/shared/timetable/views'
import { campusNow, closeSql, mailsOf, sql, until } from '../support/house'
import { people, PersonClient } from '../support/person'

let staff: PersonClient
let instructor: PersonClient
let wish: Record<string, unknown>
let choices: PlanChoices

beforeAll(async () => {
  staff = await PersonClient.signIn(people.staff)
  instructor = await PersonClient.signIn(people.instructor)
  choices = (await instructor.api<PlanChoices>('GET', '/api/plans/choices')).data
  const date = wallOf('Europe/London', await campusNow() + 5 * 86_400_000).date
  wish = { sectionId: choices.sections[0]!.id, roomId: choices.rooms.find((r) => r.name === 'Lock Studio')!.id, presenterId: choices.sections[0]!.presenterIds[0], inputs: ['sound'], title: '', start: '08:10', minutes: 20, repeat: 'once', date }
})
afterAll(closeSql)

describe('an instructor', () => {
  it('plans for an own section within the rules, changes and undoes it, and for no other section', async () => {
    const planned = await instructor.api<Edited & { captureId: string }>('POST', '/api/plans', wish)
    expect(planned.status, JSON.stringify(planned.data)).toBe(201)
    expect((await instructor.api('POST', `/api/captures/${planned.data.captureId}/change`, { minutes: 25 })).status).toBe(200)
    expect((await instructor.api('POST', `/api/edits/${planned.data.editId}/undo`)).status).toBe(409)
    const other = (await staff.api<PlanChoices>('GET', '/api/plans/choices')).data.sections.find((s) => s.code === 'LIM-230/01')!
    expect((await instructor.api('POST', '/api/plans', { ...wish, sectionId: other.id })).status).toBe(404)
  })

  it('asks the team for what goes beyond, and is told the answer; nothing is planned before', async () => {
    const late = { ...wish, start: '18:45' }
    expect((await instructor.api<PlanPreview>('POST', '/api/plans/preview', late)).data.beyond).toEqual(['Instructors plan between 08:00 and 18:00.'])
    const refused = await instructor.api<{ beyond: string[] }>('POST', '/api/plans', late)
    expect([refused.status, refused.data.beyond]).toEqual([403, ['Instructors plan between 08:00 and 18:00.']])
    const asked = await instructor.api<{ id: string }>('POST', '/api/requests', { note: 'The visitor comes late.', wish: late })
    expect(asked.status).toBe(201)
    const count = async () => (await sql('SELECT 1 FROM captures c JOIN rooms r ON r.id = c.room_id WHERE r.name = \'Lock Studio\' AND to_char(c.starts_at AT TIME ZONE \'Europe/London\', \'HH24:MI\') = \'18:45\'')).length
    expect(await count()).toBe(0)
    expect((await instructor.api('POST', `/api/requests/${asked.data.id}/answer`, { answer: 'accepted', word: '' })).status).toBe(404)
    expect((await staff.api('POST', `/api/requests/${asked.data.id}/answer`, { answer: 'turned down', word: '' })).status).toBe(422)
    expect((await staff.api('POST', `/api/requests/${asked.data.id}/answer`, { answer: 'accepted', word: 'With pleasure.' })).status).toBe(200)
    expect(await count()).toBe(1)
    expect((await staff.api('POST', `/api/requests/${asked.data.id}/answer`, { answer: 'accepted', word: '' })).status).toBe(409)
    const mine = await instructor.api<RequestView[]>('GET', '/api/requests')
    expect(mine.data[0]).toMatchObject({ state: 'accepted', answer: 'With pleasure.', note: 'The visitor comes late.' })
    await until('the mail with the answer', async () => (await mailsOf(people.instructor)).some((m) => m.subject === 'Your request was accepted'))
  })

  it('takes a request back while it waits, and students ask for nothing', async () => {
    const asked = await instructor.api<{ id: string }>('POST', '/api/requests', { note: '', wish: { ...wish, start: '19:45' } })
    expect((await instructor.api('POST', `/api/requests/${asked.data.id}/take-back`)).status).toBe(200)
    expect((await staff.api('POST', `/api/requests/${asked.data.id}/answer`, { answer: 'accepted', word: '' })).status).toBe(409)
    const student = await PersonClient.signIn(people.student)
    expect((await student.api('GET', '/api/requests')).status).toBe(404)
    expect((await student.api('POST', '/api/requests', { note: '', wish })).status).toBe(404)
  })
})
