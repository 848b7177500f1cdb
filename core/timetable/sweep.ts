/** Finds every pair of spans that overlap in the same place, for whole terms at once. */

/** A half-open span in a place: a room with its turnaround, or a presenter. Instants in ms. */
export interface Placed { place: string, start: number, end: number }

/**
 * All overlapping pairs, as indexes, the smaller first; spans that only touch do not overlap.
 *
 * A sweep along time, place by place: spans sorted by start, with those still open kept aside
 * (Shamos and Hoey 1976, in one dimension). O(n log n + pairs).
 */
export function sweep(spans: readonly Placed[]): [number, number][] {
  const places = new Map<string, number[]>()
  for (let i = 0; i < spans.length; i++) {
    const { place } = spans[i]!
    const list = places.get(place)
    if (list) list.push(i)
    else places.set(place, [i])
  }
  const pairs: [number, number][] = []
  for (const list of places.values()) sweepPlace(spans, list, pairs)
  return pairs
}

function sweepPlace(spans: readonly Placed[], list: number[], pairs: [number, number][]): void {
  list.sort((a, b) => spans[a]!.start - spans[b]!.start)
  let open: number[] = []
  let latest = -Infinity
  for (const i of list) {
    const { start, end } = spans[i]!
    // Nearly always nothing is open any more: then there is no list to go through.
    if (start >= latest) open = []
    else open = open.filter((other) => spans[other]!.end > start)
    for (const other of open) pairs.push(i < other ? [i, other] : [other, i])
    open.push(i)
    if (end > latest) latest = end
  }
}
