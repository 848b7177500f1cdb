/** A change to captures: which ones, and what is to be different. What is not named stays. */
import { ArrayNotEmpty, IsBoolean, IsIn, IsInt, IsOptional, IsString, IsUUID, Matches, Max, MaxLength, Min } from 'class-validator'
import { inputKinds, type InputKind } from '../inputs'
import { DATE, TIME } from './patterns'

export const scopes = ['one', 'later', 'all'] as const

export class ChangeCaptures {
  @IsIn(scopes, { message: 'Choose this one, this and later ones, or all to come.' })
  scope: typeof scopes[number] = 'one'

  /** only captures on the same weekday of the plan */
  @IsBoolean({ message: 'Choose the weekdays it concerns.' })
  weekdayOnly = false

  /** the date of the chosen capture after the change; others of the plan move by as many days */
  @IsOptional()
  @Matches(DATE, { message: 'Give the date as day, month and year.' })
  date?: string

  @IsOptional()
  @Matches(TIME, { message: 'Give the start as hours and minutes, such as 11:00.' })
  start?: string

  @IsOptional()
  @IsInt({ message: 'Give the length in whole minutes.' })
  @Min(2, { message: 'A capture runs for at least 2 minutes.' })
  @Max(480, { message: 'A capture runs for at most 8 hours.' })
  minutes?: number

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a room.' })
  roomId?: string

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose who presents.' })
  presenterId?: string

  @IsOptional()
  @ArrayNotEmpty({ message: 'Choose at least one thing to take in.' })
  @IsIn(inputKinds, { each: true, message: 'Choose from what the room has.' })
  inputs?: InputKind[]

  @IsOptional()
  @IsString({ message: 'The title is text.' })
  @MaxLength(160, { message: 'A title has at most 160 characters.' })
  title?: string

  /** people told of changes, besides the presenter */
  @IsOptional()
  @IsUUID(undefined, { each: true, message: 'Choose people from the list.' })
  told?: string[]

  @IsOptional()
  @IsBoolean({ message: 'Cancelled is yes or no.' })
  cancelled?: boolean

  /** dates of the plan that are left as they are, because they would clash */
  @IsOptional()
  @Matches(DATE, { each: true, message: 'Dates left as they are are dates.' })
  except?: string[]
}
