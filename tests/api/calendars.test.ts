import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { async as nodeIcal, type VEvent } from 'node-ical'
import type { NewCalendarAddress } from '~~/shared/timetable/calendars'
import { closeSql, origin, sql } from '../support/house'
import { people, PersonClient } from '../support/person'

let staff: PersonClient
let sectionId = ''
beforeAll(async () => {
  staff = await PersonClient.signIn(people.staff)
  sectionId = (await sql<{ id: string }>(`SELECT s.id FROM sections s JOIN courses c ON c.id = s.course_id WHERE c.code = 'HYD-210' AND s.number = '01'`))[0]!.id
})
afterAll(closeSql)

describe('a private calendar address', () => {
  it('is read without a sign-in, names what the section captures, and ends when revoked', async () => {
    const { status, data } = await staff.api<NewCalendarAddress>('POST', '/api/calendars', { kind: 'section', id: sectionId })
    expect(status).toBe(201)
    const answer = await fetch(data.address)
    expect(answer.headers.get('content-type')).toContain('text/calendar')
    const events = Object.values(await nodeIcal.parseICS(await answer.text())).filter((e): e is VEvent => e?.type === 'VEVENT')
    expect(events.length).toBeGreaterThan(1)
    expect(String(events[0]!.summary)).toContain('HYD-210/01')
    expect((await staff.api<{ readAt: number | null }[]>('GET', '/api/calendars')).data[0]!.readAt).not.toBeNull()
    const other = await PersonClient.signIn(people.instructor)
    expect((await other.api('POST', `/api/calendars/${data.id}/revoke`)).status).toBe(404)
    expect((await staff.api('POST', `/api/calendars/${data.id}/revoke`)).status).toBe(200)
    expect((await fetch(data.address)).status).toBe(404)
  })

  it('reaches no farther than its owner, today', async () => {
    const student = await PersonClient.signIn(people.student)
    const own = await student.api<NewCalendarAddress>('POST', '/api/calendars', { kind: 'section', id: sectionId })
    expect((await fetch(own.data.address)).status).toBe(200)
    const [entry] = await sql<{ id: string, to_at: Date | null }>('UPDATE class_list l SET to_at = now() - interval \'300 days\' FROM people p WHERE p.id = l.person_id AND p.email = $1 AND l.section_id = $2 RETURNING l.id, l.to_at', [people.student, sectionId])
    expect((await fetch(own.data.address)).status).toBe(404)
    await sql('UPDATE class_list SET to_at = NULL WHERE id = $1', [entry!.id])
    const room = (await sql<{ id: string }>('SELECT id FROM rooms LIMIT 1'))[0]!.id
    for (const wish of [{ kind: 'room', id: room }, { kind: 'person', id: room }, { kind: 'section', id: room }]) expect((await student.api('POST', '/api/calendars', wish)).status, wish.kind).toBe(404)
    for (const path of ['/calendar/x.ics', '/calendar/aaaaaaaaaaaaaaaaaaaaaaaaaaaaaa.ics']) expect((await fetch(origin + path)).status).toBe(404)
    expect((await staff.fetch(`/api/calendars/file?kind=room&id=${room}`)).headers.get('content-disposition')).toMatch(/filename="[\w-]+\.ics"/)
  })
})
