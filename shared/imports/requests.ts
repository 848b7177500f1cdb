/** What people send while they look an import over. */
import { ArrayMaxSize, IsArray, IsIn, IsInt, IsOptional, IsString, IsUUID, Matches, MaxLength, Min, ValidateBy } from 'class-validator'
import type { Mapping } from '~~/core/timetable/rows'
import { fields } from '~~/core/timetable/rows'
import type { WayOut } from '~~/core/timetable/ways-out'
import { DATE } from '../timetable/patterns'

const isMapping = (value: unknown): boolean => {
  if (value === null || typeof value !== 'object') return false
  const { columns, dateOrder, ...rest } = value as Partial<Mapping>
  return Object.keys(rest).length === 0 && (dateOrder === 'dmy' || dateOrder === 'mdy') && columns !== null && typeof columns === 'object'
    && Object.entries(columns).every(([field, column]) => (fields as readonly string[]).includes(field) && typeof column === 'string' && column.length <= 200)
}

/** Which column holds what. */
export class MapColumns {
  @ValidateBy({ name: 'isMapping', validator: { validate: isMapping } }, { message: 'Columns are named by what they hold.' })
  mapping: Mapping = { columns: {}, dateOrder: 'dmy' }
}

/** Takes one way out for a plan that clashes. */
export class Decide {
  @IsInt({ message: 'Name the plan.' })
  @Min(0, { message: 'Name the plan.' })
  plan = 0

  @IsArray({ message: 'Name the dates.' })
  @ArrayMaxSize(400, { message: 'At most 400 dates.' })
  @Matches(DATE, { each: true, message: 'Name the dates as days.' })
  dates: string[] = []

  @ValidateBy({ name: 'isWay', validator: { validate: (way: unknown) => isWay(way) } }, { message: 'Choose one of the ways out.' })
  way: WayOut = { kind: 'leave out', score: 0, reason: '' }
}

function isWay(way: unknown): way is WayOut {
  if (way === null || typeof way !== 'object') return false
  const { kind, roomId, start } = way as Record<string, unknown>
  return kind === 'leave out' || (kind === 'room' && typeof roomId === 'string' && /^[0-9a-f-]{36}$/.test(roomId)) || (kind === 'start' && typeof start === 'string' && /^\d\d:\d\d$/.test(start))
}

/** Leaves a plan out of an import, or takes it in again. */
export class LeaveOut {
  @IsArray({ message: 'Name the plans.' })
  @IsInt({ each: true, message: 'Name the plans by their numbers.' })
  plans: number[] = []
}

export class BeginImport {
  @IsIn(['class data', 'timetable'], { message: 'Say what the file holds.' })
  kind: 'class data' | 'timetable' = 'timetable'

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a term.' })
  termId?: string

  /** name of the source; its columns are remembered under it */
  @IsString({ message: 'Name the source.' })
  @MaxLength(80, { message: 'A source’s name has at most 80 characters.' })
  source = 'Timetable'
}

export class BeginRollOver {
  @IsUUID(undefined, { message: 'Choose the term whose plans are taken.' })
  fromTermId = ''

  @IsUUID(undefined, { message: 'Choose the term they go to.' })
  toTermId = ''
}

