/** Plans of a past term laid onto a new one, by week and weekday. */
import type { Term } from '../term/calendar'
import { teachingDays } from '../term/teaching-days'
import { keptDates, problemsOf, type Rule } from './rule'

export interface RolledOver {
  rule: Rule
  /** what of the old plan finds no place in the new term, in words; empty when all does */
  lost: string[]
}

/**
 * A rule of one term as it reads in another: teaching weeks keep their numbers, dates become the same
 * weekday of the same week, and what ends with teaching ends with the new term's.
 */
export function rollOver(rule: Rule, from: Term, to: Term): RolledOver {
  const place = placesOf(from)
  const dateAt = datesAt(to)
  const lost: string[] = []
  const moved = (date: string): string | undefined => {
    const at = place.get(date)
    const found = at && dateAt.get(at)
    if (!found) lost.push(at ? `${date} was ${at.replace(' ', ', weekday ')}; the new term has no such day` : `${date} lay in no teaching week`)
    return found
  }
  const { weekCount } = teachingDays(to)
  const beyond = rule.weeks.kind === 'chosen' ? rule.weeks.numbers.filter((n) => n > weekCount) : []
  if (beyond.length) lost.push(`week ${beyond.join(', ')}: the new term has ${weekCount}`)
  const weeks: Rule['weeks'] = rule.weeks.kind === 'chosen' ? { kind: 'chosen', numbers: rule.weeks.numbers.filter((n) => n <= weekCount) }
    : rule.weeks.kind === 'dates' ? { kind: 'dates', dates: rule.weeks.dates.flatMap((d) => moved(d) ?? []) } : rule.weeks
  const next: Rule = {
    ...rule, weeks, from: rule.from && (nearest(rule.from, place, dateAt) ?? null),
    until: rule.until.kind === 'date' ? untilOf(rule.until.date, place, dateAt) : rule.until,
    leftOut: rule.leftOut.flatMap((d) => moved(d) ?? []),
  }
  return { rule: next, lost }
}

/** True when a rolled-over rule makes captures. */
export const makesCaptures = (rule: Rule, term: Term): boolean => Object.keys(problemsOf(rule, term)).length === 0 && keptDates(rule, term).length > 0

/** date → `week weekday` */
function placesOf(term: Term): Map<string, string> {
  return new Map(teachingDays(term).byWeekday.flatMap((days, weekday) => days.filter((d) => d.week !== null).map((d) => [d.date, `${d.week} ${weekday}`] as const)))
}

function datesAt(term: Term): Map<string, string> {
  return new Map([...placesOf(term)].map(([date, at]) => [at, date]))
}

/** The same place in the new term, or that of the nearest earlier day which has one. */
function nearest(date: string, place: Map<string, string>, dateAt: Map<string, string>): string | undefined {
  const at = place.get(date)
  if (at) return dateAt.get(at)
  const earlier = [...place.keys()].filter((d) => d < date).sort().at(-1)
  return earlier && dateAt.get(place.get(earlier)!)
}

function untilOf(date: string, place: Map<string, string>, dateAt: Map<string, string>): Rule['until'] {
  const end = nearest(date, place, dateAt)
  return end ? { kind: 'date', date: end } : { kind: 'teaching' }
}
