/** Set-up: terms with their spans, rooms, and what the team settles for everybody. Form and route share these. */
import { ArrayMaxSize, ArrayNotEmpty, ArrayUnique, IsArray, IsBoolean, IsIn, IsInt, IsOptional, IsString, IsUUID, Matches, Max, MaxLength, Min, MinLength, ValidateBy } from 'class-validator'
import { inputKinds, type InputKind } from '../inputs'
import { DATE, TIME } from '../timetable/patterns'

export interface SpanWish { kind: 'reading' | 'holiday' | 'exams', from: string, to: string, label: string }

function isSpan(value: unknown): boolean {
  if (value === null || typeof value !== 'object') return false
  const { kind, from, to, label, ...rest } = value as Record<string, unknown>
  return Object.keys(rest).length === 0 && ['reading', 'holiday', 'exams'].includes(kind as string) && [from, to].every((d) => typeof d === 'string' && DATE.test(d)) && typeof label === 'string' && label.trim().length > 0 && label.length <= 40
}

export class SaveTerm {
  @IsOptional()
  @IsUUID(undefined, { message: 'This term is not known.' })
  id?: string

  @IsString({ message: 'Name the term.' })
  @MinLength(1, { message: 'Name the term.' })
  @MaxLength(60, { message: 'A term’s name has at most 60 characters.' })
  name = ''

  @IsString({ message: 'Name the time zone.' })
  @MinLength(1, { message: 'Name the time zone, such as Europe/London.' })
  @MaxLength(60, { message: 'There is no such time zone.' })
  zone = ''

  @Matches(DATE, { message: 'Give the first day of teaching.' })
  teachingFrom = ''

  @Matches(DATE, { message: 'Give the last day of teaching.' })
  teachingTo = ''

  @IsArray({ message: 'Days without teaching are a list.' })
  @ArrayMaxSize(60, { message: 'At most 60 spans without teaching.' })
  @ValidateBy({ name: 'isSpan', validator: { validate: isSpan } }, { each: true, message: 'Each span without teaching has a name, a first and a last day.' })
  spans: SpanWish[] = []
}

export class SaveRoom {
  @IsOptional()
  @IsUUID(undefined, { message: 'This room is not known.' })
  id?: string

  @IsString({ message: 'Name the room.' })
  @MinLength(1, { message: 'Name the room.' })
  @MaxLength(60, { message: 'A room’s name has at most 60 characters.' })
  name = ''

  @IsString({ message: 'Name the building.' })
  @MaxLength(60, { message: 'A building’s name has at most 60 characters.' })
  building = ''

  @IsInt({ message: 'Give the seats as a whole number.' })
  @Min(1, { message: 'A room seats at least one.' })
  @Max(20_000, { message: 'At most 20 000 seats.' })
  seats = 30

  @ArrayNotEmpty({ message: 'Choose what the room can take in.' })
  @ArrayUnique({ message: 'Each thing is named once.' })
  @IsIn(inputKinds, { each: true, message: 'Choose from the list.' })
  inputs: InputKind[] = []

  @IsInt({ message: 'Give the minutes as a whole number.' })
  @Min(0, { message: 'Minutes to turn the room around are 0 to 120.' })
  @Max(120, { message: 'Minutes to turn the room around are 0 to 120.' })
  turnaroundMinutes = 5

  @IsBoolean({ message: 'Say whether instructors may plan here.' })
  openToInstructors = true

  @IsBoolean({ message: 'Say whether the room is in use.' })
  retired = false
}

export class SaveRules {
  @Matches(TIME, { message: 'Give the time as hours and minutes.' })
  opens = '08:00'

  @Matches(TIME, { message: 'Give the time as hours and minutes.' })
  closes = '21:00'

  @ArrayNotEmpty({ message: 'Choose at least one usual start.' })
  @ArrayUnique({ message: 'Each start is named once.' })
  @IsInt({ each: true, message: 'Starts are minutes past the hour.' })
  @Min(0, { each: true, message: 'Starts are minutes past the hour.' })
  @Max(59, { each: true, message: 'Starts are minutes past the hour.' })
  usualStarts: number[] = [0, 30]

  @Matches(TIME, { message: 'Give the time as hours and minutes.' })
  instructorsFrom = '08:00'

  @Matches(TIME, { message: 'Give the time as hours and minutes.' })
  instructorsTo = '18:00'

  @IsInt({ message: 'Give the days as a whole number.' })
  @Min(1, { message: 'At least one day ahead.' })
  @Max(400, { message: 'At most 400 days ahead.' })
  instructorsDaysAhead = 120
}
