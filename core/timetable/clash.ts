/**
 * Who is in whose way: half-open spans of time in rooms, with the minutes a room needs between two
 * captures. The database refuses the same overlaps by an exclusion constraint; this names them.
 */

/** A half-open span of time, ms: `start` belongs to it, `end` does not. */
export interface Span { start: number, end: number }

/** True when two half-open spans share a moment; spans that only touch do not. */
export function overlap(a: Span, b: Span): boolean {
  return a.start < b.end && b.start < a.end
}

/** The span a capture keeps its room for: the capture and the turnaround after it. */
export function held(span: Span, turnaroundMinutes: number): Span {
  return { start: span.start, end: span.end + turnaroundMinutes * 60_000 }
}

/**
 * The captures of one room that `wanted` would run into, earliest first.
 * @param others captures of the same room
 * @param turnaroundMinutes minutes the room needs after each capture
 */
export function clashesWith<T extends Span>(wanted: Span, others: readonly T[], turnaroundMinutes: number): T[] {
  const mine = held(wanted, turnaroundMinutes)
  return others.filter((other) => overlap(mine, held(other, turnaroundMinutes))).sort((a, b) => a.start - b.start)
}
