/** The name a recording is filed under: section, week, weekday and topic. */
import { weekdayNames } from '../term/calendar'

export interface NameParts {
  /** `HYD-210/01` */
  section: string
  /** teaching week number; null outside the numbered weeks */
  week: number | null
  /** label of an unnumbered week, such as `Reading week`, or the date */
  otherwise: string
  /** 1 (Monday) to 7 */
  weekday: number
  /** what the lecture is about; empty when nobody said */
  topic: string
  /** its place among the section's captures; null until it is fixed */
  lectureNumber: number | null
}

/**
 * @example recordingName({ section: 'HYD-210/01', week: 6, weekday: 3, topic: '', lectureNumber: 11, otherwise: '' })
 * // 'HYD-210/01, week 6 Wed: lecture 11'
 */
export function recordingName(parts: NameParts): string {
  const when = parts.week === null ? parts.otherwise : `week ${parts.week}`
  const what = parts.topic.trim() || (parts.lectureNumber === null ? 'lecture' : `lecture ${parts.lectureNumber}`)
  return `${parts.section}, ${when} ${weekdayNames[parts.weekday - 1]}: ${what}`
}

/** The topic part of a filed name, for lists that show the section already. */
export function topicOf(name: string): string {
  const at = name.indexOf(': ')
  return at < 0 ? name : name.slice(at + 2)
}
