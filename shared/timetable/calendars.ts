/** Calendar files and private addresses. */
import { IsIn, IsUUID } from 'class-validator'

export const calendarKinds = ['room', 'section', 'person'] as const
export type CalendarKind = typeof calendarKinds[number]

export class AskCalendar {
  @IsIn(calendarKinds, { message: 'Choose a room, a section or a person.' })
  kind: CalendarKind = 'section'

  @IsUUID(undefined, { message: 'Choose whose calendar it is.' })
  id = ''
}

export interface CalendarAddressView { id: string, kind: CalendarKind, name: string, madeAt: number, readAt: number | null }
/** The address is told once, when it is made; only its fingerprint is kept. */
export interface NewCalendarAddress extends CalendarAddressView { address: string }
