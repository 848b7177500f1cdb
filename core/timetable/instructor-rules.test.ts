import { describe, expect, it } from 'vitest'
import { instantOf, type Term } from '../term/calendar'
import { beyondRules } from './instructor-rules'

const term: Term = { name: 'Autumn', zone: 'Europe/London', teachingFrom: '2026-10-05', teachingTo: '2026-12-18', spans: [] }
const rooms = [{ id: 'a', name: 'Adit Theatre', openToInstructors: false }, { id: 'b', name: 'Lock Studio', openToInstructors: true }]
const rules = { from: '09:00', to: '18:00', daysAhead: 30 }
const now = instantOf('Europe/London', '2026-10-05', '08:00')
const at = (date: string, time: string, roomId = 'b', minutes = 50) => ({ roomId, start: instantOf('Europe/London', date, time), end: instantOf('Europe/London', date, time) + minutes * 60_000 })
const beyond = (...wished: ReturnType<typeof at>[]) => beyondRules(wished, rules, rooms, term, now)

describe('what an instructor may plan alone', () => {
  it('is in open rooms, within hours up to the minute, and not too far ahead', () => {
    expect(beyond(at('2026-10-06', '09:00'), at('2026-11-04', '17:10'))).toEqual([])
    expect(beyond(at('2026-10-06', '10:00', 'a'))).toEqual(['Adit Theatre is planned by the team.'])
    expect(beyond(at('2026-10-06', '08:59'))).toEqual(['Instructors plan between 09:00 and 18:00.'])
    expect(beyond(at('2026-10-06', '17:11'))).toEqual(['Instructors plan between 09:00 and 18:00.'])
  })

  it('gives one reason of each kind for many captures, after the end of summer time too', () => {
    expect(beyond(...['2026-10-12', '2026-11-09', '2026-11-16'].map((d) => at(d, '20:00', 'a')))).toEqual([
      'Adit Theatre is planned by the team.', 'Instructors plan between 09:00 and 18:00.', 'Instructors plan at most 30 days ahead, until Wed 4 Nov.',
    ])
  })
})
