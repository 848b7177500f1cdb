/** A room on the day: what it has, and its recorder's last word. Instants are ms since 1970. */
import type { RoomView } from '../timetable/views'

export interface RoomState extends RoomView {
  recorder: string | null
  heardAt: number | null
  answers: boolean
  state: 'idle' | 'recording' | 'sending' | null
  levelDb: number | null
  freeBytes: number | null
  trouble: string
}
