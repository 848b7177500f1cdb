/** What is brought in, as its page shows it. Instants are ms since 1970. */
import type { Kind, RowError } from '~~/core/people/class-data'
import type { Field, Mapping } from '~~/core/timetable/rows'
import type { WantedField } from '~~/core/timetable/difference'
import type { WayOut } from '~~/core/timetable/ways-out'
import type { ClashGroup } from '../timetable/views'

export type ImportKind = 'class data' | 'timetable' | 'roll-over'
export type ImportState = 'waiting' | 'reading' | 'looked over' | 'taking in' | 'taken in' | 'failed' | 'dropped'

export interface ImportSummary { id: string, kind: ImportKind, state: ImportState, name: string, percent: number, step: string, sentence: string, askedAt: number, who: string, editId: string | null }

/** One record of class data in words. */
export interface DataLine { what: string, changes: string[] }
export interface ClassDataResult {
  kinds: Record<Kind, { added: number, changed: number, gone: number, same: number, lines: { added: DataLine[], changed: DataLine[], gone: DataLine[] } }>
  errors: RowError[]
}

export type RowStatus = 'new' | 'same' | 'changed' | 'gone' | 'clash' | 'not understood' | 'left out'

/** One plan of a timetable with the rows it came from. */
export interface PlanLine {
  /** index in the list; clash groups name plans by it */
  plan: number
  rows: number[]
  status: RowStatus
  section: string
  words: string
  captures: number
  fields: WantedField[]
  /** what is wrong with the row, or what was decided about it */
  sentence: string
}

/** What was decided about one plan of an import. */
export interface Decision { plan: number, dates: string[], way: WayOut }

export interface TimetableResult {
  columns: string[]
  mapping: Mapping
  lack: string
  encoding: string
  rowCount: number
  sample: Record<string, string>[]
  lines: PlanLine[]
  clashes: ClashGroup[]
  warnings: string[]
  counts: Record<RowStatus, number>
  /** captures that taking it in would write, change and cancel */
  writes: number
  cancels: number
  /** a whole set of ways out, to look over; null until asked for */
  proposals: (Decision & { section: string, words: string })[] | null
}

export interface TimetableOptions {
  mapping?: Mapping
  decisions?: Decision[]
  /** plans left out by their key */
  leftOut?: number[]
  propose?: boolean
  fromTermId?: string
}

export interface ImportView extends ImportSummary { classData: ClassDataResult | null, timetable: TimetableResult | null, options: TimetableOptions, undone: boolean }

export const fieldWords: Record<Field, string> = {
  key: 'its own number', section: 'section', course: 'course', number: 'section number', weekdays: 'weekday', weeks: 'weeks', date: 'date', from: 'first day', until: 'last day',
  start: 'start', end: 'end', minutes: 'minutes', room: 'room', presenter: 'presenter', title: 'title',
}
