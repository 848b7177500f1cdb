import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { addDays, dateOf, daysBetween, instantOf, mondayOf, notTeaching, placeOf, wallOf, weekdayOf, weeksOf, type Term } from './calendar'

const term: Term = {
  name: 'Autumn 2026',
  zone: 'Europe/London',
  teachingFrom: '2026-10-05',
  teachingTo: '2027-01-15',
  spans: [
    { kind: 'reading', from: '2026-11-16', to: '2026-11-22', label: 'Reading week' },
    { kind: 'holiday', from: '2026-12-04', to: '2026-12-04', label: 'Founders’ day' },
    { kind: 'exams', from: '2027-01-18', to: '2027-01-29', label: 'Exams' },
  ],
}

describe('weeks of a term', () => {
  it('numbers teaching weeks and leaves the reading week and exams unnumbered', () => {
    const weeks = weeksOf(term)
    expect(weeks.slice(5, 8).map((w) => w.label)).toEqual(['Wk 6', 'Reading week', 'Wk 7'])
    expect(weeks.at(-1)).toMatchObject({ kind: 'exams', number: null })
  })

  it('keeps the number of a week that has a single holiday', () => {
    expect(placeOf(term, '2026-12-04').week?.number).toBe(8)
    expect(notTeaching(term, '2026-12-04')).toBe('Founders’ day')
  })

  it('says why a day is not taught', () => {
    expect(notTeaching(term, '2026-10-04')).toBe('before teaching starts')
    expect(notTeaching(term, '2027-02-01')).toBe('after teaching ends')
    expect(notTeaching(term, '2026-10-07')).toBeUndefined()
  })

  it('names both days when teaching ends before it starts', () => {
    expect(() => weeksOf({ ...term, teachingTo: '2026-09-01' })).toThrow(/2026-10-05 to 2026-09-01/)
  })

  it('goes from date to week and weekday and back', () => {
    fc.assert(fc.property(fc.integer({ min: 0, max: 102 }), (days) => {
      const date = addDays(term.teachingFrom, days)
      const { week, weekday } = placeOf(term, date)
      if (week?.number) expect(dateOf(term, week.number, weekday)).toBe(date)
      expect(daysBetween(mondayOf(date), date)).toBe(weekdayOf(date) - 1)
    }))
  })

  it('has no date for a week beyond the term', () => {
    expect(dateOf(term, 40, 1)).toBeUndefined()
  })
})

describe('wall time', () => {
  it('keeps ten o’clock at ten o’clock across the end of summer time', () => {
    expect(instantOf('Europe/London', '2026-10-24', '10:00')).toBe(Date.UTC(2026, 9, 24, 9))
    expect(instantOf('Europe/London', '2026-10-26', '10:00')).toBe(Date.UTC(2026, 9, 26, 10))
  })

  it('moves a skipped time forward and takes the first of a repeated one', () => {
    expect(wallOf('Europe/London', instantOf('Europe/London', '2027-03-28', '01:30')).time).toBe('02:30')
    expect(instantOf('Europe/London', '2026-10-25', '01:30')).toBe(Date.UTC(2026, 9, 25, 0, 30))
  })

  it('returns from any instant to the same minute', () => {
    const minute = fc.integer({ min: 29_000_000, max: 31_000_000 })
    fc.assert(fc.property(minute, fc.constantFrom('Pacific/Auckland', 'America/St_Johns', 'UTC'), (m, zone) => {
      const wall = wallOf(zone, m * 60_000)
      const back = instantOf(zone, wall.date, wall.time)
      // A repeated hour has two instants; the first is given.
      expect([m * 60_000, m * 60_000 - 3_600_000]).toContain(back)
    }))
  })
})
