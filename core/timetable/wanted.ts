/**
 * A capture plan as it is wanted, before it is written: from the form, an imported timetable or a
 * roll-over, all in this one shape. {@link occurrencesOf} makes its captures, {@link clashesOf} finds
 * what stands in their way, {@link adjusted} takes a way out.
 */
import type { Term } from '../term/calendar'
import { dayOf, minutesOf } from '../term/days'
import { Zone } from '../term/zone'
import { datesOf, eachDay, keptDates, type Rule } from './rule'
import { sweepBy } from './sweep'

/** How a single date differs from its plan. */
export interface Exception { roomId?: string, start?: string }

export interface Wanted extends Rule {
  sectionId: string
  roomId: string
  presenterId: string
  title: string
  inputs: string[]
  exceptions: Record<string, Exception>
}

/** One capture that a wanted plan makes. */
export interface Occurrence {
  /** index of its plan in the list */
  plan: number
  /** the date in the plan's rule; with the plan it names the capture for good */
  date: string
  week: number | null
  start: number
  end: number
  roomId: string
  presenterId: string
}

/** A capture that stands already. */
export interface Standing { id: string, roomId: string, presenterId: string, start: number, end: number }

/**
 * The captures of wanted plans, plan by plan in order of date; what is skipped is not among them.
 * @param after only those that start later than this instant, ms: the past is not planned
 */
export function occurrencesOf(plans: readonly Wanted[], term: Term, after = -Infinity): Occurrence[] {
  const zone = Zone.of(term.zone)
  const all: Occurrence[] = []
  plans.forEach((wanted, plan) => {
    const minutes = minutesOf(wanted.start)
    const length = wanted.minutes * 60_000
    const take = (date: string, day: number, week: number | null) => {
      const own = wanted.exceptions[date]
      const start = zone.instant(day, own?.start ? minutesOf(own.start) : minutes)
      if (start > after) all.push({ plan, date, week, start, end: start + length, roomId: own?.roomId ?? wanted.roomId, presenterId: wanted.presenterId })
    }
    if (wanted.weeks.kind === 'dates') for (const d of keptDates(wanted, term)) take(d.date, dayOf(d.date), d.week)
    else eachDay(wanted, term, (day, skipped) => skipped || take(day.date, day.day, day.week))
  })
  return all
}

/** What stands in the way of an occurrence: a capture that stands, or an occurrence listed before it. */
export interface Clash { at: Occurrence, with: { standing: Standing } | { occurrence: Occurrence } }

/**
 * All clashes of wanted captures, of rooms (with their turnaround) and of presenters.
 * @param turnaround minutes each room needs after a capture
 */
export function clashesOf(wanted: readonly Occurrence[], standing: readonly Standing[], turnaround: ReadonlyMap<string, number>): { rooms: Clash[], presenters: Clash[] } {
  const count = standing.length + wanted.length
  const at = (i: number): Standing | Occurrence => (i < standing.length ? standing[i]! : wanted[i - standing.length]!)
  const startOf = (i: number) => at(i).start
  const held = new Map([...turnaround].map(([room, minutes]) => [room, minutes * 60_000]))
  const named = ([a, b]: [number, number]): Clash[] => {
    if (b < standing.length) return []
    return [{ at: wanted[b - standing.length]!, with: a < standing.length ? { standing: standing[a]! } : { occurrence: wanted[a - standing.length]! } }]
  }
  return {
    rooms: sweepBy(count, (i) => at(i).roomId, startOf, (i) => at(i).end + (held.get(at(i).roomId) ?? 0)).flatMap(named),
    presenters: sweepBy(count, (i) => at(i).presenterId, startOf, (i) => at(i).end).flatMap(named),
  }
}

/** A plan with some of its dates elsewhere, later or left out. What concerns all its dates changes the plan itself. */
export function adjusted(wanted: Wanted, dates: readonly string[], way: Exception | 'leave out', term: Term): Wanted {
  if (way === 'leave out') return { ...wanted, leftOut: [...new Set([...wanted.leftOut, ...dates])].sort() }
  const kept = datesOf(wanted, term).filter((d) => !d.skipped)
  if (kept.length > 0 && kept.every((d) => dates.includes(d.date))) {
    const exceptions = Object.fromEntries(Object.entries(wanted.exceptions).map(([date, own]) => [date, { ...own, ...undefinedFor(way) }]))
    return { ...wanted, ...way, exceptions }
  }
  return { ...wanted, exceptions: { ...wanted.exceptions, ...Object.fromEntries(dates.map((d) => [d, { ...wanted.exceptions[d], ...way }])) } }
}

/** The fields that the plan now says itself, taken out of its exceptions. */
const undefinedFor = (way: Exception): Exception => ({ ...('roomId' in way ? { roomId: undefined } : {}), ...('start' in way ? { start: undefined } : {}) })
