import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import type { Term } from '../term/calendar'
import { placeOf } from '../term/calendar'
import { makesCaptures, rollOver } from './roll-over'
import { keptDates, type Rule } from './rule'

const old: Term = { name: 'Autumn', zone: 'Europe/London', teachingFrom: '2026-10-05', teachingTo: '2026-12-18', spans: [{ kind: 'reading', from: '2026-11-16', to: '2026-11-22', label: 'Reading' }] }
const next: Term = { name: 'Spring', zone: 'Europe/London', teachingFrom: '2027-01-11', teachingTo: '2027-03-19', spans: [{ kind: 'reading', from: '2027-02-08', to: '2027-02-14', label: 'Reading' }] }
const base: Rule = { weekdays: [3], start: '10:00', minutes: 50, weeks: { kind: 'every' }, from: null, until: { kind: 'teaching' }, leftOut: [] }

describe('rolling a plan over', () => {
  it('keeps week and weekday of every date that the new term has', () => {
    const rule = fc.record({ weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 5 }), { minLength: 1 }), numbers: fc.uniqueArray(fc.integer({ min: 1, max: 9 }), { minLength: 1 }) })
    const places = (r: Rule, term: Term) => keptDates(r, term).map((d) => `${placeOf(term, d.date).week!.number} ${placeOf(term, d.date).weekday}`)
    fc.assert(fc.property(rule, ({ weekdays, numbers }) => {
      const before: Rule = { ...base, weekdays: weekdays.sort(), weeks: { kind: 'chosen', numbers } }
      expect(places(rollOver(before, old, next).rule, next)).toEqual(places(before, old))
    }))
  })

  it('says what finds no place', () => {
    const { rule, lost } = rollOver({ ...base, weeks: { kind: 'chosen', numbers: [9, 10] } }, old, next)
    expect(rule.weeks).toEqual({ kind: 'chosen', numbers: [9] })
    expect(lost).toEqual(['week 10: the new term has 9'])
    expect(rollOver({ ...base, weeks: { kind: 'dates', dates: ['2026-11-18'] } }, old, next).lost).toEqual(['2026-11-18 lay in no teaching week'])
    expect(makesCaptures(rollOver({ ...base, weeks: { kind: 'dates', dates: ['2026-11-18'] } }, old, next).rule, next)).toBe(false)
  })

  it('carries first and last days and days left out to the same place', () => {
    const { rule } = rollOver({ ...base, from: '2026-10-14', until: { kind: 'date', date: '2026-12-02' }, leftOut: ['2026-10-21'] }, old, next)
    expect(rule).toMatchObject({ from: '2027-01-20', until: { kind: 'date', date: '2027-03-10' }, leftOut: ['2027-01-27'] })
  })
})
