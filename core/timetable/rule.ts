/**
 * A capture plan's rule: on which days of a term, at which wall time. {@link datesOf} turns it into
 * dates with the reason for each one skipped; {@link problemsOf} says what is wrong with it.
 *
 * Rules speak of teaching weeks, so a reading week or a holiday needs no exception of its own.
 */
import { dateSentence } from '../term/words'
import { weekdayNames, type Term } from '../term/calendar'
import { dayOf, minutesOf, weekdayOfDay } from '../term/days'
import { teachingDays, type TeachingDay } from '../term/teaching-days'

export type Weeks =
  | { kind: 'every' }
  /** teaching weeks with an odd or an even number */
  | { kind: 'alternate', parity: 'odd' | 'even' }
  | { kind: 'chosen', numbers: number[] }
  /** these days and no others, taught or not: a single capture, or a field day on a Saturday */
  | { kind: 'dates', dates: string[] }

export type Until =
  | { kind: 'teaching' }
  /** that day still included */
  | { kind: 'date', date: string }
  /** that many captures; days without teaching do not count, days left out by hand do */
  | { kind: 'count', count: number }

export interface Rule {
  /** 1 (Monday) to 7, ascending */
  weekdays: number[]
  /** campus wall time, `HH:MM` */
  start: string
  minutes: number
  weeks: Weeks
  /** first day that may be taken; null from the start of teaching */
  from: string | null
  until: Until
  /** days left out by hand */
  leftOut: string[]
}

/** One date of a rule. Instants in ms. */
export interface RuleDate {
  date: string
  /** teaching week number; null in a week without one */
  week: number | null
  start: number
  end: number
  /** why there is no capture on it: `left out`, or the label of the span; empty when there is one */
  skipped: string
  /** the wall time does not exist on this day; the capture starts later by the gap */
  moved: boolean
}

const LEFT_OUT = 'left out'

/**
 * The dates of a rule in a term, in order, skipped ones among them.
 * @throws RangeError when the term has no days or its zone does not exist
 */
export function datesOf(rule: Rule, term: Term): RuleDate[] {
  if (rule.weeks.kind === 'dates') return singleDates(rule, rule.weeks.dates, term)
  const { zone } = teachingDays(term)
  const minutes = minutesOf(rule.start)
  const dates: RuleDate[] = []
  eachDay(rule, term, (day, skipped) => {
    const { instant, skipped: moved } = zone.at(day.day, minutes)
    dates.push({ date: day.date, week: day.week, start: instant, end: instant + rule.minutes * 60_000, skipped, moved })
  })
  return dates
}

/**
 * Visits the days of a rule in order, for reckoning with thousands of rules: nothing is made for a day.
 * Rules of single dates have no such days; see {@link datesOf}.
 */
export function eachDay(rule: Rule, term: Term, visit: (day: TeachingDay, skipped: string) => void): void {
  if (rule.weeks.kind === 'dates') return
  const { byWeekday } = teachingDays(term)
  const first = rule.from ?? ''
  const last = rule.until.kind === 'date' ? rule.until.date : '9999'
  const wanted = weekFilter(rule.weeks)
  const leftOut = rule.leftOut.length ? new Set(rule.leftOut) : undefined
  let left = rule.until.kind === 'count' ? rule.until.count : Infinity
  for (const day of merged(rule.weekdays.map((w) => byWeekday[w] ?? []))) {
    if (day.date < first || !wanted(day)) continue
    if (day.date > last || left <= 0) break
    // Days beside the term's own teaching are not skipped: the rule never meant them.
    if (day.off && (day.date < term.teachingFrom || day.date > term.teachingTo)) continue
    if (!day.off) left--
    visit(day, day.off || (leftOut?.has(day.date) ? LEFT_OUT : ''))
  }
}

function singleDates(rule: Rule, dates: string[], term: Term): RuleDate[] {
  const { zone, byWeekday } = teachingDays(term)
  return [...new Set(dates)].sort().map((date) => {
    const day = dayOf(date)
    const { instant, skipped: moved } = zone.at(day, minutesOf(rule.start))
    const week = byWeekday[weekdayOfDay(day)]!.find((d) => d.day === day)?.week ?? null
    return { date, week, start: instant, end: instant + rule.minutes * 60_000, skipped: rule.leftOut.includes(date) ? LEFT_OUT : '', moved }
  })
}

/** The dates on which there is a capture. */
export const keptDates = (rule: Rule, term: Term): RuleDate[] => datesOf(rule, term).filter((d) => !d.skipped)

