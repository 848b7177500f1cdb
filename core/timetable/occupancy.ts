/** Which rooms are taken when: asked and changed thousands of times while ways out are looked for. */
import { overlap, type Span } from './clash'

/** Longest time that one capture may keep a room, turnaround included: 8 h and 2 h. */
const LONGEST_MS = 10 * 3600_000

export class Occupancy {
  readonly #rooms = new Map<string, Span[]>()

  /** @param turnaround minutes each room needs after a capture */
  constructor(readonly turnaround: ReadonlyMap<string, number>) {}

  #held(roomId: string, span: Span): Span {
    return { start: span.start, end: span.end + (this.turnaround.get(roomId) ?? 0) * 60_000 }
  }

  /** Takes a room for a capture; overlaps are allowed, as wishes overlap before they are settled. */
  take(roomId: string, span: Span): void {
    const held = this.#held(roomId, span)
    const list = this.#rooms.get(roomId) ?? []
    if (!list.length) this.#rooms.set(roomId, list)
    list.splice(firstAtOrAfter(list, held.start), 0, held)
  }

  /** Gives back what {@link take} took. */
  giveBack(roomId: string, span: Span): void {
    const held = this.#held(roomId, span)
    const list = this.#rooms.get(roomId) ?? []
    for (let i = firstAtOrAfter(list, held.start); list[i]?.start === held.start; i++) {
      if (list[i]!.end === held.end) {
        list.splice(i, 1)
        return
      }
    }
  }

  /** True when a capture fits into the room, its turnaround and those of others included. */
  isFree(roomId: string, span: Span): boolean {
    const held = this.#held(roomId, span)
    const list = this.#rooms.get(roomId)
    if (!list) return true
    for (let i = firstAtOrAfter(list, held.start - LONGEST_MS); i < list.length && list[i]!.start < held.end; i++) {
      if (overlap(list[i]!, held)) return false
    }
    return true
  }
}

/** Index of the first span that starts at `start` or later. */
function firstAtOrAfter(list: readonly Span[], start: number): number {
  let low = 0
  let high = list.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (list[middle]!.start < start) low = middle + 1
    else high = middle
  }
  return low
}
