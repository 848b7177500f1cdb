/** What the live stream carries: that something changed, not what; only progress comes with figures. */
import type { ClockSetting } from '~~/core/clock/clock'
import type { UndertakingView } from '../library/views'

export type LiveEvent =
  | { topic: 'hello' }
  /** the connection to the database was lost for a while: look at everything again */
  | { topic: 'again' }
  | { topic: 'clock', clock: ClockSetting, serverNow: number }
  | { topic: 'capture', id: string, sectionId: string }
  /** many captures at once; null: of any section */
  | { topic: 'timetable', sectionIds: string[] | null }
  | { topic: 'notice', personId: string }
  | { topic: 'recording', id: string, sectionId: string }
  | { topic: 'recorder', id: string }
  | { topic: 'work', sectionId: string | null, work: UndertakingView }
