/**
 * Calendar days as whole numbers, for arithmetic over thousands of them. Day 0 is 1970-01-01, a
 * Thursday; ISO strings `YYYY-MM-DD` come in and go out.
 */
const DAY_MS = 86_400_000

/**
 * The number of a day.
 * @throws RangeError for a text that is no day of the calendar, naming it
 */
export function dayOf(date: string): number {
  const instant = Date.parse(`${date}T00:00:00Z`)
  // Date.parse takes 31 November for 1 December; a day that does not come back the same does not exist.
  if (!/^\d{4}-\d\d-\d\d$/.test(date) || Number.isNaN(instant) || isoOf(instant / DAY_MS) !== date) throw new RangeError(`there is no day ${date}`)
  return instant / DAY_MS
}

/** The ISO date of a day number. */
export function isoOf(day: number): string {
  return new Date(day * DAY_MS).toISOString().slice(0, 10)
}

/** 1 for Monday … 7 for Sunday. */
export const weekdayOfDay = (day: number): number => (((day + 3) % 7) + 7) % 7 + 1

/** The number of the Monday of the week in which a day lies. */
export const mondayOfDay = (day: number): number => day - weekdayOfDay(day) + 1

/** `HH:MM` as minutes of the day. */
export const minutesOf = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5))

/** Minutes of the day as `HH:MM`. */
export const timeOf = (minutes: number): string => `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
