/** Times, lengths and places as people read them. */
import { wallOf } from '~~/core/term/calendar'
import { dateSentence } from '~~/core/term/words'

/** `Wed 11 Nov` */
export const dateWords = dateSentence

/** `Wed 11 Nov 10:00` in the campus zone */
export function momentWords(zone: string, instant: number): string {
  const { date, time } = wallOf(zone, instant)
  return `${dateWords(date)} ${time}`
}

/** `52:10`, `1:02:10` */
export function clockLength(seconds: number | null): string {
  if (seconds === null) return ''
  const s = Math.round(seconds)
  const two = (n: number) => String(n).padStart(2, '0')
  const hours = Math.floor(s / 3600)
  return hours ? `${hours}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}` : `${two(Math.floor(s / 60))}:${two(s % 60)}`
}

export const plural = (n: number, one: string, many = `${one}s`): string => `${n.toLocaleString('en-GB').replace(/,/g, ' ')} ${n === 1 ? one : many}`

/** The part of a page's address that tells it from others. */
export const pageWords = (url: string): string => url.replace(/^https?:\/\//, '')