function weekFilter(weeks: Exclude<Weeks, { kind: 'dates' }>): (day: TeachingDay) => boolean {
  switch (weeks.kind) {
    case 'every': return () => true
    case 'alternate': {
      const odd = weeks.parity === 'odd' ? 1 : 0
      return (day) => day.week !== null && day.week % 2 === odd
    }
    case 'chosen': {
      const numbers = new Set(weeks.numbers)
      return (day) => day.week !== null && numbers.has(day.week)
    }
  }
}

/** Several weekdays, each in order, as one list in order. */
function merged(lists: TeachingDay[][]): TeachingDay[] {
  if (lists.length === 1) return lists[0]!
  return lists.flat().sort((a, b) => a.day - b.day)
}

/** What is wrong with a rule, by its field; empty when nothing is. */
export function problemsOf(rule: Rule, term: Term): Partial<Record<'date' | 'weekdays' | 'start' | 'weeks' | 'from' | 'until', string>> {
  if (rule.weeks.kind === 'dates') {
    if (!rule.weeks.dates.length || !rule.weeks.dates.every(isDay)) return { date: 'There is no such day in the calendar.' }
    return timeProblem(rule, term)
  }
  if (!rule.weekdays.length) return { weekdays: 'Choose at least one weekday.' }
  for (const [field, date] of [['from', rule.from], ['until', rule.until.kind === 'date' ? rule.until.date : null]] as const) {
    if (date !== null && !isDay(date)) return { [field]: 'There is no such day in the calendar.' }
  }
  if (rule.from && rule.from > term.teachingTo) return { from: `Teaching ends on ${dateSentence(term.teachingTo)}, before this day.` }
  if (rule.until.kind === 'date' && rule.until.date < (rule.from ?? term.teachingFrom)) {
    return { until: `This ends before it starts: the first day is ${dateSentence(rule.from ?? term.teachingFrom)}.` }
  }
  const { weekCount } = teachingDays(term)
  const beyond = rule.weeks.kind === 'chosen' ? rule.weeks.numbers.filter((n) => n < 1 || n > weekCount) : []
  if (beyond.length) return { weeks: `${term.name} has teaching weeks 1 to ${weekCount}; there is no week ${beyond.join(', ')}.` }
  if (rule.weeks.kind === 'chosen' && !rule.weeks.numbers.length) return { weeks: 'Choose at least one week.' }
  const time = timeProblem(rule, term)
  if (time.start) return time
  if (!keptDates(rule, term).length) return { weekdays: 'This makes no capture: every one of its days falls outside teaching or is left out.' }
  return {}
}

function timeProblem(rule: Rule, term: Term): { start?: string } {
  const moved = keptDates(rule, term).find((d) => d.moved)
  return moved ? { start: `${rule.start} does not exist on ${dateSentence(moved.date)}: the clocks go forward over it. Choose another time or leave that day out.` } : {}
}

function isDay(date: string): boolean {
  try {
    dayOf(date)
    return true
  } catch {
    return false
  }
}

/** The rule in a few words, such as `Mon and Wed, odd weeks, 10:00, 50 min, until Fri 11 Dec`. */
export function ruleWords(rule: Rule): string {
  const time = `${rule.start}, ${rule.minutes} min`
  if (rule.weeks.kind === 'dates') return `${rule.weeks.dates.map(dateSentence).join(', ')}, ${time}`
  const days = rule.weekdays.map((w) => weekdayNames[w - 1]!)
  const names = days.length > 1 ? `${days.slice(0, -1).join(', ')} and ${days.at(-1)}` : days[0] ?? ''
  const weeks = rule.weeks.kind === 'alternate' ? `, ${rule.weeks.parity} weeks` : rule.weeks.kind === 'chosen' ? `, ${rangesOf(rule.weeks.numbers)}` : ' every week'
  const from = rule.from ? `, from ${dateSentence(rule.from)}` : ''
  const until = rule.until.kind === 'date' ? `, until ${dateSentence(rule.until.date)}` : rule.until.kind === 'count' ? `, ${rule.until.count} times` : ''
  return `${names}${weeks}, ${time}${from}${until}`
}

/** `weeks 1–5, 7` */
export function rangesOf(numbers: readonly number[]): string {
  const sorted = [...new Set(numbers)].sort((a, b) => a - b)
  const ranges: string[] = []
  for (let i = 0; i < sorted.length;) {
    let j = i
    while (sorted[j + 1] === sorted[j]! + 1) j++
    ranges.push(j > i ? `${sorted[i]}–${sorted[j]}` : `${sorted[i]}`)
    i = j + 1
  }
  return `${sorted.length === 1 ? 'week' : 'weeks'} ${ranges.join(', ')}`
}
