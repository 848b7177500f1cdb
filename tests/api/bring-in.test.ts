import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ImportView } from '~~/shared/imports/views'
import type { TermChoice } from '~~/shared/term/views'
import type { CaptureView } from '~~/shared/timetable/views'
import { instantOf, wallOf } from '~~/core/term/calendar'
import { afternoonTerm, classDataFiles, CLASHES, csvOf, timetableRows, zipOf, type Afternoon } from '../support/afternoon'
import { closeSql, origin, sql, until } from '../support/house'
import { people, PersonClient } from '../support/person'

let staff: PersonClient
let term: Afternoon
let termId = ''

async function bring(kind: string, name: string, bytes: Uint8Array | string, query = ''): Promise<{ status: number, id: string, sentence: string }> {
  const form = new FormData()
  form.append('file', new Blob([bytes as BlobPart]), name)
  const answer = await staff.fetch(`/api/imports?kind=${encodeURIComponent(kind)}${query}`, { method: 'POST', body: form, headers: { origin } })
  return { status: answer.status, ...await answer.json() as { id: string, sentence: string } }
}
const settled = (id: string) => until(`import ${id}`, async () => {
  const { data } = await staff.api<ImportView>('GET', `/api/imports/${id}`)
  return ['looked over', 'taken in', 'failed'].includes(data.state) && data
})
const tell = async (id: string, path: string, body?: object) => {
  const { status, data } = await staff.api<{ sentence: string }>('POST', `/api/imports/${id}/${path}`, body)
  expect(status, data?.sentence).toBe(200)
  return settled(id)
}
const timetable = (rows: string[][], source = 'Registry') => bring('timetable', 'timetable.csv', csvOf(rows), `&termId=${termId}&source=${source}`)

beforeAll(async () => {
  staff = await PersonClient.signIn(people.staff)
  const { data } = await staff.api<TermChoice[]>('GET', '/api/terms')
  term = afternoonTerm(data[0]!.to)
})
afterAll(closeSql)

describe('class data', () => {
  it('show their difference first, are taken in whole, and change nothing the second time', async () => {
    const zip = await zipOf(classDataFiles(term))
    const first = await settled((await bring('class data', 'export.zip', zip)).id)
    expect(first.classData!.errors).toEqual([])
    expect(Object.fromEntries(Object.entries(first.classData!.kinds).map(([k, d]) => [k, d.added]))).toEqual({ terms: 1, courses: 100, sections: 100, people: 80, enrolments: 400 })
    expect(await sql('SELECT 1 FROM terms WHERE name = $1', [term.name])).toHaveLength(0)
    expect((await tell(first.id, 'take')).state).toBe('taken in')
    termId = (await staff.api<TermChoice[]>('GET', '/api/terms')).data.find((t) => t.name === term.name)!.id
    const again = await settled((await bring('class data', 'export.zip', zip)).id)
    for (const d of Object.values(again.classData!.kinds)) expect([d.added, d.changed, d.gone]).toEqual([0, 0, 0])
  })

  it('follow who joins and leaves, and leave other terms alone', async () => {
    const files = classDataFiles(term)
    files['enrollments.csv'] = files['enrollments.csv']!.replace(/\nen-0-0,.*/, '') + '\nen-new,active,cls-0,st-59,student,,'
    files['users.csv'] = files['users.csv']!.replace('Teacher3,Afternoon', 'Teacher3,Morning')
    const before = (await sql<{ n: number }>('SELECT count(*)::int AS n FROM class_list'))[0]!.n
    const item = await settled((await bring('class data', 'export.zip', await zipOf(files))).id)
    const { enrolments, people: persons } = item.classData!.kinds
    expect([enrolments.added, enrolments.gone, persons.changed]).toEqual([1, 1, 1])
    expect(persons.lines.changed[0]!.changes).toEqual(['name: Teacher3 Afternoon → Teacher3 Morning'])
    await tell(item.id, 'take')
    expect((await sql<{ n: number }>('SELECT count(*)::int AS n FROM class_list'))[0]!.n).toBe(before)
    expect(await sql(`SELECT 1 FROM people WHERE name = 'Teacher3 Morning'`)).toHaveLength(1)
  })

  it('that are wrong say where, and nothing is taken', async () => {
    const files = classDataFiles({ ...term, to: '2020-01-01' })
    const item = await settled((await bring('class data', 'export.zip', await zipOf(files))).id)
    expect(item.classData!.errors[0]).toMatchObject({ file: 'academicsessions.csv', row: 2, column: 'endDate' })
    const after = await tell(item.id, 'take')
    expect(after).toMatchObject({ state: 'looked over', sentence: expect.stringContaining('nothing was taken') })
    expect(await settled((await bring('class data', 'export.zip', 'no zip at all')).id)).toMatchObject({ state: 'failed', sentence: 'This is not a zip file we can read.' })
    expect((await settled((await bring('class data', 'users.csv', 'a,b\n1,2')).id)).sentence).toContain('Files are missing')
  })
})

