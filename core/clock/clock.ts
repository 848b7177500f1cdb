/**
 * A campus clock: a line through (real time, campus time) with a slope.
 * At rate 1 and no offset it is the ordinary clock; demo and tests set and speed it.
 *
 * All times are milliseconds since 1970-01-01T00:00Z.
 */
export interface ClockSetting {
  /** real time at which the setting was made, ms */
  realAnchor: number
  /** campus time at that moment, ms */
  campusAnchor: number
  /** campus milliseconds per real millisecond; 0 stands still */
  rate: number
}

/** The ordinary clock: campus time is real time. */
export const ordinary: ClockSetting = { realAnchor: 0, campusAnchor: 0, rate: 1 }

/** Campus time, in ms, at real time `real`. */
export function campusAt(clock: ClockSetting, real: number): number {
  return Math.round(clock.campusAnchor + (real - clock.realAnchor) * clock.rate)
}

/**
 * Real milliseconds from `real` until the campus clock shows `campus`;
 * 0 when it has been, `Infinity` when the clock stands still before it.
 */
export function realUntil(clock: ClockSetting, real: number, campus: number): number {
  const left = campus - campusAt(clock, real)
  if (left <= 0) return 0
  return clock.rate > 0 ? left / clock.rate : Infinity
}
