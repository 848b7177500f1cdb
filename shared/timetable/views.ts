/** What the timetable routes answer with. Instants are ms since 1970. */
import type { CaptureState } from '~~/core/capture/states'
import type { OwnField } from '~~/core/timetable/change'
import type { WayOut } from '~~/core/timetable/ways-out'
import type { InputKind } from '../inputs'

export interface RoomView {
  id: string
  name: string
  building: string
  seats: number
  inputs: InputKind[]
  turnaroundMinutes: number
  openToInstructors: boolean
  retired: boolean
}

export interface CaptureView {
  id: string
  sectionId: string
  section: string
  course: string
  roomId: string
  room: string
  presenterId: string
  presenter: string
  topic: string
  start: number
  end: number
  inputs: InputKind[]
  state: CaptureState
  planId: string | null
  /** changed by hand for this date alone */
  own: OwnField[]
  recordingId: string | null
  /** words for trouble: what the recorder said, or did not say */
  trouble: string
}

/** One capture for its bench: with the rule it came from, in words. */
export interface CaptureDetails extends CaptureView { plan: string, weekdays: number[], told: PersonChoice[] }

export interface SectionChoice { id: string, code: string, course: string, title: string, people: number, presenterIds: string[] }
export interface PersonChoice { id: string, name: string }
export interface HoursView { opens: string, closes: string, usualStarts: number[] }

/** Everything the planning form chooses from. */
export interface PlanChoices { termId: string, sections: SectionChoice[], presenters: PersonChoice[], rooms: RoomView[], hours: HoursView }

/** What stands in the way of some dates of a plan, and the ways out, best first. */
export interface ClashGroup {
  /** index of the plan in what was asked about */
  plan: number
  dates: string[]
  sentence: string
  /** the captures in the way, at most a few */
  with: { captureId: string | null, words: string, start: number }[]
  ways: WayOut[]
}

/** One date of a plan before it is saved. */
export interface DateView { date: string, week: number | null, start: number, end: number, roomId: string, skipped: string, clash: boolean }

export interface PlanPreview { dates: DateView[], clashes: ClashGroup[], warnings: string[], beyond?: string[] }

/** One capture before and after a change. */
export interface ChangeLine {
  captureId: string
  planDate: string
  before: { start: number, end: number, room: string, presenter: string, state: CaptureState }
  after: { start: number, end: number, room: string, presenter: string, state: CaptureState }
  /** in words, such as `10:00 → 11:00` */
  what: string[]
  keeps: OwnField[]
  /** what it would run into; empty when nothing */
  clash: string
  /** the only ways out that need no more than this date */
  ways: WayOut[]
}

export interface ChangePreview { lines: ChangeLine[], untouched: number, warnings: string[], sentence: string, weekdays: number[], beyond?: string[] }

/** Something done to the timetable, with the way back. */
export interface Edited { editId: string, captures: number, sentence: string, warnings: string[] }

export interface EditView { id: string, at: number, who: string, kind: string, sentence: string, captures: number, undoneAt: number | null, undoneBy: string | null, mayUndo: boolean }

export interface PlanView {
  id: string
  sectionId: string
  section: string
  room: string
  presenter: string
  title: string
  rule: string
  /** captures to come */
  ahead: number
  weekdays: number[]
  start: string
  minutes: number
  roomId: string
  presenterId: string
  inputs: InputKind[]
  told: PersonChoice[]
}
