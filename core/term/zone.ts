/**
 * A time zone as a table of its offset changes. Looking an offset up is a search in a short list, so
 * a term's 200 000 wall times become instants in a fraction of a second; asking a calendar library
 * for each would take minutes. The table grows to where it is asked.
 */
import { Temporal } from 'temporal-polyfill'
import { isoOf, timeOf, weekdayOfDay } from './days'

const DAY_MS = 86_400_000
const YEAR_MS = 366 * DAY_MS

export class Zone {
  static #known = new Map<string, Zone>()
  /** instants at which the offset changes, ascending */
  readonly #changes: number[] = []
  /** the offset before the first change, then from each on, ms */
  readonly #offsets: number[] = []
  /** the table is whole between these */
  #low = 0
  #high = 0

  /**
   * The table of an IANA zone, made once.
   * @throws RangeError when there is no such zone, naming it
   */
  static of(name: string): Zone {
    const known = this.#known.get(name)
    if (known) return known
    try {
      Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(name)
    } catch {
      throw new RangeError(`there is no time zone ${name}`)
    }
    const zone = new Zone(name)
    this.#known.set(name, zone)
    return zone
  }

  private constructor(readonly name: string) {}

  #at(instant: number): Temporal.ZonedDateTime {
    return Temporal.Instant.fromEpochMilliseconds(instant).toZonedDateTimeISO(this.name)
  }

  #reach(instant: number): void {
    if (!this.#offsets.length) {
      this.#low = this.#high = instant
      this.#offsets.push(this.#at(instant).offsetNanoseconds / 1e6)
    }
    if (instant >= this.#high) this.#forward(instant + YEAR_MS)
    if (instant < this.#low) this.#back(instant - YEAR_MS)
  }

  #forward(to: number): void {
    for (let at = this.#at(this.#high); ;) {
      const next = at.getTimeZoneTransition('next')
      if (!next || next.epochMilliseconds > to) break
      this.#changes.push(next.epochMilliseconds)
      this.#offsets.push(next.offsetNanoseconds / 1e6)
      at = next
    }
    this.#high = to
  }

  #back(to: number): void {
    for (let at = this.#at(this.#low); ;) {
      const change = at.getTimeZoneTransition('previous')
      if (!change || change.epochMilliseconds <= to) break
      this.#changes.unshift(change.epochMilliseconds)
      this.#offsets.unshift(change.subtract({ milliseconds: 1 }).offsetNanoseconds / 1e6)
      at = change
    }
    this.#low = to
  }

  /** Offset from UTC at an instant, ms; east is positive. */
  offsetAt(instant: number): number {
    if (instant < this.#low || instant >= this.#high) this.#reach(instant)
    let low = 0
    let high = this.#changes.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.#changes[middle]! <= instant) low = middle + 1
      else high = middle
    }
    return this.#offsets[low]!
  }

  /**
   * The instant of a wall time. A time skipped by a change moves forward by the gap and is `skipped`;
   * a repeated one is taken as its first (RFC 5545, 3.3.5).
   * @param day day number
   * @param minutes minutes since midnight on the clock on the wall
   */
  at(day: number, minutes: number): { instant: number, skipped: boolean } {
    const instant = this.instant(day, minutes)
    // Only where the offset changes near by can the clock on the wall show something else than was asked.
    return { instant, skipped: instant + this.offsetAt(instant) !== day * DAY_MS + minutes * 60_000 }
  }

  /** The instant of {@link at} alone. */
  instant(day: number, minutes: number): number {
    const wall = day * DAY_MS + minutes * 60_000
    const before = this.offsetAt(wall - DAY_MS)
    const after = this.offsetAt(wall + DAY_MS)
    const first = wall - before
    if (before === after || this.offsetAt(first) === before) return first
    const second = wall - after
    return this.offsetAt(second) === after ? second : first
  }

  /** Local date, time of day and weekday of an instant. */
  wall(instant: number): { date: string, time: string, weekday: number, day: number } {
    const local = instant + this.offsetAt(instant)
    const day = Math.floor(local / DAY_MS)
    return { date: isoOf(day), time: timeOf(Math.floor((local - day * DAY_MS) / 60_000)), weekday: weekdayOfDay(day), day }
  }

  /** The changes of offset between two instants, as a calendar file has to state them. */
  changesBetween(from: number, to: number): { at: number, before: number, after: number }[] {
    this.#reach(from)
    this.#reach(to)
    return this.#changes.flatMap((at, i) => (at >= from && at < to ? [{ at, before: this.#offsets[i]!, after: this.#offsets[i + 1]! }] : []))
  }
}
