import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import ICAL from 'ical.js'
import { calendarText, type CalendarEvent } from './calendar'

const second = fc.integer({ min: 1_600_000_000, max: 1_900_000_000 })
const event: fc.Arbitrary<CalendarEvent> = fc.record({
  uid: fc.uuid().map((id) => `${id}@capture.karstland`), start: second.map((s) => s * 1000), end: second.map((s) => s * 1000), sequence: fc.nat(50),
  summary: fc.string({ unit: 'grapheme', minLength: 1 }).filter((s) => !/[\r\n]/.test(s)), location: fc.constantFrom('Adit Theatre', 'Room; with, signs\\'), categories: fc.constant(['sound', 'lectern screen']),
})

/** What any calendar program reads. */
function read(text: string) {
  return new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((c) => {
    const e = new ICAL.Event(c)
    return {
      uid: e.uid, start: e.startDate.toJSDate().getTime(), end: e.endDate.toJSDate().getTime(), sequence: e.sequence, summary: e.summary, location: e.location,
      categories: c.getFirstProperty('categories')!.getValues(),
    }
  })
}

describe('iCalendar', () => {
  it('says the same to whoever reads it, whatever the titles', () => {
    fc.assert(fc.property(fc.array(event, { maxLength: 5 }), (events) => {
      expect(read(calendarText('Adit Theatre recorder', events, 0))).toEqual(events)
    }))
  })

  it('folds long lines and ends them as the standard says', () => {
    const text = calendarText('x', [{ uid: 'a@b', start: 0, end: 1000, sequence: 0, summary: 'long '.repeat(60), location: '', categories: ['sound'] }], 0)
    expect(text.split('\r\n').every((line) => new TextEncoder().encode(line).length <= 75)).toBe(true)
  })

  it('is the same to the letter while nothing changes', () => {
    expect(calendarText('x', [], 0)).toBe(calendarText('x', [], 0))
  })
})
