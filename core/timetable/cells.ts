/** Cells of a timetable as people write them: times, weekdays, weeks and dates, in the shapes that registries print. */
import { dayOf } from '../term/days'

/** A cell that cannot be understood, in words that complete “the cell …”. */
export class NotUnderstood extends Error {}

/** `9:00`, `09.00`, `0900`, `9am`, `2:30 pm` → `HH:MM`. @throws NotUnderstood */
export function timeIn(text: string): string {
  const match = /^(\d{1,2})(?:[:.h]?(\d{2}))?(?:[:.]\d{2})?\s*(am|pm)?$/i.exec(text.trim())
  let hours = Number(match?.[1])
  const minutes = Number(match?.[2] ?? 0)
  const half = match?.[3]?.toLowerCase()
  if (half === 'pm' && hours < 12) hours += 12
  if (half === 'am' && hours === 12) hours = 0
  if (!match || hours > 23 || minutes > 59) throw new NotUnderstood(`“${text}” is not a time; write it as 14:00`)
  return `${String(hours).padStart(2, '0')}:${String(minutes).padStart(2, '0')}`
}

const names: [RegExp, number][] = [
  [/^m(o(n(day)?)?)?$/, 1], [/^t(u(e(s(day)?)?)?)?$/, 2], [/^w(e(d(nesday)?)?)?$/, 3], [/^(th(u(r(s(day)?)?)?)?|r)$/, 4], [/^f(r(i(day)?)?)?$/, 5], [/^sa(t(urday)?)?$/, 6], [/^su(n(day)?)?$/, 7],
]

/** `Mon`, `Monday, Wednesday`, `Tu/Th`, `MWF`, `1 3` → weekdays ascending. @throws NotUnderstood */
export function weekdaysIn(text: string): number[] {
  const parts = text.trim().toLowerCase().split(/[\s,;/&+]+|and/).filter(Boolean)
  const spread = parts.length === 1 && /^[mtwrfu]{2,}$/.test(parts[0]!) && !names.some(([name]) => name.test(parts[0]!)) ? [...parts[0]!] : parts
  const days = spread.map((part) => {
    const found = /^[1-7]$/.test(part) ? Number(part) : names.find(([name]) => name.test(part))?.[1]
    if (!found) throw new NotUnderstood(`“${text}” is not a weekday; write Mon, Tue, Wed …`)
    return found
  })
  if (!days.length) throw new NotUnderstood('is empty; write Mon, Tue, Wed …')
  return [...new Set(days)].sort((a, b) => a - b)
}

export type WeeksCell = { kind: 'every' } | { kind: 'alternate', parity: 'odd' | 'even' } | { kind: 'chosen', numbers: number[] }

/** Empty, `all`, `odd`, `1-5, 7`, `weeks 2 to 11` → weeks. @throws NotUnderstood */
export function weeksIn(text: string): WeeksCell {
  const cell = text.trim().toLowerCase().replace(/^(teaching )?w(ee)?ks?\.?\s*/, '')
  if (cell === '' || cell === 'all' || cell === 'every') return { kind: 'every' }
  if (cell === 'odd' || cell === 'even') return { kind: 'alternate', parity: cell }
  const numbers = cell.split(/[,;]|\band\b/).map((p) => p.trim()).filter(Boolean).flatMap((part) => {
    const range = /^(\d{1,2})(?:\s*(?:-|–|to)\s*(\d{1,2}))?$/.exec(part)
    const [from, to] = [Number(range?.[1]), Number(range?.[2] ?? range?.[1])]
    if (!range || to < from || from < 1) throw new NotUnderstood(`“${text}” is not a list of weeks; write 1-5, 7`)
    return Array.from({ length: to - from + 1 }, (_, i) => from + i)
  })
  return { kind: 'chosen', numbers: [...new Set(numbers)].sort((a, b) => a - b) }
}

export type DateOrder = 'dmy' | 'mdy'
const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

/** `2026-10-05`, `5/10/2026`, `05.10.26`, `5 Oct 2026`, `Mon 5 October 2026` → ISO. @throws NotUnderstood */
export function dateIn(text: string, order: DateOrder): string {
  const cell = text.trim().replace(/^[a-z]{3,9},?\s+(?=\d)/i, '')
  const iso = /^(\d{4})-(\d\d)-(\d\d)(?:[T ].*)?$/.exec(cell)
  const figures = /^(\d{1,2})[./-](\d{1,2})[./-](\d{2}|\d{4})$/.exec(cell)
  const word = /^(\d{1,2})[ -]([a-z]{3})[a-z]*\.?[ -](\d{2}|\d{4})$/i.exec(cell)
  const year = (y: string) => (y.length === 2 ? `20${y}` : y)
  const two = (n: string | number) => String(n).padStart(2, '0')
  let date = ''
  if (iso) date = `${iso[1]}-${iso[2]}-${iso[3]}`
  else if (figures) date = order === 'dmy' ? `${year(figures[3]!)}-${two(figures[2]!)}-${two(figures[1]!)}` : `${year(figures[3]!)}-${two(figures[1]!)}-${two(figures[2]!)}`
  else if (word && months.includes(word[2]!.toLowerCase())) date = `${year(word[3]!)}-${two(months.indexOf(word[2]!.toLowerCase()) + 1)}-${two(word[1]!)}`
  try {
    dayOf(date)
    return date
  } catch {
    throw new NotUnderstood(`“${text}” is not a day; write 2026-10-05 or ${order === 'dmy' ? '5/10/2026' : '10/5/2026'}`)
  }
}

/** Names folded for comparing: case, accents and the signs between words do not count. */
export const folded = (text: string): string => text.normalize('NFKD').replace(/[\u0300-\u036F]/g, '').toLowerCase().replace(/[^a-z0-9]+/g, ' ').trim()
