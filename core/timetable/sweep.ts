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
  return sweepBy(spans.length, (i) => spans[i]!.place, (i) => spans[i]!.start, (i) => spans[i]!.end)
}

/** As {@link sweep}, for spans that are told one by one: for a term's hundreds of thousands no objects are made. */
export function sweepBy(count: number, placeOf: (i: number) => string, startOf: (i: number) => number, endOf: (i: number) => number): [number, number][] {
  const starts = new Float64Array(count)
  const ends = new Float64Array(count)
  const places = new Map<string, number[]>()
  for (let i = 0; i < count; i++) {
    starts[i] = startOf(i)
    ends[i] = endOf(i)
    const place = placeOf(i)
    const list = places.get(place)
    if (list) list.push(i)
    else places.set(place, [i])
  }
  const pairs: [number, number][] = []
  for (const list of places.values()) sweepPlace(starts, ends, list, pairs)
  return pairs
}

function sweepPlace(starts: Float64Array, ends: Float64Array, list: number[], pairs: [number, number][]): void {
  list.sort((a, b) => starts[a]! - starts[b]!)
  let open: number[] = []
  let latest = -Infinity
  for (const i of list) {
    const start = starts[i]!
    // Nearly always nothing is open any more: then there is no list to go through.
    if (start >= latest) open.length = 0
    else open = open.filter((other) => ends[other]! > start)
    for (const other of open) pairs.push(i < other ? [i, other] : [other, i])
    open.push(i)
    if (ends[i]! > latest) latest = ends[i]!
  }
}
