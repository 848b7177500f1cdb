/**
 * Ways out of clashes, best first, each with its reason: another room at the same time, another start
 * in the same room, or leaving the dates out. {@link resolveAll} settles a whole set of clashes so
 * that no way out takes what another one needs.
 */
import type { Term } from '../term/calendar'
import { dayOf, minutesOf, timeOf } from '../term/days'
import { Zone } from '../term/zone'
import { Occupancy } from './occupancy'
import { adjusted, clashesOf, occurrencesOf, type Exception, type Occurrence, type Standing, type Wanted } from './wanted'

export interface RoomFacts { id: string, name: string, building: string, seats: number, inputs: readonly string[], turnaroundMinutes: number }

/** When a campus teaches, and at which minutes past the hour captures usually start. */
export interface Hours { opens: string, closes: string, usualStarts: readonly number[] }

export type WayOut =
  | { kind: 'room', roomId: string, room: string, score: number, reason: string }
  | { kind: 'start', start: string, score: number, reason: string }
  | { kind: 'leave out', score: number, reason: string }

/** What is looked for: some dates of one plan. */
export interface Need { roomId: string, inputs: readonly string[], seats: number, start: string, dates: readonly Occurrence[], ofAll: number }

const ROOMS = 4
const STARTS = 3

/**
 * Ways out for dates of one plan, best first.
 *
 * A change of room disturbs a class less than a change of time, so rooms come first: the smallest
 * that seats the class, its own building preferred. A start is the better, the nearer it is.
 * @param taken all rooms as they stand, without the dates in question
 * @param now instants before it are not offered, ms
 */
export function waysOut(need: Need, rooms: readonly RoomFacts[], taken: Occupancy, hours: Hours, term: Term, now: number): WayOut[] {
  return [...roomWays(need, rooms, taken), ...startWays(need, taken, hours, term, now), leaveOut(need)].sort((a, b) => b.score - a.score)
}

function roomWays(need: Need, rooms: readonly RoomFacts[], taken: Occupancy): WayOut[] {
  const own = rooms.find((r) => r.id === need.roomId)
  return rooms
    .filter((r) => r.id !== need.roomId && r.seats >= need.seats && need.inputs.every((i) => r.inputs.includes(i)))
    .filter((r) => need.dates.every((d) => taken.isFree(r.id, d)))
    .map((r) => {
      const spare = r.seats - need.seats
      const near = own !== undefined && own.building !== '' && own.building === r.building
      const score = 90 - Math.min(30, spare / 8) + (near ? 8 : 0)
      return { kind: 'room' as const, roomId: r.id, room: r.name, score, reason: `same time, ${r.seats} seats for ${need.seats}${near ? ', same building' : ''}` }
    })
    .sort((a, b) => b.score - a.score).slice(0, ROOMS)
}

function startWays(need: Need, taken: Occupancy, hours: Hours, term: Term, now: number): WayOut[] {
  const zone = Zone.of(term.zone)
  const [first] = need.dates
  if (!first) return []
  const length = first.end - first.start
  const from = minutesOf(need.start)
  const last = minutesOf(hours.closes) - length / 60_000
  const ways: WayOut[] = []
  for (let minutes = minutesOf(hours.opens); minutes <= last; minutes++) {
    if (minutes === from || !hours.usualStarts.includes(minutes % 60)) continue
    const spans = need.dates.map((d) => zone.at(dayOf(d.date), minutes).instant).map((start) => ({ start, end: start + length }))
    if (spans.some((s) => s.start <= now) || !spans.every((s) => taken.isFree(need.roomId, s))) continue
    const distance = Math.abs(minutes - from)
    ways.push({ kind: 'start', start: timeOf(minutes), score: 75 - Math.min(60, distance / 6), reason: `same room, ${lengthWords(distance)} ${minutes > from ? 'later' : 'earlier'}` })
  }
  return ways.sort((a, b) => b.score - a.score).slice(0, STARTS)
}

function leaveOut(need: Need): WayOut {
  const n = need.dates.length
  const reason = n === need.ofAll ? 'all its captures are lost' : `${n} of its ${need.ofAll} captures ${n === 1 ? 'is' : 'are'} lost`
  return { kind: 'leave out', score: 10 * (1 - n / Math.max(1, need.ofAll)), reason }
}

