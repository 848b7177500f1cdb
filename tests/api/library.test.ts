import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FilingView, RecordingView, SectionView, UndertakingView } from '~~/shared/library/views'
import type { RoomState } from '~~/shared/capture/views'
import type { TermView } from '~~/shared/term/views'
import type { CaptureView } from '~~/shared/timetable/views'
import { campusNow, closeSql, sql } from '../support/house'
import { people, PersonClient } from '../support/person'

let staff: PersonClient
let teacher: PersonClient
let student: PersonClient
const get = async <T>(who: PersonClient, path: string) => (await who.api<T>('GET', path)).data

beforeAll(async () => {
  [staff, teacher, student] = await Promise.all([people.staff, people.instructor, people.student].map(PersonClient.signIn)) as [PersonClient, PersonClient, PersonClient]
})
afterAll(closeSql)

describe('the term', () => {
  it('counts the captures of each day, for each reader their own', async () => {
    const all = await get<TermView>(staff, '/api/term')
    const own = await get<TermView>(teacher, '/api/term')
    expect(all.weeks.filter((w) => w.number)).toHaveLength(12)
    const [row] = await sql<{ n: string }>(`SELECT count(*) AS n FROM captures c JOIN sections s ON s.id = c.section_id AND s.practice_of IS NULL WHERE s.term_id = $1 AND c.state NOT IN ('left_out', 'cancelled')`, [all.id])
    expect(all.captures).toBe(Number(row!.n))
    expect(all.days.reduce((n, d) => n + d.captures, 0)).toBe(all.captures)
    expect(own.captures).toBeGreaterThan(10)
    expect(own.captures).toBeLessThan(all.captures / 10)
  })

  it('opens the demo in week 6', async () => {
    const { weeks } = await get<TermView>(staff, '/api/term')
    const now = await campusNow()
    const this_week = weeks.filter((w) => Date.parse(`${w.monday}T00:00:00Z`) <= now).at(-1)
    expect(this_week?.number).toBe(6)
  })
})

describe('sections and their folders', () => {
  it('are all there for the team, and one’s own for others', async () => {
    const all = await get<SectionView[]>(staff, '/api/sections')
    expect(all).toHaveLength(40)
    expect(all.map((s) => s.code)).toEqual([...all.map((s) => s.code)].sort())
    expect((await get<SectionView[]>(teacher, '/api/sections')).map((s) => [s.code, s.teaches])).toEqual([['HYD-210/01', true], ['PRACTICE/Tamsin Okoro', true]])
    const hers = await get<SectionView[]>(student, '/api/sections')
    expect(hers.map((s) => s.code)).toContain('HYD-210/01')
    expect(hers.every((s) => !s.teaches)).toBe(true)
  })

  it('exist as soon as a section does, because the database makes them', async () => {
    const [section] = await sql<{ id: string }>(`INSERT INTO sections (course_id, term_id, number) SELECT c.id, t.id, '77' FROM courses c, terms t WHERE c.code = 'CAV-310' LIMIT 1 RETURNING id`)
    expect(await sql('SELECT name FROM folders WHERE section_id = $1', [section!.id])).toEqual([{ name: 'CAV-310/77 Cave Survey Practice' }])
    await expect(sql('INSERT INTO folders (section_id, name) VALUES ($1, $2)', [section!.id, 'a second root'])).rejects.toThrow('folders_root')
    await sql('DELETE FROM folders WHERE section_id = $1', [section!.id])
    await sql('DELETE FROM sections WHERE id = $1', [section!.id])
  })

  it('list what is filed in teaching order, and to students what is released', async () => {
    const [hyd] = (await get<SectionView[]>(staff, '/api/sections')).filter((s) => s.code === 'HYD-210/01')
    const all = await get<FilingView[]>(staff, `/api/filings?section=${hyd!.id}`)
    const starts = all.map((f) => f.start!)
    expect(starts).toEqual([...starts].sort((a, b) => a - b))
    expect(all.length).toBe(hyd!.recordings)
    const seen = await get<FilingView[]>(student, `/api/filings?section=${hyd!.id}`)
    expect(seen.length).toBe(all.filter((f) => f.released).length)
    expect(seen.length).toBeGreaterThan(0)
    expect(seen.length).toBeLessThan(all.length)
    expect(all.filter((f) => f.state === 'ready').every((f) => f.name.startsWith('HYD-210/01, ') && f.road.beads.filed === 'done')).toBe(true)
  })

  it('of others are not there', async () => {
    const foreign = (await get<SectionView[]>(staff, '/api/sections')).find((s) => s.code === 'LIM-230/02')!
    for (const who of [teacher, student]) expect((await who.api('GET', `/api/filings?section=${foreign.id}`)).status).toBe(404)
    expect((await staff.api('GET', '/api/filings?section=nonsense')).status).toBe(404)
  })

  it('answer a whole campus in good time: the newest of all sections come with posters and roads', async () => {
    const newest = await get<FilingView[]>(staff, '/api/filings')
    expect(newest).toHaveLength(120)
    const starts = newest.map((f) => f.start!)
    expect(starts).toEqual([...starts].sort((a, b) => b - a))
    const poster = await staff.fetch(newest.find((f) => f.poster)!.poster!)
    expect(poster.headers.get('content-type')).toBe('image/jpeg')
  })
})

