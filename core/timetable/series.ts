/** Captures as the series of a calendar: what the plan says once, and each date that differs by itself. */
import { addDays } from '../term/calendar'
import { dayOf, minutesOf } from '../term/days'
import { Zone } from '../term/zone'
import { recurrenceOf, type Recurrence } from './recurrence'

/** What an event says besides its time. */
export interface EventFacts { room: string, presenter: string, title: string }
export interface SeriesCapture extends EventFacts { id: string, planDate: string, start: number, end: number, cancelled: boolean, revision: number }
export interface SeriesPlan extends EventFacts { id: string, start: string, minutes: number }

export interface Series {
  plan: SeriesPlan
  recurrence: Recurrence
  /** instants of the first occurrence, of the last one's start, and of each exception, by the plan's own time */
  first: number
  last: number
  except: number[]
  /** dates that are held, but not as the plan says; `at` is where the plan has them */
  differing: { at: number, capture: SeriesCapture }[]
  revision: number
}

/**
 * The series of one plan.
 * @returns undefined when none of its captures takes place
 */
export function seriesOf(plan: SeriesPlan, captures: readonly SeriesCapture[], zoneName: string): Series | undefined {
  const held = captures.filter((c) => !c.cancelled).sort((a, b) => (a.planDate < b.planDate ? -1 : 1))
  if (!held.length) return undefined
  const zone = Zone.of(zoneName)
  const at = (date: string) => zone.at(dayOf(date), minutesOf(plan.start)).instant
  const recurrence = recurrenceOf(held.map((c) => c.planDate))
  const length = plan.minutes * 60_000
  const differs = (c: SeriesCapture) => c.start !== at(c.planDate) || c.end - c.start !== length || c.room !== plan.room || c.presenter !== plan.presenter || c.title !== plan.title
  return {
    plan, recurrence, first: at(recurrence.first), last: at(recurrence.last), except: recurrence.except.map(at),
    differing: held.filter(differs).map((capture) => ({ at: at(capture.planDate), capture })),
    revision: captures.reduce((n, c) => Math.max(n, c.revision), 0),
  }
}

/** A year before the first and after the last moment that a calendar speaks of, for its zone's table. */
export function yearAround(instants: readonly number[]): { from: number, to: number } {
  const day = (instant: number) => new Date(instant).toISOString().slice(0, 10)
  const low = instants.reduce((a, b) => Math.min(a, b), Infinity)
  const high = instants.reduce((a, b) => Math.max(a, b), -Infinity)
  return { from: Date.parse(addDays(day(low), -366)), to: Date.parse(addDays(day(high), 366)) }
}
