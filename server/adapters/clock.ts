/**
 * Follows the campus clock. Where no clock service is set (`CAMPUS_CLOCK_URL`), campus time is this
 * machine's time; demo and tests run a service that can be set and sped up.
 */
import { campusAt, ordinary, type ClockSetting } from '~~/core/clock/clock'
import { log } from '../services/log'

let setting: ClockSetting = ordinary
const listeners = new Set<(clock: ClockSetting) => void>()
let following: AbortController | undefined

/** Campus time now, ms since 1970. */
export const campusNow = (): number => campusAt(setting, Date.now())
export const campusDate = (): Date => new Date(campusNow())
export const clockSetting = (): ClockSetting => setting

/** Calls `listener` whenever the clock was set or its speed changed. @returns a way to stop */
export function onClockChange(listener: (clock: ClockSetting) => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** Reads the clock, waiting for it to answer, and follows it until {@link leaveClock}. */
export async function followClock(url = process.env.CAMPUS_CLOCK_URL): Promise<void> {
  if (!url || following) return
  following = new AbortController()
  for (let attempt = 0; ; attempt++) {
    try {
      take(await (await fetch(url, { signal: AbortSignal.timeout(2000) })).json() as ClockSetting)
      break
    } catch (error) {
      if (attempt >= 50) throw new Error(`the campus clock does not answer at ${url}`, { cause: error })
      await new Promise((r) => setTimeout(r, 200))
    }
  }
  void follow(url, following.signal)
}

export function leaveClock(): void {
  following?.abort()
  following = undefined
}

function take(next: ClockSetting): void {
  if (next.realAnchor === setting.realAnchor && next.rate === setting.rate && next.campusAnchor === setting.campusAnchor) return
  setting = { realAnchor: next.realAnchor, campusAnchor: next.campusAnchor, rate: next.rate }
  for (const listener of listeners) listener(setting)
}

/** The service holds a GET to `/next` open until the clock changes, then answers with the new setting. */
async function follow(url: string, signal: AbortSignal): Promise<void> {
  while (!signal.aborted) {
    try {
      const answer = await fetch(`${url}/next?after=${setting.realAnchor}`, { signal: AbortSignal.any([signal, AbortSignal.timeout(40_000)]) })
      if (answer.ok) take(await answer.json() as ClockSetting)
    } catch (error) {
      if (signal.aborted) return
      if ((error as Error).name !== 'TimeoutError') {
        log.warn({ err: String(error) }, 'campus clock out of reach; going on by the last setting')
        await new Promise((r) => setTimeout(r, 1000))
      }
    }
  }
}
