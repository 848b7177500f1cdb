/**
 * Watched spans of a recording: what a person has seen, as sorted, disjoint spans in seconds.
 * Seeing the same minute twice counts once.
 */
export type Seconds = readonly [from: number, to: number]

/** Gaps shorter than this, in seconds, are closed: players report a little late. */
const JOIN = 0.5

/**
 * The union of spans, sorted and disjoint; empty and backward ones are dropped.
 * @param length length of the recording in seconds; spans are cut to it
 */
export function union(spans: readonly Seconds[], length = Infinity): [number, number][] {
  const sorted = spans
    .map(([from, to]): [number, number] => [Math.max(0, from), Math.min(length, to)])
    .filter(([from, to]) => to > from)
    .sort((a, b) => a[0] - b[0])
  const joined: [number, number][] = []
  for (const span of sorted) {
    const last = joined.at(-1)
    if (last && span[0] <= last[1] + JOIN) last[1] = Math.max(last[1], span[1])
    else joined.push(span)
  }
  return joined
}

/** Seconds covered by disjoint spans. */
export function covered(spans: readonly Seconds[]): number {
  return spans.reduce((sum, [from, to]) => sum + (to - from), 0)
}

/** Share of the recording seen, 0 to 1; 0 for a recording without length. */
export function coverage(spans: readonly Seconds[], length: number): number {
  return length > 0 ? Math.min(1, covered(union(spans, length)) / length) : 0
}

/** Where to go on: the last place, unless that is within the closing seconds. */
export function resumeAt(position: number, length: number): number {
  return position > 5 && position < length - 15 ? position : 0
}
