/** Chance that falls the same way each time: the demo is alike on every machine (mulberry32, T. Ettinger). */
export class Chance {
  #state: number
  constructor(seed: number) {
    this.#state = seed >>> 0
  }

  /** 0 ≤ x < 1 */
  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) >>> 0
    let t = this.#state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }

  below = (n: number): number => Math.floor(this.next() * n)
  of = <T>(list: readonly T[]): T => list[this.below(list.length)]!
  shuffled<T>(list: readonly T[]): T[] {
    const copy = [...list]
    for (let i = copy.length - 1; i > 0; i--) {
      const j = this.below(i + 1);
      [copy[i], copy[j]] = [copy[j]!, copy[i]!]
    }
    return copy
  }
}
