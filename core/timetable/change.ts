/**
 * Changing captures: this one, this and later ones, or all to come. {@link changesOf} says date by
 * date what becomes of each; {@link regrouped} says which plans hold the captures afterwards.
 */
import { addDays, daysBetween, wallOf, weekdayOf, type Term } from '../term/calendar'
import { dayOf, minutesOf } from '../term/days'
import { Zone } from '../term/zone'
import type { CaptureState } from '../capture/states'
import { rulesFrom } from './from-dates'
import { keptDates, type Rule } from './rule'

export type Scope = 'one' | 'later' | 'all'

/** What can be told apart as “changed by hand for this date”. */
export type OwnField = 'date' | 'start' | 'minutes' | 'room' | 'presenter' | 'inputs' | 'title' | 'state'

export interface Planned {
  id: string
  /** its date in the plan; its own date may differ by hand */
  planDate: string
  start: number
  end: number
  roomId: string
  presenterId: string
  inputs: string[]
  title: string
  state: CaptureState
  /** fields changed by hand for this date alone */
  own: OwnField[]
}

/** What is to be different; what is not named stays. */
export interface Change {
  /** whole days later; negative is earlier */
  days?: number
  start?: string
  minutes?: number
  roomId?: string
  presenterId?: string
  inputs?: string[]
  title?: string
  cancelled?: boolean
}

export interface Changed {
  before: Planned
  after: Planned
  /** fields that follow the plan no more because they were changed by hand before, and so stay */
  keeps: OwnField[]
}

const movable: readonly CaptureState[] = ['planned', 'armed', 'cancelled', 'left_out']

/** True when a capture may still be changed: it has not begun, and nothing was recorded. */
export const mayChange = (capture: Planned, now: number): boolean => movable.includes(capture.state) && capture.start > now

/**
 * The captures a change concerns, and each as it would be.
 * @param all captures of one plan
 * @param chosen the capture the change starts from, one of `all`
 * @param weekdayOnly only captures on the same weekday of the plan
 * @returns in order of time; `untouched` are captures in scope that have begun or are over
 */
export function changesOf(all: readonly Planned[], chosen: Planned, scope: Scope, change: Change, term: Term, now: number, weekdayOnly = false): { changed: Changed[], untouched: Planned[] } {
  const inScope = all
    .filter((c) => scope === 'one' ? c.id === chosen.id : scope === 'all' || c.planDate >= chosen.planDate)
    .filter((c) => scope === 'one' || !weekdayOnly || weekdayOf(c.planDate) === weekdayOf(chosen.planDate))
    .sort((a, b) => a.start - b.start)
  const changed = inScope.filter((c) => mayChange(c, now)).map((c) => changedOne(c, scope, change, term)).filter((c) => differs(c))
  return { changed, untouched: inScope.filter((c) => !mayChange(c, now)) }
}

function changedOne(before: Planned, scope: Scope, change: Change, term: Term): Changed {
  const wall = wallOf(term.zone, before.start)
  const wanted = new Map<OwnField, unknown>(([
    ['date', change.days || undefined], ['start', change.start], ['minutes', change.minutes], ['room', change.roomId], ['presenter', change.presenterId],
    ['inputs', change.inputs], ['title', change.title], ['state', change.cancelled],
  ] as const).filter(([, value]) => value !== undefined))
  // A date changed by hand keeps what was changed; the hand is stronger than the plan.
  const keeps = scope === 'one' ? [] : [...wanted.keys()].filter((field) => before.own.includes(field))
  const takes = (field: OwnField) => wanted.has(field) && !keeps.includes(field)
  const date = takes('date') ? addDays(wall.date, change.days!) : wall.date
  const start = takes('date') || takes('start') ? Zone.of(term.zone).at(dayOf(date), minutesOf(takes('start') ? change.start! : wall.time)).instant : before.start
  const length = takes('minutes') ? change.minutes! * 60_000 : before.end - before.start
  const after: Planned = {
    ...before, start, end: start + length,
    planDate: scope !== 'one' && change.days && !keeps.includes('date') ? addDays(before.planDate, change.days) : before.planDate,
    roomId: takes('room') ? change.roomId! : before.roomId,
    presenterId: takes('presenter') ? change.presenterId! : before.presenterId,
    inputs: takes('inputs') ? change.inputs! : before.inputs,
    title: takes('title') ? change.title! : before.title,
    state: takes('state') ? (change.cancelled ? 'cancelled' : 'planned') : before.state,
    own: scope === 'one' ? [...new Set([...before.own, ...wanted.keys()])] : before.own,
  }
  return { before, after, keeps }
}

const shown = (c: Planned) => JSON.stringify([c.start, c.end, c.roomId, c.presenterId, c.inputs, c.title, c.state])
const differs = ({ before, after }: Changed) => shown(before) !== shown(after)

/** What a plan says of its captures, apart from the dates. */
export interface PlanFacts { start: string, minutes: number, roomId: string, presenterId: string, inputs: string[], title: string }

/** One plan after a change: its rule, its facts, and the plan dates it holds. */
export interface Piece { rule: Rule, facts: PlanFacts, dates: string[] }

/**
 * The plans that hold the captures of a changed plan: those not concerned stay together under the old
 * facts, those concerned come together under the new ones. Several pieces arise where one rule cannot
 * speak for all dates.
 * @param facts what the plan said before
 * @param staying plan dates not concerned; @param going plan dates concerned, as they are after the change
 */
export function regrouped(facts: PlanFacts, change: Change, staying: readonly string[], going: readonly string[], term: Term): { stay: Piece[], go: Piece[] } {
  const changed: PlanFacts = {
    start: change.start ?? facts.start, minutes: change.minutes ?? facts.minutes, roomId: change.roomId ?? facts.roomId,
    presenterId: change.presenterId ?? facts.presenterId, inputs: change.inputs ?? facts.inputs, title: change.title ?? facts.title,
  }
  return { stay: piecesOf(facts, staying, term), go: piecesOf(changed, going, term) }
}

/** The plans that make exactly these dates under one set of facts. */
export function piecesOf(facts: PlanFacts, dates: readonly string[], term: Term): Piece[] {
  if (!dates.length) return []
  const time = { start: facts.start, minutes: facts.minutes }
  const { rules, beside } = rulesFrom(dates, time, term)
  const single = beside.map((date): Rule => ({ weekdays: [weekdayOf(date)], ...time, weeks: { kind: 'dates', dates: [date] }, from: null, until: { kind: 'teaching' }, leftOut: [] }))
  return [...rules, ...single].map((rule) => ({ rule, facts, dates: keptDates(rule, term).map((d) => d.date) }))
}

/** Days by which a capture moves when it is put on another date. */
export const daysMoved = (from: string, to: string): number => daysBetween(from, to)
