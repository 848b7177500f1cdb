/** How long a piece of work will still take. */

/** One earlier piece of work of the same kind: its size in any unit, and the seconds it took. */
export interface Done { size: number, seconds: number }

/** Seconds that work of `size` takes, in half and in nine of ten cases; undefined without history. */
export function forecast(size: number, history: readonly Done[]): { median: number, nineInTen: number } | undefined {
  const rates = history.filter((d) => d.size > 0 && d.seconds >= 0).map((d) => d.seconds / d.size).sort((a, b) => a - b)
  if (!rates.length) return undefined
  // Nearest rank: with few cases the nine-in-ten bound is the slowest one seen.
  const rank = (share: number) => rates[Math.min(rates.length - 1, Math.ceil(share * rates.length) - 1)]! * size
  return { median: rank(0.5), nineInTen: rank(0.9) }
}

/**
 * Seconds left of running work. Early on the forecast speaks, later the work's own pace: their mix
 * follows the share that is done.
 * @param share done so far, 0 to 1
 * @param elapsed seconds since it began
 * @param expected forecast of the whole, seconds; undefined when there is no history
 */
export function secondsLeft(share: number, elapsed: number, expected?: number): number | undefined {
  const done = Math.min(1, Math.max(0, share))
  const byPace = done > 0.02 ? elapsed / done - elapsed : undefined
  const byForecast = expected === undefined ? undefined : Math.max(0, expected - elapsed)
  if (byPace === undefined) return byForecast
  if (byForecast === undefined) return byPace
  return byPace * done + byForecast * (1 - done)
}

/** Seconds left in words: `about 4 min left`, `under a minute left`. */
export function leftWords(seconds: number | null | undefined): string {
  if (seconds === null || seconds === undefined) return ''
  if (seconds < 50) return 'under a minute left'
  const minutes = Math.round(seconds / 60)
  return minutes < 90 ? `about ${Math.max(1, minutes)} min left` : `about ${Math.round(minutes / 60)} h left`
}
