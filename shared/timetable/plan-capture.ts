/** Planning one capture: the form's fields and the route's body. */
import { ArrayNotEmpty, ArrayUnique, IsIn, IsInt, IsOptional, IsString, IsUUID, Matches, Max, MaxLength, Min } from 'class-validator'
import { inputKinds, type InputKind } from '../inputs'

export class PlanCapture {
  @IsUUID(undefined, { message: 'Choose a section.' })
  sectionId = ''

  @IsUUID(undefined, { message: 'Choose a room.' })
  roomId = ''

  /** campus date, `YYYY-MM-DD` */
  @Matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, { message: 'Give the date as day, month and year.' })
  date = ''

  /** campus wall time, `HH:MM` */
  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, { message: 'Give the start as hours and minutes, such as 11:00.' })
  start = ''

  @IsInt({ message: 'Give the length in whole minutes.' })
  @Min(2, { message: 'A capture runs for at least 2 minutes.' })
  @Max(480, { message: 'A capture runs for at most 8 hours.' })
  minutes = 50

  @IsUUID(undefined, { message: 'Choose who presents.' })
  presenterId = ''

  @ArrayNotEmpty({ message: 'Choose at least one thing to take in.' })
  @ArrayUnique({ message: 'Each thing is taken in once.' })
  @IsIn(inputKinds, { each: true, message: 'Choose from what the room has.' })
  inputs: InputKind[] = []

  @IsOptional()
  @IsString({ message: 'The topic is text.' })
  @MaxLength(160, { message: 'A topic has at most 160 characters.' })
  topic = ''
}
