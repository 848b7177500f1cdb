/** What an instructor asks the team for, and the team's answer. */
import { IsIn, IsString, MaxLength, MinLength, ValidateIf } from 'class-validator'

export class AskTeam {
  /** what the team should know */
  @IsString({ message: 'The note is text.' })
  @MaxLength(600, { message: 'A note has at most 600 characters.' })
  note = ''
}

export class AnswerRequest {
  @IsIn(['accepted', 'turned down'], { message: 'Accept it or turn it down.' })
  answer: 'accepted' | 'turned down' = 'accepted'

  @ValidateIf((a: AnswerRequest) => a.answer === 'turned down' || a.word !== '')
  @IsString({ message: 'Give a word with it.' })
  @MinLength(3, { message: 'Say in a word why, so that they know what to do.' })
  @MaxLength(400, { message: 'A word has at most 400 characters.' })
  word = ''
}

export interface RequestView {
  id: string
  who: string
  section: string
  words: string
  reasons: string[]
  note: string
  state: 'waiting' | 'accepted' | 'turned down' | 'taken back'
  answer: string
  answeredBy: string
  askedAt: number
  mine: boolean
}