describe('a timetable', () => {
  it('of 300 rows shows its nine clashes, is resolved as a whole, and taken in as one edit', async () => {
    const item = await settled((await timetable(timetableRows())).id)
    expect(item.timetable!.lack).toBe('')
    expect(item.timetable!.counts).toMatchObject({ 'new': 300 - CLASHES, 'clash': CLASHES, 'not understood': 0 })
    const refused = await tell(item.id, 'take')
    expect(refused.sentence).toContain('is taken')
    const proposed = await tell(item.id, 'propose')
    expect(proposed.timetable!.proposals).toHaveLength(CLASHES)
    const resolved = await tell(item.id, 'accept')
    expect(resolved.timetable!.counts).toMatchObject({ new: 300, clash: 0 })
    const taken = await tell(item.id, 'take')
    expect(taken).toMatchObject({ state: 'taken in', sentence: expect.stringContaining('300 plans new') })
    const [{ n }] = await sql<{ n: number }>('SELECT count(*)::int AS n FROM captures c JOIN sections s ON s.id = c.section_id WHERE s.term_id = $1', [termId]) as [{ n: number }]
    expect(n).toBe(3000)
  })

  it('taken in again changes nothing; next week’s changes only what the source changed, and keeps what was changed by hand', async () => {
    const again = await settled((await timetable(timetableRows())).id)
    expect(again.timetable!.counts).toMatchObject({ same: 300, new: 0, changed: 0, gone: 0 })
    // By hand: one date of AFT-100 at another time, and AFT-101 into the largest room from its third week on.
    const capturesOf = async (code: string) => (await staff.api<CaptureView[]>('GET', `/api/captures?from=${instantOf('Europe/London', term.from, '00:00')}&to=${instantOf('Europe/London', term.from, '00:00') + 35 * 86_400_000}`)).data.filter((c) => c.section === `${code}/01`)
    const [first] = (await capturesOf('AFT-100')).filter((c) => c.planId)
    expect((await staff.api('POST', `/api/captures/${first!.id}/change`, { start: '19:30' })).status).toBe(200)
    const rows = timetableRows()
    const [row] = rows.filter((r) => r[1] === 'AFT-100/01' && r[5] === first!.room)
    row![6] = 'afternoon.teacher7@fennick.example'
    const moved = rows.find((r) => r[1] === 'AFT-150/01')!
    moved[3] = '18:00'
    moved[4] = '18:50'
    const gone = rows.splice(rows.findIndex((r) => r[1] === 'AFT-160/01'), 1)[0]!
    const item = await settled((await timetable([...rows, ['E9999', 'AFT-199/01', 'Mon', '18:00', '18:50', 'Tithe Room', '']])).id)
    expect(item.timetable!.counts).toMatchObject({ new: 1, changed: 2, gone: 1, same: 297, clash: 0 })
    expect(item.timetable!.lines.filter((l) => l.status === 'changed').flatMap((l) => l.fields).sort()).toEqual(['presenter', 'start'])
    expect(item.timetable!.cancels).toBe(10)
    const taken = await tell(item.id, 'take')
    expect(taken.state).toBe('taken in')
    const after = (await capturesOf('AFT-100')).filter((c) => c.planId === first!.planId)
    expect(after.map((c) => c.presenter)).toEqual(after.map(() => 'Teacher7 Afternoon'))
    expect(wallOf('Europe/London', after.find((c) => c.id === first!.id)!.start).time).toBe('19:30')
    expect(await sql(`SELECT 1 FROM captures c JOIN capture_plans p ON p.id = c.plan_id WHERE p.source_key = $1 AND c.state = 'cancelled'`, [gone[0]])).toHaveLength(10)
    // And back as a whole.
    expect((await staff.api('POST', `/api/edits/${taken.editId}/undo`)).status).toBe(200)
    expect(await sql(`SELECT 1 FROM captures c JOIN capture_plans p ON p.id = c.plan_id WHERE p.source_key = $1 AND c.state = 'cancelled'`, [gone[0]])).toHaveLength(0)
    expect((await capturesOf('AFT-100')).filter((c) => c.planId === first!.planId).map((c) => c.presenter)).toContain('Teacher0 Afternoon')
    // Undone, the source is compared with what it said before: the same file brings the same changes again.
    expect((await settled((await timetable(timetableRows())).id)).timetable!.counts).toMatchObject({ same: 300, new: 0, changed: 0, gone: 0 })
  })

  it('leaves a room changed by hand when the source changes the start, and settles a clash of a changed plan', async () => {
    const find = async (code: string) => (await sql<{ id: string, room: string, time: string }>(`
      SELECT c.id, r.name AS room, to_char(c.starts_at AT TIME ZONE 'Europe/London', 'HH24:MI') AS time FROM captures c JOIN rooms r ON r.id = c.room_id JOIN sections s ON s.id = c.section_id JOIN courses k ON k.id = s.course_id
      JOIN capture_plans p ON p.id = c.plan_id WHERE k.code = $1 AND s.term_id = $2 AND p.source_key = $3 AND c.state <> 'cancelled' ORDER BY c.starts_at`, [code, termId, rows.find((r) => r[1] === `${code}/01`)![0]]))
    const rows = timetableRows()
    const byHand = await find('AFT-155')
    const lock = (await sql<{ id: string }>('SELECT id FROM rooms WHERE name = \'Lock Studio\''))[0]!.id
    expect((await staff.api('POST', `/api/captures/${byHand[0]!.id}/change`, { scope: 'all', roomId: lock, start: '21:00' })).status).toBe(200)
    rows.find((r) => r[1] === 'AFT-155/01')![3] = '20:20'
    rows.find((r) => r[1] === 'AFT-155/01')![4] = '21:10'
    // Another moves into a place that is taken.
    const [mover, sitter] = [rows.find((r) => r[1] === 'AFT-156/01')!, rows.find((r) => r[1] === 'AFT-170/01')!]
    for (const i of [2, 3, 4, 5]) mover[i] = sitter[i]!
    const item = await settled((await timetable(rows)).id)
    expect(item.timetable!.counts).toMatchObject({ changed: 1, clash: 1 })
    const clash = item.timetable!.clashes[0]!
    const way = clash.ways.find((w) => w.kind === 'room')!
    const decided = await tell(item.id, 'decide', { plan: clash.plan, dates: clash.dates, way })
    expect(decided.timetable!.counts).toMatchObject({ changed: 2, clash: 0 })
    expect((await tell(item.id, 'take')).state).toBe('taken in')
    expect(new Set((await find('AFT-155')).map((c) => `${c.time} ${c.room}`))).toEqual(new Set(['20:20 Lock Studio']))
    expect(new Set((await find('AFT-156')).map((c) => `${c.time} ${c.room}`))).toEqual(new Set([`${sitter[3]} ${way.kind === 'room' ? way.room : ''}`]))
    expect((await settled((await timetable(rows)).id)).timetable!.counts).toMatchObject({ same: 300, changed: 0 })
  })

  it('names rows that are not understood, takes the columns it is told, and leaves out what it is told to', async () => {
    const text = 'Nr,Module,Wann,Zeit,Bis,Wo\n1,AFT-120/01,Sat,09:00,10:00,Attic\n2,AFT-121/01,Sat,09:00,10:00,Tithe Room\n3,AFT-122/01,Sat,9:30,10:00,Tithe Room\n4,AFT-123/01,Caturday,9:30,10:00,Tithe Room'
    const item = await settled((await bring('timetable', 'x.csv', text, `&termId=${termId}&source=Other`)).id)
    expect(item.timetable!.lack).toBe('Say which column holds the weekday or the date, the start, the end or the minutes, the room.')
    const mapped = await tell(item.id, 'mapping', { mapping: { columns: { section: 'Module', weekdays: 'Wann', start: 'Zeit', end: 'Bis', room: 'Wo', key: 'Nr' }, dateOrder: 'dmy' } })
    expect(mapped.timetable!.lines.filter((l) => l.status === 'not understood').map((l) => l.sentence)).toEqual(['Row 2, Wo: “Attic” is no room here.', 'Row 5, Wann: “Caturday” is not a weekday; write Mon, Tue, Wed ….'])
    const clash = mapped.timetable!.clashes[0]!
    const left = await tell(item.id, 'left-out', { plans: [clash.plan] })
    expect(left.timetable!.counts).toMatchObject({ 'new': 1, 'left out': 1, 'clash': 0 })
    const back = await tell(item.id, 'left-out', { plans: [] })
    const way = back.timetable!.clashes[0]!.ways.find((w) => w.kind === 'room')!
    const decided = await tell(item.id, 'decide', { plan: clash.plan, dates: clash.dates, way })
    expect(decided.timetable!.counts).toMatchObject({ new: 2, clash: 0 })
    expect((await staff.api('POST', `/api/imports/${item.id}/drop`)).status).toBe(200)
    expect((await staff.api('POST', `/api/imports/${item.id}/take`)).status).toBe(409)
  })

  it('as iCalendar is read with its rules, exceptions and zones', async () => {
    const day = term.from.replaceAll('-', '')
    const ics = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//EN', 'BEGIN:VEVENT', 'UID:one@x', `DTSTART;TZID=Europe/London:${day}T200000`, `DTEND;TZID=Europe/London:${day}T203000`, 'RRULE:FREQ=WEEKLY;COUNT=4', 'SUMMARY:AFT-130/01 Late', 'LOCATION:Kiln Room', 'END:VEVENT', 'END:VCALENDAR', ''].join('\r\n')
    const item = await settled((await bring('timetable', 'x.ics', ics, `&termId=${termId}&source=Calendar`)).id)
    expect(item.timetable!.lines).toMatchObject([{ status: 'new', section: 'AFT-130/01', captures: 4 }])
    const strange = await settled((await bring('timetable', 'x.ics', ics.replaceAll('Europe/London', 'Mars/Olympus'), `&termId=${termId}&source=Calendar`)).id)
    expect(strange).toMatchObject({ state: 'failed', sentence: expect.stringContaining('time zone “Mars/Olympus”') })
    const noise = await settled((await bring('timetable', 'x.ics', `BEGIN:VCALENDAR\r\n${'x'.repeat(10_000_000)}`, `&termId=${termId}&source=Calendar`)).id)
    expect(noise).toMatchObject({ state: 'failed', sentence: expect.stringContaining('damaged') })
  })

  it('is nobody’s but the team’s', async () => {
    const other = await PersonClient.signIn(people.instructor)
    expect((await other.api('GET', '/api/imports')).status).toBe(404)
    expect((await other.api('POST', '/api/imports/roll-over', {})).status).toBe(404)
  })
})

