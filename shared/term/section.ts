/** A section's people and what it settles by default. */
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsOptional, IsString, IsUUID, Max, MaxLength, Min } from 'class-validator'
import type { PersonChoice } from '../timetable/views'

export class SectionDefaults {
  @IsIn(['held', 'class list'], { message: 'Choose who may watch when a recording is ready.' })
  release: 'held' | 'class list' = 'held'

  /** days after the lesson at which it opens; null at once */
  @IsOptional()
  @IsInt({ message: 'Give days as a whole number.' })
  @Min(0, { message: 'Days after the lesson: 0 or more.' })
  @Max(365, { message: 'At most a year after the lesson.' })
  opensDays: number | null = null

  @IsOptional()
  @IsInt({ message: 'Give days as a whole number.' })
  @Min(1, { message: 'It stays open for a day at least.' })
  @Max(1000, { message: 'At most 1000 days after the lesson.' })
  closesDays: number | null = null

  /** released only when somebody has checked its captions */
  @IsBoolean({ message: 'Captions are wanted or not.' })
  captions = false

  /** subfolder for each recording, such as `Week {week}`; empty: the section’s own folder */
  @IsString({ message: 'The pattern is text.' })
  @MaxLength(60, { message: 'A pattern has at most 60 characters.' })
  folderPattern = ''

  @IsArray({ message: 'Choose people.' })
  @ArrayMaxSize(30, { message: 'At most 30 people are told.' })
  @IsUUID(undefined, { each: true, message: 'Choose people from the list.' })
  told: string[] = []
}

export interface ListEntry { personId: string, name: string, email: string, role: 'instructor' | 'assistant' | 'student', from: number | null, to: number | null, came: boolean }
export interface SectionPage { id: string, code: string, title: string, term: string, list: ListEntry[], defaults: SectionDefaults, told: PersonChoice[], mayChange: boolean }
