/** Dates → rules: what a timetable lists one by one becomes the plan it was made from. */
import type { Term } from '../term/calendar'
import { dayOf, weekdayOfDay } from '../term/days'
import { teachingDays } from '../term/teaching-days'
import { keptDates, type Rule, type Weeks } from './rule'

/** Rules that together make exactly the dates that lie in teaching weeks; `beside` are those that do not. */
export interface Found { rules: Rule[], beside: string[] }

/**
 * The simplest rules for dates that share one time of day. Every week is preferred to alternate
 * weeks, those to a list of weeks; one or two gaps in a long run become days left out. Weekdays that
 * one rule can speak for share it.
 * @param dates in any order, doubles allowed
 * @throws RangeError for a text that is no day
 */
export function rulesFrom(dates: readonly string[], time: { start: string, minutes: number }, term: Term): Found {
  const { byWeekday } = teachingDays(term)
  const taught = new Set(byWeekday.flat().filter((d) => !d.off).map((d) => d.date))
  const beside: string[] = []
  const byDay = new Map<number, string[]>()
  for (const date of [...new Set(dates)].sort()) {
    const weekday = weekdayOfDay(dayOf(date))
    if (!taught.has(date)) beside.push(date)
    else byDay.set(weekday, [...(byDay.get(weekday) ?? []), date])
  }
  const rules: Rule[] = []
  for (const [weekday, wanted] of [...byDay].sort(([a], [b]) => a - b)) {
    const rule = simplest(weekday, wanted, time, term)
    const at = rules.findIndex((other) => together(other, rule, term))
    if (at < 0) rules.push(rule)
    else rules[at] = together(rules[at]!, rule, term)!
  }
  return { rules, beside }
}

/** One rule that makes the dates of both and no others, if there is one. */
function together(a: Rule, b: Rule, term: Term): Rule | undefined {
  if (JSON.stringify(a.weeks) !== JSON.stringify(b.weeks)) return undefined
  const ends = [a.until, b.until].map((u) => (u.kind === 'date' ? u.date : ''))
  const rule: Rule = {
    ...a, weekdays: [...a.weekdays, ...b.weekdays].sort((x, y) => x - y), leftOut: [...a.leftOut, ...b.leftOut].sort(),
    from: a.from && b.from && (a.from < b.from ? a.from : b.from),
    until: ends.includes('') ? { kind: 'teaching' } : { kind: 'date', date: ends.sort().at(-1)! },
  }
  return datesText(rule, term) === [...kept(a, term), ...kept(b, term)].sort().join() ? rule : undefined
}

const kept = (rule: Rule, term: Term) => keptDates(rule, term).map((d) => d.date)
const datesText = (rule: Rule, term: Term) => kept(rule, term).join()

function simplest(weekday: number, wanted: string[], time: { start: string, minutes: number }, term: Term): Rule {
  const taught = teachingDays(term).byWeekday[weekday]!.filter((d) => !d.off)
  const weekOf = new Map(taught.map((d) => [d.date, d.week]))
  const numbers = wanted.map((d) => weekOf.get(d)!)
  const rule = (weeks: Weeks, whole = false, leftOut: string[] = []): Rule => ({
    weekdays: [weekday], ...time, weeks, leftOut,
    from: whole || wanted[0] === taught[0]!.date ? null : wanted[0]!,
    until: whole || wanted.at(-1) === taught.at(-1)!.date ? { kind: 'teaching' } : { kind: 'date', date: wanted.at(-1)! },
  })
  const right = (candidate: Rule) => datesText(candidate, term) === wanted.join()
  const parity = numbers[0]! % 2 ? 'odd' as const : 'even' as const
  const alternateEnds = [rule({ kind: 'alternate', parity }, true), rule({ kind: 'alternate', parity })]
  const exact = [rule({ kind: 'every' }), ...(wanted.length > 1 ? alternateEnds : [])].find(right)
  if (exact) return exact
  const gaps = taught.map((d) => d.date).filter((d) => d > wanted[0]! && d < wanted.at(-1)! && !wanted.includes(d))
  if (gaps.length <= 2 && wanted.length >= 4) return rule({ kind: 'every' }, false, gaps)
  return rule({ kind: 'chosen', numbers }, true)
}
