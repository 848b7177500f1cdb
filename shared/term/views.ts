/** The shell of every page: who is here, which term, what time the campus has. */
import type { ClockSetting } from '~~/core/clock/clock'
import type { Term, Week } from '~~/core/term/calendar'

export interface Me {
  person: { id: string, name: string, email: string, role: 'staff' | 'instructor' | 'student' }
  clock: ClockSetting
  /** server's real time, ms, to take the difference between two machines' clocks out */
  serverNow: number
  zone: string
  college: string
  signOut: string
}

/** One day on the term band. */
export interface DayCount { date: string, captures: number, trouble: number }

export interface TermView { id: string, term: Term, weeks: Week[], days: DayCount[], captures: number }

/** A term to choose from. */
export interface TermChoice { id: string, name: string, from: string, to: string, current: boolean }
