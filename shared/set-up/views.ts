/** What set-up shows. */
import type { Term, Week } from '~~/core/term/calendar'
import type { RoomView } from '../timetable/views'

export interface TermSetUp { id: string, term: Term, weeks: Week[], sections: number, captures: number, current: boolean }
export interface RoomSetUp extends RoomView { recorder: string | null, ahead: number }
