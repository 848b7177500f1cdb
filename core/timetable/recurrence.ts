/** Dates as the recurrence of a calendar file: RFC 5545, 3.3.10 (RRULE) and 3.8.5.1 (EXDATE). */
import { dayOf, isoOf, mondayOfDay, weekdayOfDay } from '../term/days'

export interface Recurrence {
  /** weeks between two occurrences: 1, or 2 for alternate weeks */
  interval: 1 | 2
  /** weekdays, 1 (Monday) to 7 */
  byDay: number[]
  first: string
  last: string
  /** dates the rule makes and that are not meant, in order */
  except: string[]
}

const weekdayCodes = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const

/**
 * The weekly recurrence that makes exactly these dates, with the fewest exceptions. Teaching weeks
 * are not calendar weeks, so a rule over a reading week needs exceptions where ours needs none.
 * @param dates at least one, in order
 */
export function recurrenceOf(dates: readonly string[]): Recurrence {
  const days = dates.map(dayOf)
  const byDay = [...new Set(days.map(weekdayOfDay))].sort((a, b) => a - b)
  const weekly = recurrence(days, byDay, 1)
  const inStep = days.every((day) => (mondayOfDay(day) - mondayOfDay(days[0]!)) % 14 === 0)
  if (!inStep) return weekly
  const alternate = recurrence(days, byDay, 2)
  return alternate.except.length < weekly.except.length ? alternate : weekly
}

function recurrence(days: number[], byDay: number[], interval: 1 | 2): Recurrence {
  const first = days[0]!
  const last = days.at(-1)!
  const wanted = new Set(days)
  const except = walk(first, last, byDay, interval).filter((day) => !wanted.has(day)).map(isoOf)
  return { interval, byDay, first: isoOf(first), last: isoOf(last), except }
}

function walk(first: number, last: number, byDay: number[], interval: number): number[] {
  const days: number[] = []
  for (let monday = mondayOfDay(first); monday <= last; monday += 7 * interval) {
    for (const weekday of byDay) {
      const day = monday + weekday - 1
      if (day >= first && day <= last) days.push(day)
    }
  }
  return days
}

/**
 * The value of RRULE. `UNTIL` is in UTC, as the standard wants it for a start with a zone.
 * @param lastStart instant of the last occurrence's start, ms
 */
export function rruleText({ interval, byDay }: Recurrence, lastStart: number): string {
  const until = `${new Date(lastStart).toISOString().slice(0, 19).replace(/[-:]/g, '')}Z`
  // The reckoning of weeks begins on Monday here; with an interval of two it matters.
  return `FREQ=WEEKLY${interval === 2 ? ';INTERVAL=2;WKST=MO' : ''};BYDAY=${byDay.map((w) => weekdayCodes[w - 1]).join(',')};UNTIL=${until}`
}