describe('one recording', () => {
  it('is renamed by its instructor, with a record; not by a student, nor to nothing', async () => {
    const [filing] = (await get<FilingView[]>(teacher, '/api/filings')).filter((f) => f.state === 'ready' && f.released)
    const path = `/api/recordings/${filing!.recordingId}`
    const { data } = await teacher.api<RecordingView>('PATCH', path, { name: '  HYD-210/01: a better name ' })
    expect(data.name).toBe('HYD-210/01: a better name')
    expect(data.log[0]).toMatchObject({ what: 'renamed', who: 'Tamsin Okoro' })
    expect((await student.api('PATCH', path, { name: 'mine' })).status).toBe(404)
    for (const name of ['', 'x'.repeat(201), 7]) expect((await teacher.api('PATCH', path, { name })).status).toBe(422)
    await teacher.api('PATCH', path, { name: filing!.name })
  })

  it('shows a student neither placements, record nor staff actions', async () => {
    const [filing] = await get<FilingView[]>(student, '/api/filings')
    const view = await get<RecordingView>(student, `/api/recordings/${filing!.recordingId}`)
    expect(view).toMatchObject({ placements: [], log: [], may: { release: false, place: false, rename: false }, undertaking: null })
  })

  it('is nowhere at an address that is no address', async () => {
    for (const id of ['nonsense', '7d444840-9dc0-41d1-9b2f-5ae3c5d0a001', '..%2f..']) expect((await staff.api('GET', `/api/recordings/${id}`)).status).toBe(404)
  })
})

describe('the day', () => {
  it('shows the team every room with its recorder, and others nothing', async () => {
    const rooms = await get<RoomState[]>(staff, '/api/rooms')
    expect(rooms).toHaveLength(11)
    expect(rooms.filter((r) => r.answers).length).toBe(11)
    for (const who of [teacher, student]) expect((await who.api('GET', '/api/rooms')).status).toBe(404)
  })

  it('gives the captures of a span, to instructors their own, and refuses nonsense', async () => {
    const now = await campusNow()
    const span = `from=${now - 3 * 24 * 3600_000}&to=${now + 3 * 24 * 3600_000}`
    const all = await get<CaptureView[]>(staff, `/api/captures?${span}`)
    const own = await get<CaptureView[]>(teacher, `/api/captures?${span}`)
    expect(all.length).toBeGreaterThan(40)
    expect(new Set(own.map((c) => c.section))).toEqual(new Set(['HYD-210/01']))
    for (const bad of ['', 'from=1', 'from=5&to=1', 'from=0&to=99999999999999999', 'from=x&to=y']) expect((await staff.api('GET', `/api/captures?${bad}`)).status).toBe(422)
  })
})

describe('under way and placements', () => {
  it('are for those who look after recordings', async () => {
    expect((await student.api('GET', '/api/under-way')).status).toBe(404)
    expect((await student.api('GET', '/api/placements')).status).toBe(404)
    expect(Array.isArray(await get<UndertakingView[]>(teacher, '/api/under-way'))).toBe(true)
    const placed = await get<{ section: string }[]>(teacher, '/api/placements')
    expect(placed.length).toBeGreaterThan(0)
    expect(new Set(placed.map((p) => p.section))).toEqual(new Set(['HYD-210/01']))
  })

  it('cannot be cancelled by others', async () => {
    const [work] = await sql<{ id: string }>('SELECT id FROM undertakings LIMIT 1')
    if (work) for (const verb of ['cancel', 'again']) expect((await student.api('POST', `/api/under-way/${work.id}/${verb}`)).status).toBe(404)
    expect((await staff.api('POST', '/api/under-way/7d444840-9dc0-41d1-9b2f-5ae3c5d0a001/again')).status).toBe(404)
  })
})
