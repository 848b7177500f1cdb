/** A capture plan as the form fills it in and the route takes it: one date, or a rule. */
import { ArrayMaxSize, ArrayNotEmpty, ArrayUnique, IsArray, IsIn, IsInt, IsString, IsUUID, Matches, Max, MaxLength, Min, ValidateIf } from 'class-validator'
import type { Exception, Wanted } from '~~/core/timetable/wanted'
import type { Rule, Until, Weeks } from '~~/core/timetable/rule'
import { inputKinds, type InputKind } from '../inputs'
import { DATE, IsExceptions, TIME } from './patterns'

export const repeats = ['once', 'every', 'odd', 'even', 'chosen'] as const
export type Repeat = typeof repeats[number]

export class PlanCaptures {
  @IsUUID(undefined, { message: 'Choose a section.' })
  sectionId = ''

  @IsUUID(undefined, { message: 'Choose a room.' })
  roomId = ''

  @IsUUID(undefined, { message: 'Choose who presents.' })
  presenterId = ''

  @ArrayNotEmpty({ message: 'Choose at least one thing to take in.' })
  @ArrayUnique({ message: 'Each thing is taken in once.' })
  @IsIn(inputKinds, { each: true, message: 'Choose from what the room has.' })
  inputs: InputKind[] = []

  @IsString({ message: 'The title is text.' })
  @MaxLength(160, { message: 'A title has at most 160 characters.' })
  title = ''

  /** people told of changes, besides the presenter */
  @IsArray({ message: 'Choose people.' })
  @ArrayMaxSize(30, { message: 'At most 30 people are told of one plan.' })
  @IsUUID(undefined, { each: true, message: 'Choose people from the list.' })
  told: string[] = []

  /** campus wall time, `HH:MM` */
  @Matches(TIME, { message: 'Give the start as hours and minutes, such as 11:00.' })
  start = ''

  @IsInt({ message: 'Give the length in whole minutes.' })
  @Min(2, { message: 'A capture runs for at least 2 minutes.' })
  @Max(480, { message: 'A capture runs for at most 8 hours.' })
  minutes = 50

  @IsIn(repeats, { message: 'Choose how it repeats.' })
  repeat: Repeat = 'once'

  /** the one date, when it does not repeat */
  @ValidateIf((plan: PlanCaptures) => plan.repeat === 'once')
  @Matches(DATE, { message: 'Give the date as day, month and year.' })
  date = ''

  @ValidateIf((plan: PlanCaptures) => plan.repeat !== 'once')
  @ArrayNotEmpty({ message: 'Choose at least one weekday.' })
  @IsIn([1, 2, 3, 4, 5, 6, 7], { each: true, message: 'Choose weekdays from Monday to Sunday.' })
  weekdays: number[] = []

  @ValidateIf((plan: PlanCaptures) => plan.repeat === 'chosen')
  @ArrayNotEmpty({ message: 'Choose at least one week.' })
  @IsInt({ each: true, message: 'Choose weeks by their numbers.' })
  weekNumbers: number[] = []

  /** first day that may be taken; empty from the start of teaching */
  @ValidateIf((plan: PlanCaptures) => plan.repeat !== 'once' && plan.from !== '')
  @Matches(DATE, { message: 'Give the first day as day, month and year.' })
  from = ''

  @IsIn(['teaching', 'date', 'count'], { message: 'Choose when it ends.' })
  until: 'teaching' | 'date' | 'count' = 'teaching'

  @ValidateIf((plan: PlanCaptures) => plan.repeat !== 'once' && plan.until === 'date')
  @Matches(DATE, { message: 'Give the last day as day, month and year.' })
  untilDate = ''

  @ValidateIf((plan: PlanCaptures) => plan.repeat !== 'once' && plan.until === 'count')
  @IsInt({ message: 'Give a whole number of captures.' })
  @Min(1, { message: 'At least one capture.' })
  @Max(200, { message: 'At most 200 captures.' })
  count = 10

  @IsArray({ message: 'Days left out are a list.' })
  @Matches(DATE, { each: true, message: 'Days left out are dates.' })
  leftOut: string[] = []

  /** single dates that go elsewhere: date → room or start */
  @IsExceptions()
  exceptions: Record<string, Exception> = {}
}

const weeksOf = (plan: PlanCaptures): Weeks => {
  switch (plan.repeat) {
    case 'once': return { kind: 'dates', dates: [plan.date] }
    case 'every': return { kind: 'every' }
    case 'odd':
    case 'even': return { kind: 'alternate', parity: plan.repeat }
    case 'chosen': return { kind: 'chosen', numbers: plan.weekNumbers }
  }
}

const untilOf = (plan: PlanCaptures): Until =>
  plan.repeat === 'once' || plan.until === 'teaching' ? { kind: 'teaching' } : plan.until === 'date' ? { kind: 'date', date: plan.untilDate } : { kind: 'count', count: plan.count }

/** The form's fields as the core reckons with them. */
export function wantedOf(plan: PlanCaptures): Wanted {
  return {
    sectionId: plan.sectionId, roomId: plan.roomId, presenterId: plan.presenterId, title: plan.title.trim(), inputs: plan.inputs, exceptions: plan.exceptions,
    weekdays: [...plan.weekdays].sort((a, b) => a - b), start: plan.start, minutes: plan.minutes, weeks: weeksOf(plan), until: untilOf(plan), leftOut: plan.leftOut,
    from: plan.repeat === 'once' || !plan.from ? null : plan.from,
  }
}

/** The fields of the form for a rule. */
export function fieldsOf(rule: Rule): Pick<PlanCaptures, 'repeat' | 'date' | 'weekdays' | 'weekNumbers' | 'from' | 'until' | 'untilDate' | 'count' | 'leftOut' | 'start' | 'minutes'> {
  const { weeks, until } = rule
  return {
    repeat: weeks.kind === 'dates' ? 'once' : weeks.kind === 'alternate' ? weeks.parity : weeks.kind, date: weeks.kind === 'dates' ? weeks.dates[0]! : '',
    weekdays: rule.weekdays, weekNumbers: weeks.kind === 'chosen' ? weeks.numbers : [], from: rule.from ?? '', until: until.kind,
    untilDate: until.kind === 'date' ? until.date : '', count: until.kind === 'count' ? until.count : 10, leftOut: rule.leftOut, start: rule.start, minutes: rule.minutes,
  }
}
