/** Every day of a term with its week number and, when it is not taught, the reason: walked once, used for every rule. */
import { weeksOf, type Term } from './calendar'
import { dayOf, isoOf } from './days'
import { Zone } from './zone'

export interface TeachingDay {
  date: string
  /** number of the day since 1970-01-01 */
  day: number
  /** teaching week number; null in a reading or exam week */
  week: number | null
  /** why there is no teaching; empty when there is */
  off: string
}

export interface TeachingDays {
  zone: Zone
  weekCount: number
  /** for each weekday, 1 (Monday) to 7, its days from the first week to the last of the term, in order */
  byWeekday: TeachingDay[][]
}

const known = new WeakMap<Term, TeachingDays>()

/**
 * The days of a term, kept for as long as the term itself.
 * @throws RangeError when teaching ends before it starts, or the zone does not exist
 */
export function teachingDays(term: Term): TeachingDays {
  const kept = known.get(term)
  if (kept) return kept
  const byWeekday: TeachingDay[][] = Array.from({ length: 8 }, () => [])
  const weeks = weeksOf(term)
  // Weeks that belong to no week of teaching, such as two between the weeks of a term, are not in the list.
  for (const week of weeks) {
    const monday = dayOf(week.monday)
    for (let i = 0; i < 7; i++) {
      const date = isoOf(monday + i)
      const span = term.spans.find((s) => s.from <= date && s.to >= date)
      const off = span?.label ?? (week.number === null ? week.label : date < term.teachingFrom ? 'before teaching starts' : date > term.teachingTo ? 'after teaching ends' : '')
      byWeekday[i + 1]!.push({ date, day: monday + i, week: week.number, off })
    }
  }
  const days = { zone: Zone.of(term.zone), weekCount: weeks.reduce((n, w) => Math.max(n, w.number ?? 0), 0), byWeekday }
  known.set(term, days)
  return days
}
