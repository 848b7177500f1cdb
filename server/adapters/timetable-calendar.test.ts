import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { async as nodeIcal, type VEvent } from 'node-ical'
import { wallOf, type Term } from '~~/core/term/calendar'
import { keptDates, type Rule } from '~~/core/timetable/rule'
import { seriesOf, type SeriesCapture } from '~~/core/timetable/series'
import { timetableText } from './calendar'
import { readCalendar } from './calendar-in'

const london: Term = { name: 'Autumn', zone: 'Europe/London', teachingFrom: '2026-10-05', teachingTo: '2026-12-18', spans: [{ kind: 'reading', from: '2026-11-16', to: '2026-11-22', label: 'Reading' }] }
const auckland: Term = { name: 'Spring', zone: 'Pacific/Auckland', teachingFrom: '2026-08-31', teachingTo: '2026-11-27', spans: [] }
const base: Rule = { weekdays: [1], start: '10:00', minutes: 50, weeks: { kind: 'every' }, from: null, until: { kind: 'teaching' }, leftOut: [] }
const facts = { room: 'Adit Theatre', presenter: 'Tamsin Okoro', title: '' }

const capturesOf = (rule: Rule, term: Term): SeriesCapture[] => keptDates(rule, term).map((d, i) => ({ ...facts, id: String(i), planDate: d.date, start: d.start, end: d.end, cancelled: false, revision: 0 }))
const textOf = (captures: SeriesCapture[], term: Term) => timetableText('x', term.zone, [{ ...seriesOf({ ...facts, id: 'p', start: '10:00', minutes: 50 }, captures, term.zone)!, uid: 'p@x', section: 'HYD-210/01' }], [], 0)

describe('a timetable’s calendar, read by ical.js', () => {
  it('has the dates of the captures, moved and cancelled ones included, in two zones', () => {
    const change = fc.record({ term: fc.constantFrom(london, auckland), weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 3 }), weeks: fc.constantFrom<Rule['weeks']>({ kind: 'every' }, { kind: 'alternate', parity: 'odd' }, { kind: 'chosen', numbers: [2, 3, 7] }), move: fc.nat(8), cancel: fc.nat(8), hours: fc.integer({ min: -2, max: 6 }) })
    fc.assert(fc.property(change, ({ term, weekdays, weeks, move, cancel, hours }) => {
      const captures = capturesOf({ ...base, weekdays: weekdays.sort(), weeks }, term)
      const moved = captures.map((c, i) => (i === move ? { ...c, start: c.start + hours * 3600_000, end: c.end + hours * 3600_000, room: 'Weir Lab' } : i === cancel ? { ...c, cancelled: true } : c))
      const held = moved.filter((c) => !c.cancelled)
      if (!held.length) return
      const rows = readCalendar(new TextEncoder().encode(textOf(moved, term)), 'x.ics', term).rows.map((r) => `${r.cells.Date} ${r.cells.Start} ${r.cells.Room}`)
      expect(rows.sort()).toEqual(held.map((c) => `${wallOf(term.zone, c.start).date} ${wallOf(term.zone, c.start).time} ${c.room}`).sort())
    }), { numRuns: 150 })
  })
})

describe('a timetable’s calendar, read by another library', () => {
  it('has the same dates over the end of summer time', async () => {
    const captures = capturesOf(base, london).map((c, i) => (i === 2 ? { ...c, start: c.start + 3600_000, end: c.end + 3600_000 } : i === 4 ? { ...c, cancelled: true } : c))
    const parsed = await nodeIcal.parseICS(textOf(captures, london))
    const event = Object.values(parsed).find((e): e is VEvent => e?.type === 'VEVENT')!
    const exceptions = new Set(Object.values(event.exdate ?? {}).map((d) => new Date(d as Date).getTime()))
    // The library lists each under its date and under its full time.
    const overrides = [...new Set(Object.values(event.recurrences ?? {}))] as unknown as { recurrenceid: Date, start: Date }[]
    const replaced = new Set(overrides.map((o) => new Date(o.recurrenceid).getTime()))
    const ruled = event.rrule!.between(new Date(Date.UTC(2026, 8, 1)), new Date(Date.UTC(2027, 1, 1))).map((d) => d.getTime()).filter((t) => !exceptions.has(t) && !replaced.has(t))
    expect([...ruled, ...overrides.map((o) => o.start.getTime())].sort()).toEqual(captures.filter((c) => !c.cancelled).map((c) => c.start).sort())
  })
})
