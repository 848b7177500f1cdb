import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { Temporal } from 'temporal-polyfill'
import { dayOf, isoOf, minutesOf, timeOf, weekdayOfDay } from './days'
import { Zone } from './zone'

describe('days as numbers', () => {
  it('goes there and back, with the right weekday', () => {
    fc.assert(fc.property(fc.integer({ min: -40_000, max: 60_000 }), (day) => {
      expect(dayOf(isoOf(day))).toBe(day)
      expect(weekdayOfDay(day)).toBe(Temporal.PlainDate.from(isoOf(day)).dayOfWeek)
    }))
  })

  it.each(['2027-02-30', '2026-13-01', '2026-1-1', 'today', '', '2026-10-05T00:00'])('knows no day %s', (date) => {
    expect(() => dayOf(date)).toThrow(RangeError)
  })

  it('writes minutes as time and reads them back', () => {
    fc.assert(fc.property(fc.integer({ min: 0, max: 1439 }), (minutes) => {
      expect(minutesOf(timeOf(minutes))).toBe(minutes)
    }))
  })
})

describe('a zone’s table', () => {
  const zones = ['Europe/London', 'America/New_York', 'Pacific/Auckland', 'America/St_Johns', 'Asia/Kolkata', 'Australia/Lord_Howe', 'UTC']

  it('gives the offsets of the calendar library, asked in any order', () => {
    const instant = fc.integer({ min: Date.UTC(1995, 0, 1), max: Date.UTC(2045, 0, 1) })
    fc.assert(fc.property(instant, fc.constantFrom(...zones), (at, zone) => {
      expect(Zone.of(zone).offsetAt(at)).toBe(Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone).offsetNanoseconds / 1e6)
    }), { numRuns: 400 })
  })

  // Days around the changes of two zones, minute by minute in steps of seven.
  it.each([['Europe/London', ['2026-10-25', '2027-03-28']], ['Pacific/Auckland', ['2026-09-27', '2027-04-04']]] as const)('turns wall time of the days of change in %s into the right instants', (name, days) => {
    const zone = Zone.of(name)
    for (const date of days) {
      for (let minutes = 0; minutes < 1440; minutes += 7) {
        const right = Temporal.PlainDateTime.from(`${date}T${timeOf(minutes)}`).toZonedDateTime(name)
        const { instant, skipped } = zone.at(dayOf(date), minutes)
        expect(instant).toBe(right.epochMilliseconds)
        expect(skipped).toBe(right.toPlainTime().toString({ smallestUnit: 'minute' }) !== timeOf(minutes))
      }
    }
  })

  it('says when a year’s changes are', () => {
    expect(Zone.of('Europe/London').changesBetween(Date.UTC(2026, 0, 1), Date.UTC(2027, 0, 1))).toEqual([
      { at: Date.UTC(2026, 2, 29, 1), before: 0, after: 3600_000 }, { at: Date.UTC(2026, 9, 25, 1), before: 3600_000, after: 0 },
    ])
  })

  it('names a zone that does not exist', () => {
    expect(() => Zone.of('Mars/Olympus')).toThrow('Mars/Olympus')
  })
})
