/** Notices: what somebody is told, and how they want to be told. */
import { ArrayMaxSize, IsArray, ValidateBy } from 'class-validator'

export const noticeKinds = ['planned', 'changed', 'cancelled', 'ready', 'request', 'message'] as const
export type NoticeKind = typeof noticeKinds[number]

export interface NoticeView { id: string, kind: NoticeKind, subject: string, body: string, path: string, at: number, read: boolean }
export interface NoticeChoice { kind: NoticeKind, inApp: boolean, byMail: boolean }

function isChoice(value: unknown): boolean {
  if (value === null || typeof value !== 'object') return false
  const { kind, inApp, byMail } = value as Partial<NoticeChoice>
  return noticeKinds.includes(kind as never) && typeof inApp === 'boolean' && typeof byMail === 'boolean'
}

export class ChooseNotices {
  @IsArray({ message: 'Choose for each kind of notice.' })
  @ArrayMaxSize(noticeKinds.length, { message: 'One choice for each kind.' })
  @ValidateBy({ name: 'isChoice', validator: { validate: isChoice } }, { each: true, message: 'Choose yes or no for each kind of notice.' })
  choices: NoticeChoice[] = []
}

export const noticeWords: Record<NoticeKind, string> = {
  planned: 'captures of mine are planned', changed: 'captures of mine are changed', cancelled: 'captures of mine are cancelled', ready: 'a recording of mine is ready',
  request: 'a request is asked or answered', message: 'a message is written or answered',
}