describe('a roll-over', () => {
  it('lays the plans onto the new term by week and weekday, and says what has no place', async () => {
    const later = afternoonTerm(term.to, 'Evening term')
    const files = classDataFiles(later)
    for (const name of Object.keys(files)) files[name] = files[name]!.replaceAll('term-aft', 'term-eve').replace(/cls-/g, 'eve-').replace(/\nen-/g, '\neve-en-')
    // Half of the sections are taught again.
    files['classes.csv'] = files['classes.csv']!.split('\n').slice(0, 51).join('\n')
    files['enrollments.csv'] = files['enrollments.csv']!.split('\n').slice(0, 201).join('\n')
    await tell((await settled((await bring('class data', 'export.zip', await zipOf(files))).id)).id, 'take')
    const toTermId = (await staff.api<TermChoice[]>('GET', '/api/terms')).data.find((t) => t.name === 'Evening term')!.id
    const { data } = await staff.api<{ id: string }>('POST', '/api/imports/roll-over', { fromTermId: termId, toTermId })
    const item = await settled(data.id)
    expect(item.timetable!.counts).toMatchObject({ 'new': 150, 'clash': 0, 'not understood': 150 })
    expect(item.timetable!.lines.find((l) => l.status === 'not understood')!.sentence).toMatch(/the new term has no section AFT-15/)
    expect(item.timetable!.writes).toBe(1500)
    expect((await staff.api('POST', '/api/imports/roll-over', { fromTermId: termId, toTermId: termId })).status).toBe(422)
  })
})
