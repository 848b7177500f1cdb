/** What a recorder reports about itself, every few seconds. */
import { IsArray, IsIn, IsInt, IsNumber, IsOptional, IsString, Matches, MaxLength, Min, ArrayMaxSize } from 'class-validator'

const uid = /^[\w.-]{1,80}@[\w.-]{1,80}$/

export class RecorderReport {
  @IsIn(['idle', 'recording', 'sending'], { message: 'The state is idle, recording or sending.' })
  state: 'idle' | 'recording' | 'sending' = 'idle'

  /** UIDs of the events it holds in its plan */
  @IsArray()
  @ArrayMaxSize(2000)
  @Matches(uid, { each: true })
  holding: string[] = []

  /** UID of the event being recorded */
  @IsOptional()
  @Matches(uid)
  recording?: string

  /** UIDs of events whose file is complete and on its way */
  @IsArray()
  @ArrayMaxSize(200)
  @Matches(uid, { each: true })
  sending: string[] = []

  @IsOptional()
  @IsInt()
  @Min(0)
  bytes?: number

  /** loudness of the last seconds, LUFS */
  @IsOptional()
  @IsNumber()
  levelDb?: number

  @IsOptional()
  @IsInt()
  @Min(0)
  freeBytes?: number

  @IsOptional()
  @IsString()
  @MaxLength(200)
  trouble?: string
}
