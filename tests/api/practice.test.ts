import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { PlanChoices } from '~~/shared/timetable/views'
import type { TermView } from '~~/shared/term/views'
import { made, pastCapture, sendWhole } from '../support/capture'
import { campusNow, closeSql, lectures, mailsOf, sql, until } from '../support/house'
import { people, PersonClient } from '../support/person'
import { wallOf } from '~~/core/term/calendar'

let instructor: PersonClient
beforeAll(async () => {
  instructor = await PersonClient.signIn('saoirse.lindqvist@fennick.example')
})
afterAll(closeSql)

describe('a practice section', () => {
  it('is every instructor’s own; captures there tell nobody and count nowhere', async () => {
    const [{ n }] = await sql<{ n: number }>(`SELECT count(*)::int AS n FROM people p WHERE role = 'instructor' AND NOT EXISTS (SELECT 1 FROM sections s WHERE s.practice_of = p.id)`) as [{ n: number }]
    // Those brought in by other tests a moment ago get theirs within a minute.
    expect(n).toBeLessThanOrEqual(20)
    const { data: choices } = await instructor.api<PlanChoices>('GET', '/api/plans/choices')
    const practice = choices.sections.find((s) => s.course === 'PRACTICE')!
    expect(choices.sections.filter((s) => s.course === 'PRACTICE')).toHaveLength(1)
    const staff = await PersonClient.signIn(people.staff)
    const before = (await staff.api<TermView>('GET', '/api/term')).data.captures
    const mails = (await mailsOf('saoirse.lindqvist@fennick.example')).length
    const { status } = await instructor.api('POST', '/api/plans', {
      sectionId: practice.id, roomId: choices.rooms.find((r) => r.name === 'Lock Studio')!.id, presenterId: practice.presenterIds[0], inputs: ['sound'], title: '', start: '12:10', minutes: 5, repeat: 'once', date: wallOf('Europe/London', await campusNow() + 6 * 86_400_000).date,
    })
    expect(status).toBe(201)
    expect((await staff.api<TermView>('GET', '/api/term')).data.captures).toBe(before)
    expect((await staff.api<PlanChoices>('GET', '/api/plans/choices')).data.sections.some((s) => s.course === 'PRACTICE')).toBe(false)
    expect(await mailsOf('saoirse.lindqvist@fennick.example')).toHaveLength(mails)
  })

  it('clears itself: captures, recordings and files of two weeks ago go', async () => {
    const capture = await pastCapture('Ferry Annexe', 'HYD-330/01')
    const recordingId = await sendWhole(capture, readFileSync(join(lectures, 'stone.mp4')))
    await made(recordingId)
    await sql(`UPDATE captures SET section_id = (SELECT id FROM sections WHERE practice_of IS NOT NULL LIMIT 1), ends_at = ends_at - interval '30 days', starts_at = starts_at - interval '30 days' WHERE id = $1`, [capture.id])
    await until('the capture to be gone', async () => (await sql('SELECT 1 FROM captures WHERE id = $1', [capture.id])).length === 0, 90)
    expect(await sql('SELECT 1 FROM recordings WHERE id = $1', [recordingId])).toEqual([])
  })
})
