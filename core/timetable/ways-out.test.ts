import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import type { Term } from '../term/calendar'
import { overlap } from './clash'
import { Occupancy } from './occupancy'
import { sweep, type Placed } from './sweep'
import { adjusted, clashesOf, occurrencesOf, type Standing, type Wanted } from './wanted'
import { groupsOf, needOf, occupancyOf, resolveAll, waysOut, type Campus } from './ways-out'

const term: Term = { name: 'Autumn', zone: 'Europe/London', teachingFrom: '2026-10-05', teachingTo: '2026-12-11', spans: [] }
const rooms = [
  { id: 'a', name: 'Adit Theatre', building: 'North', seats: 300, inputs: ['sound', 'lectern screen'], turnaroundMinutes: 5 },
  { id: 'b', name: 'Dovecote', building: 'North', seats: 90, inputs: ['sound', 'lectern screen'], turnaroundMinutes: 5 },
  { id: 'c', name: 'Kiln', building: 'South', seats: 90, inputs: ['sound'], turnaroundMinutes: 10 },
  { id: 'd', name: 'Lock', building: 'South', seats: 100, inputs: ['sound', 'lectern screen'], turnaroundMinutes: 0 },
]
const turnaround = new Map(rooms.map((r) => [r.id, r.turnaroundMinutes]))
const campus: Campus = { rooms, hours: { opens: '08:00', closes: '18:00', usualStarts: [0, 30] }, term, now: 0, seatsOf: () => 80 }
const plan = (change: Partial<Wanted> = {}): Wanted => ({
  weekdays: [1], start: '10:00', minutes: 50, weeks: { kind: 'every' }, from: null, until: { kind: 'teaching' }, leftOut: [],
  sectionId: 's', roomId: 'b', presenterId: 'p', title: '', inputs: ['sound', 'lectern screen'], exceptions: {}, ...change,
})

describe('the sweep', () => {
  const span = fc.record({ place: fc.constantFrom('a', 'b', 'c'), start: fc.integer({ min: 0, max: 100 }), length: fc.integer({ min: 1, max: 30 }) })
  it('finds what comparing all pairs finds', () => {
    fc.assert(fc.property(fc.array(span, { maxLength: 60 }), (made) => {
      const spans = made.map(({ place, start, length }): Placed => ({ place, start, end: start + length }))
      const pairs: string[] = []
      for (let a = 0; a < spans.length; a++) for (let b = a + 1; b < spans.length; b++) if (spans[a]!.place === spans[b]!.place && overlap(spans[a]!, spans[b]!)) pairs.push(`${a} ${b}`)
      expect(sweep(spans).map((p) => p.join(' ')).sort()).toEqual(pairs.sort())
    }))
  })
})

describe('occupancy', () => {
  it('says free exactly when no span kept with its turnaround overlaps, whatever was taken and given back', () => {
    const booking = fc.record({ room: fc.constantFrom('a', 'c'), start: fc.integer({ min: 0, max: 400 }), length: fc.integer({ min: 1, max: 90 }), back: fc.boolean() })
    fc.assert(fc.property(fc.array(booking, { maxLength: 30 }), booking, (bookings, asked) => {
      const spanOf = (b: typeof asked) => ({ start: b.start * 60_000, end: (b.start + b.length) * 60_000 })
      const taken = new Occupancy(turnaround)
      for (const b of bookings) taken.take(b.room, spanOf(b))
      for (const b of bookings) if (b.back) taken.giveBack(b.room, spanOf(b))
      const held = (b: typeof asked) => ({ start: b.start, end: b.start + b.length + turnaround.get(b.room)! })
      expect(taken.isFree(asked.room, spanOf(asked))).toBe(!bookings.some((b) => !b.back && b.room === asked.room && overlap(held(b), held(asked))))
    }))
  })
})

describe('clashes of wanted plans', () => {
  it('count the turnaround, and name a presenter in two places apart', () => {
    const standing: Standing[] = [{ id: 'x', roomId: 'b', presenterId: 'q', start: Date.UTC(2026, 9, 5, 8, 10), end: Date.UTC(2026, 9, 5, 8, 57) }]
    const occurrences = occurrencesOf([plan(), plan({ roomId: 'a', sectionId: 't' })], term)
    const { rooms: inRooms, presenters } = clashesOf(occurrences, standing, turnaround)
    // 09:57 and five minutes reach into ten o’clock, summer time.
    expect(inRooms.map((c) => c.at.date)).toEqual(['2026-10-05'])
    expect(presenters).toHaveLength(10)
  })
})

describe('ways out', () => {
  const ask = (wanted: Wanted, others: Wanted[] = [], standing: Standing[] = []) => {
    const occurrences = occurrencesOf([...others, wanted], term)
    const [group] = groupsOf(clashesOf(occurrences, standing, turnaround).rooms.map((c) => c.at))
    const taken = occupancyOf(campus, standing, occurrences, new Set(group!.dates))
    return waysOut(needOf(wanted, group!, 10, 80), rooms, taken, campus.hours, term, 0)
  }

  it('prefer the smallest fitting room in the same building, then another, then a near start, then leaving out', () => {
    const ways = ask(plan(), [plan({ sectionId: 'other', presenterId: 'q' })])
    expect(ways.map((w) => (w.kind === 'room' ? w.room : w.kind === 'start' ? w.start : w.kind))).toEqual(['Lock', 'Adit Theatre', '09:00', '11:00', '08:30', 'leave out'])
    expect(ways[0]!.reason).toBe('same time, 100 seats for 80')
    expect(ways.at(-1)!.reason).toBe('all its captures are lost')
  })

  it('offer nothing that is taken on one of the dates', () => {
    const busy = plan({ roomId: 'd', sectionId: 'other', presenterId: 'q', until: { kind: 'count', count: 1 } })
    expect(ask(plan(), [plan({ sectionId: 'other', presenterId: 'q' }), busy]).some((w) => w.kind === 'room' && w.room === 'Lock')).toBe(false)
  })

  it('change the plan when all its dates are meant, and the dates alone otherwise', () => {
    const all = occurrencesOf([plan()], term).map((o) => o.date)
    expect(adjusted(plan(), all, { roomId: 'd' }, term)).toMatchObject({ roomId: 'd', exceptions: {} })
    expect(adjusted(plan(), all.slice(0, 2), { start: '11:00' }, term).exceptions).toEqual({ '2026-10-05': { start: '11:00' }, '2026-10-12': { start: '11:00' } })
    expect(adjusted(plan(), all.slice(0, 1), 'leave out', term).leftOut).toEqual(['2026-10-05'])
  })

  it('leave no clash when all is resolved', () => {
    const wish = fc.record({ weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 3 }), { minLength: 1 }), hour: fc.integer({ min: 9, max: 12 }), roomId: fc.constantFrom('a', 'b', 'd'), inputs: fc.constantFrom<string[]>(['sound'], ['sound', 'lectern screen']) })
    fc.assert(fc.property(fc.array(wish, { maxLength: 14 }), (wishes) => {
      const plans = wishes.map(({ hour, ...w }, i) => plan({ ...w, start: `${String(hour).padStart(2, '0')}:00`, sectionId: `s${i}`, presenterId: `p${i}` }))
      const { proposals, plans: settled } = resolveAll(plans, [], campus)
      expect(clashesOf(occurrencesOf(settled, term), [], turnaround).rooms).toEqual([])
      const touched = new Set(proposals.map((p) => p.plan))
      settled.forEach((p, i) => expect(touched.has(i) || p === plans[i]).toBe(true))
    }), { numRuns: 60 })
  })
})