const lengthWords = (minutes: number) => (minutes < 60 ? `${minutes} min` : minutes % 60 ? `${Math.floor(minutes / 60)} h ${minutes % 60} min` : `${minutes / 60} h`)

/** The clashing dates of one plan, which are settled together. */
export interface Group { plan: number, dates: Occurrence[] }

export function groupsOf(clashing: readonly Occurrence[]): Group[] {
  const groups = new Map<number, Map<string, Occurrence>>()
  for (const at of clashing) groups.set(at.plan, (groups.get(at.plan) ?? new Map<string, Occurrence>()).set(at.date, at))
  return [...groups].map(([plan, dates]) => ({ plan, dates: [...dates.values()].sort((a, b) => a.start - b.start) }))
}

export interface Campus { rooms: readonly RoomFacts[], hours: Hours, term: Term, now: number, seatsOf: (wanted: Pick<Wanted, 'sectionId'>) => number }

/** Everything needed to ask for ways out of one group. */
export function needOf(wanted: Pick<Wanted, 'roomId' | 'inputs' | 'start'>, group: Group, ofAll: number, seats: number): Need {
  return { roomId: wanted.roomId, inputs: wanted.inputs, seats, start: wanted.start, dates: group.dates, ofAll }
}

/** Rooms as they stand, with all wanted captures but those of `without`. */
export function occupancyOf(campus: Campus, standing: readonly Standing[], wanted: readonly Occurrence[], without: ReadonlySet<Occurrence>): Occupancy {
  const taken = new Occupancy(new Map(campus.rooms.map((r) => [r.id, r.turnaroundMinutes])))
  // In order of time, so that each is added at the end.
  for (const c of [...standing, ...wanted.filter((w) => !without.has(w))].sort((a, b) => a.start - b.start)) taken.take(c.roomId, c)
  return taken
}

export interface Proposal { plan: number, dates: string[], way: WayOut }

export const exceptionOf = (way: WayOut): Exception | 'leave out' => (way.kind === 'room' ? { roomId: way.roomId } : way.kind === 'start' ? { start: way.start } : 'leave out')

/**
 * Settles every room clash of a set of plans: the largest classes first, since the fewest rooms seat
 * them, each by its best way out given those before it.
 * @returns one proposal a plan that clashes, and the plans as they would then be
 */
export function resolveAll(plans: readonly Wanted[], standing: readonly Standing[], campus: Campus): { proposals: Proposal[], plans: Wanted[] } {
  const occurrences = occurrencesOf(plans, campus.term, campus.now)
  const turnaround = new Map(campus.rooms.map((r) => [r.id, r.turnaroundMinutes]))
  const groups = groupsOf(clashesOf(occurrences, standing, turnaround).rooms.map((c) => c.at))
  const clashing = new Set(groups.flatMap((g) => g.dates))
  const taken = occupancyOf(campus, standing, occurrences, clashing)
  const counts = new Map<number, number>()
  for (const o of occurrences) counts.set(o.plan, (counts.get(o.plan) ?? 0) + 1)
  const settled = [...plans]
  const proposals: Proposal[] = []
  for (const group of groups.sort((a, b) => campus.seatsOf(plans[b.plan]!) - campus.seatsOf(plans[a.plan]!))) {
    const wanted = plans[group.plan]!
    // One of two that clash may stay: whoever is first in line keeps the place if nothing holds it any more.
    const remaining = group.dates.filter((d) => !taken.isFree(d.roomId, d))
    for (const d of group.dates) if (!remaining.includes(d)) taken.take(d.roomId, d)
    if (!remaining.length) continue
    const rest = { plan: group.plan, dates: remaining }
    const [way] = waysOut(needOf(wanted, rest, counts.get(group.plan)!, campus.seatsOf(wanted)), campus.rooms, taken, campus.hours, campus.term, campus.now)
    const dates = remaining.map((d) => d.date)
    settled[group.plan] = adjusted(wanted, dates, exceptionOf(way!), campus.term)
    for (const o of occurrencesOf([settled[group.plan]!], campus.term)) if (dates.includes(o.date)) taken.take(o.roomId, o)
    proposals.push({ plan: group.plan, dates, way: way! })
  }
  return { proposals, plans: settled }
}
