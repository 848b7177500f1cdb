/** Messages to the team, with the address of what the writer was looking at. */
import { IsString, Matches, MaxLength, MinLength } from 'class-validator'

export class WriteToTeam {
  @IsString({ message: 'Write your message.' })
  @MinLength(3, { message: 'Write what the team should know.' })
  @MaxLength(4000, { message: 'A message has at most 4000 characters.' })
  body = ''

  /** a path of ours, never an address elsewhere */
  @Matches(/^\/(?!\/)[^\s\\]{0,600}$/, { message: 'The address belongs to this application.' })
  path = '/'
}

export class AnswerMessage {
  @IsString({ message: 'Write an answer.' })
  @MinLength(2, { message: 'Write an answer.' })
  @MaxLength(4000, { message: 'An answer has at most 4000 characters.' })
  answer = ''
}

export interface MessageView { id: string, who: string, email: string, path: string, body: string, at: number, answer: string | null, answeredBy: string, answeredAt: number | null, mine: boolean }
