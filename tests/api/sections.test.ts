import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { SectionPage } from '~~/shared/term/section'
import { made, pastCapture, sendWhole } from '../support/capture'
import { closeSql, lectures, sql } from '../support/house'
import { people, PersonClient } from '../support/person'

let staff: PersonClient
let id = ''
const defaults = { release: 'class list', opensDays: 2, closesDays: 400, captions: false, folderPattern: 'Week {week}', told: [] }

beforeAll(async () => {
  staff = await PersonClient.signIn(people.staff)
  id = (await sql<{ id: string }>(`SELECT s.id FROM sections s JOIN courses c ON c.id = s.course_id WHERE c.code = 'WEI-300'`))[0]!.id
})
afterAll(closeSql)

describe('a section’s defaults', () => {
  it.each([['a window that closes before it opens', { opensDays: 5, closesDays: 3 }, 'closesDays'], ['a pattern nobody can fill', { folderPattern: '{colour}' }, 'folderPattern'], ['another state', { release: 'everybody' }, 'release']])('refuse %s', async (_, change, field) => {
    const { status, data } = await staff.api<{ fields: object }>('PUT', `/api/sections/${id}/defaults`, { ...defaults, ...change })
    expect([status, Object.keys(data.fields)]).toEqual([422, [field]])
  })

  it('release what is recorded, in its window, and file it by the pattern', async () => {
    expect((await staff.api('PUT', `/api/sections/${id}/defaults`, defaults)).status).toBe(200)
    const capture = await pastCapture('Kiln Room', 'WEI-300/01')
    const recordingId = await sendWhole(capture, readFileSync(join(lectures, 'wells.mp4')))
    expect((await made(recordingId)).state).toBe('ready')
    const [row] = await sql<{ folder: string, days: number }>(`
      SELECT d.name AS folder, extract(epoch FROM l.opens_at - c.starts_at)::float / 86400 AS days FROM filings f JOIN folders d ON d.id = f.folder_id JOIN releases l ON l.filing_id = f.id JOIN recordings r ON r.id = f.recording_id JOIN captures c ON c.id = r.capture_id WHERE r.id = $1`, [recordingId])
    expect(row!.folder).toMatch(/^Week \d+$/)
    expect(row!.days).toBeGreaterThan(1)
    expect(row!.days).toBeLessThan(2.1)
  })

  it('wait for captions where those are wanted first', async () => {
    await staff.api('PUT', `/api/sections/${id}/defaults`, { ...defaults, captions: true })
    const recordingId = await sendWhole(await pastCapture('Kiln Room', 'WEI-300/01'), readFileSync(join(lectures, 'wells.mp4')))
    expect((await made(recordingId)).state).toBe('ready')
    expect(await sql('SELECT 1 FROM releases l JOIN filings f ON f.id = l.filing_id WHERE f.recording_id = $1', [recordingId])).toEqual([])
  })

  it('are the section’s own people’s and the team’s', async () => {
    const { data } = await staff.api<SectionPage>('GET', `/api/sections/${id}`)
    expect(data.list.filter((e) => e.role === 'student')).toHaveLength(27)
    const other = await PersonClient.signIn(people.instructor)
    expect((await other.api('GET', `/api/sections/${id}`)).status).toBe(404)
    expect((await other.api('PUT', `/api/sections/${id}/defaults`, defaults)).status).toBe(404)
    const student = await PersonClient.signIn(people.student)
    const mine = (await sql<{ id: string }>(`SELECT s.id FROM sections s JOIN courses c ON c.id = s.course_id WHERE c.code = 'HYD-210' AND s.number = '01'`))[0]!.id
    expect((await student.api('GET', `/api/sections/${mine}`)).status).toBe(404)
  })
})
