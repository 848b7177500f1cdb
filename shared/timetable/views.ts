/** What the timetable routes answer with. Instants are ms since 1970. */
import type { CaptureState } from '~~/core/capture/states'
import type { InputKind } from '../inputs'

export interface RoomView { id: string, name: string, seats: number, inputs: InputKind[], turnaroundMinutes: number }

export interface CaptureView {
  id: string
  sectionId: string
  section: string
  course: string
  roomId: string
  room: string
  presenter: string
  topic: string
  start: number
  end: number
  inputs: InputKind[]
  state: CaptureState
  recordingId: string | null
  /** words for trouble: what the recorder said, or did not say */
  trouble: string
}

export interface SectionChoice { id: string, code: string, title: string, people: number, presenterIds: string[] }
export interface PersonChoice { id: string, name: string }

/** Everything the planning form chooses from. */
export interface PlanChoices { sections: SectionChoice[], presenters: PersonChoice[], rooms: RoomView[] }

/** The answer when a room is taken: the capture in the way and where there is room. */
export interface ClashView {
  sentence: string
  clash: { id: string, section: string, presenter: string, start: number, end: number } | null
  /** `HH:MM` of the nearest free start in the same room that day, or null */
  nearestStart: string | null
  /** rooms free at the wanted time that have the inputs and the seats, best first */
  freeRooms: { id: string, name: string, seats: number }[]
}
