/**
 * The teaching calendar of a term: numbered teaching weeks, the spans that are not taught, and the
 * way between local wall time and instants across daylight-saving changes.
 *
 * By purpose:
 * - weeks: {@link weeksOf}, {@link placeOf}, {@link dateOf}
 * - wall time: {@link instantOf}, {@link wallOf}
 * - words: {@link weekdayNames}
 *
 * Dates are ISO strings `YYYY-MM-DD`, times of day `HH:MM`, instants milliseconds since 1970.
 * Weekdays are 1 (Monday) to 7 (Sunday), as in ISO 8601.
 */
import { dayOf, isoOf, minutesOf, mondayOfDay, weekdayOfDay } from './days'
import { Zone } from './zone'

export type SpanKind = 'reading' | 'holiday' | 'exams'

/** Days, both ends included, on which there is no ordinary teaching. */
export interface TermSpan { kind: SpanKind, from: string, to: string, label: string }

export interface Term {
  name: string
  /** IANA zone, such as `Europe/London` */
  zone: string
  /** first and last day of teaching, both included */
  teachingFrom: string
  teachingTo: string
  spans: TermSpan[]
}

/** One calendar week of a term, Monday to Sunday. */
export interface Week {
  monday: string
  /** 1, 2, 3 … for teaching weeks; null for a week wholly in a reading or exam span */
  number: number | null
  kind: 'teaching' | 'reading' | 'exams'
  /** `Wk 6`, or the label of the span */
  label: string
}

export const weekdayNames = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const

/** `date` moved by whole days. */
export function addDays(date: string, days: number): string {
  return isoOf(dayOf(date) + days)
}

/** 1 for Monday … 7 for Sunday. */
export function weekdayOf(date: string): number {
  return weekdayOfDay(dayOf(date))
}

/** The Monday of the week in which `date` lies. */
export function mondayOf(date: string): string {
  return isoOf(mondayOfDay(dayOf(date)))
}

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export function daysBetween(from: string, to: string): number {
  return dayOf(to) - dayOf(from)
}

/**
 * All calendar weeks from the first to the last day of the term, in order. A week whose five working
 * days all lie in reading or exam spans is not numbered; single holidays do not unnumber a week.
 * @throws RangeError when teaching ends before it starts, naming both days
 */
export function weeksOf(term: Term): Week[] {
  if (term.teachingTo < term.teachingFrom) {
    throw new RangeError(`teaching ends before it starts: from ${term.teachingFrom} to ${term.teachingTo}`)
  }
  const last = term.spans.reduce((day, span) => (span.to > day ? span.to : day), term.teachingTo)
  const weeks: Week[] = []
  let number = 0
  for (let monday = mondayOf(term.teachingFrom); monday <= last; monday = addDays(monday, 7)) {
    const off = spanOverWorkingWeek(term, monday)
    if (off) weeks.push({ monday, number: null, kind: off.kind === 'exams' ? 'exams' : 'reading', label: off.label })
    else if (monday <= term.teachingTo) weeks.push({ monday, number: ++number, kind: 'teaching', label: `Wk ${number}` })
  }
  return weeks
}

function spanOverWorkingWeek(term: Term, monday: string): TermSpan | undefined {
  const friday = addDays(monday, 4)
  return term.spans.find((span) => span.kind !== 'holiday' && span.from <= monday && span.to >= friday)
}

/** Where `date` lies in the term: its week (undefined outside the term) and weekday. */
export function placeOf(term: Term, date: string): { week: Week | undefined, weekday: number } {
  const monday = mondayOf(date)
  return { week: weeksOf(term).find((w) => w.monday === monday), weekday: weekdayOf(date) }
}

/** The date of a weekday in a numbered teaching week, or undefined when the term has no such week. */
export function dateOf(term: Term, weekNumber: number, weekday: number): string | undefined {
  const week = weeksOf(term).find((w) => w.number === weekNumber)
  return week && addDays(week.monday, weekday - 1)
}

/** Why there is no ordinary teaching on `date`, or undefined when there is. */
export function notTeaching(term: Term, date: string): string | undefined {
  const span = term.spans.find((s) => s.from <= date && s.to >= date)
  if (span) return span.label
  if (date < term.teachingFrom) return 'before teaching starts'
  if (date > term.teachingTo) return 'after teaching ends'
  return undefined
}

/**
 * The instant of a local wall time. A time skipped by a daylight-saving change moves forward by the
 * gap, a repeated one is taken as its first (RFC 5545, 3.3.5).
 */
export function instantOf(zone: string, date: string, time: string): number {
  return Zone.of(zone).at(dayOf(date), minutesOf(time)).instant
}

/** The local date and time of day of an instant, and its weekday. */
export function wallOf(zone: string, instant: number): { date: string, time: string, weekday: number } {
  const { date, time, weekday } = Zone.of(zone).wall(instant)
  return { date, time, weekday }
}
