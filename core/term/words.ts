/** Dates as people read them, the same on screen, in mail and in reasons. */
import { weekdayNames } from './calendar'
import { dayOf, weekdayOfDay } from './days'

export const monthNames = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const

/** `Wed 11 Nov` */
export function dateSentence(date: string): string {
  return `${weekdayNames[weekdayOfDay(dayOf(date)) - 1]} ${Number(date.slice(8, 10))} ${monthNames[Number(date.slice(5, 7)) - 1]}`
}
