/** Where things lie on the board: days side by side, each from the first shown hour to the last; and back from a point to a time. */

export interface Geometry {
  /** ISO dates from left to right */
  dates: readonly string[]
  /** minutes of the day at the left and right edge of each day */
  from: number
  to: number
  /** width of a day and height of a row, px */
  dayWidth: number
  rowHeight: number
}

/** Space between two days, px. */
export const GAP = 6

/** Left edge of a minute of a day, px. */
export function xOf(g: Geometry, day: number, minutes: number): number {
  return day * g.dayWidth + (minutes - g.from) / (g.to - g.from) * (g.dayWidth - GAP)
}

/** Width of a length in minutes, px. */
export const widthOf = (g: Geometry, minutes: number): number => minutes / (g.to - g.from) * (g.dayWidth - GAP)

/** Day, minute and row at a point of the field; always within it. */
export function placeAt(g: Geometry, x: number, y: number, rows: number): { day: number, minutes: number, row: number } {
  const day = clamp(Math.floor(x / g.dayWidth), 0, g.dates.length - 1)
  const minutes = g.from + (x - day * g.dayWidth) / (g.dayWidth - GAP) * (g.to - g.from)
  return { day, minutes: clamp(minutes, g.from, g.to), row: clamp(Math.floor(y / g.rowHeight), 0, rows - 1) }
}

export const clamp = (n: number, low: number, high: number): number => Math.min(high, Math.max(low, n))

/** The usual start nearest to a minute of the day. @param usual minutes past the hour at which captures usually start */
export function snapped(minutes: number, usual: readonly number[]): number {
  const hour = Math.floor(minutes / 60) * 60
  const candidates = [-60, 0, 60].flatMap((h) => usual.map((past) => hour + h + past))
  return candidates.reduce((best, c) => (Math.abs(c - minutes) < Math.abs(best - minutes) ? c : best))
}

/** The next usual start after, or before, a minute of the day. */
export function stepped(minutes: number, usual: readonly number[], direction: 1 | -1): number {
  const hour = Math.floor(minutes / 60) * 60
  const candidates = [-60, 0, 60].flatMap((h) => usual.map((past) => hour + h + past)).sort((a, b) => a - b)
  return direction === 1 ? candidates.find((c) => c > minutes)! : candidates.findLast((c) => c < minutes)!
}

/** The hours to show: the campus's working day, wider when a capture lies outside. */
export function hoursFor(spans: readonly { from: number, to: number }[]): { from: number, to: number } {
  return {
    from: Math.floor(Math.min(8 * 60, ...spans.map((s) => s.from)) / 60) * 60,
    to: Math.ceil(Math.max(18 * 60, ...spans.map((s) => s.to)) / 60) * 60,
  }
}
