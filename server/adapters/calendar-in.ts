/** iCalendar (RFC 5545) in: every occurrence of every event of a term as a row, as if it came from a table. */
import ICAL from 'ical.js'
import { instantOf, wallOf, type Term } from '~~/core/term/calendar'
import { Zone } from '~~/core/term/zone'
import { MOST_ROWS, Unreadable, type Table } from './csv'

const MOST_BYTES = 40 * 1024 ** 2
const DAY_MS = 24 * 3600_000

/**
 * @throws Unreadable for what is no calendar, a zone nobody knows, or more occurrences than rows are taken
 */
export function readCalendar(bytes: Uint8Array, name: string, term: Term): Table {
  if (bytes.length > MOST_BYTES) throw new Unreadable(`${name} is larger than 40 MB. A term’s timetable is smaller; nothing was read.`)
  const calendar = parsed(bytes, name)
  // Zones are looked up by their names; where a file brings its own table, that one is used.
  for (const zone of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(zone)
  try {
    const rows = rowsOf(calendar, name, term)
    return { columns: ['ID', 'Section', 'Title', 'Date', 'Start', 'End', 'Room', 'Presenter'], rows, encoding: 'UTF-8', delimiter: ',' }
  } finally {
    ICAL.TimezoneService.reset()
  }
}

function parsed(bytes: Uint8Array, name: string): ICAL.Component {
  const text = new TextDecoder().decode(bytes)
  if (!/^\uFEFF?\s*BEGIN:VCALENDAR/i.test(text)) throw new Unreadable(`${name} does not begin as a calendar (BEGIN:VCALENDAR). Export it again as iCalendar.`)
  try {
    return new ICAL.Component(ICAL.parse(text.replace(/^\uFEFF/, '')) as never)
  } catch (error) {
    throw new Unreadable(`${name} breaks off or is damaged: ${String((error as Error).message).slice(0, 120)}.`)
  }
}

function rowsOf(calendar: ICAL.Component, name: string, term: Term): Table['rows'] {
  const from = instantOf(term.zone, term.teachingFrom, '00:00')
  const to = instantOf(term.zone, term.teachingTo, '00:00') + DAY_MS
  const events = calendar.getAllSubcomponents('vevent').map((component) => new ICAL.Event(component))
  const masters = new Map(events.filter((e) => !e.isRecurrenceException()).map((e) => [e.uid, e]))
  for (const e of events) if (e.isRecurrenceException()) masters.get(e.uid)?.relateException(e)
  const rows: Table['rows'] = []
  let at = 1
  for (const event of events) {
    at++
    // An exception belongs to its series; one without a series stands alone.
    if (event.isRecurrenceException() && masters.has(event.uid)) continue
    if (!event.startDate || event.startDate.isDate || String(event.component.getFirstPropertyValue('status')).toUpperCase() === 'CANCELLED') continue
    for (const { item, start, end } of occurrences(event, from, to, name, term)) {
      if (rows.length >= MOST_ROWS) throw new Unreadable(`${name} makes more than ${MOST_ROWS.toLocaleString('en-GB')} occurrences. Split it into smaller files.`)
      rows.push({ row: at, cells: cellsOf(item, start, end, term) })
    }
  }
  if (at === 1) throw new Unreadable(`${name} holds no events.`)
  return rows
}

function* occurrences(event: ICAL.Event, from: number, to: number, name: string, term: Term): Generator<{ item: ICAL.Event, start: number, end: number }> {
  if (!event.isRecurring()) {
    const [start, end] = [instant(event.startDate, zoneOf(event), name, term), instant(event.endDate, zoneOf(event), name, term)]
    if (start >= from && start < to) yield { item: event, start, end }
    return
  }
  const steps = event.iterator()
  for (let i = 0; i < 4000; i++) {
    const next = steps.next()
    if (!next) return
    const details = event.getOccurrenceDetails(next)
    const start = instant(details.startDate, zoneOf(details.item), name, term)
    if (instant(next, zoneOf(event), name, term) >= to) return
    const cancelled = String(details.item.component.getFirstPropertyValue('status')).toUpperCase() === 'CANCELLED'
    if (start >= from && start < to && !cancelled) yield { item: details.item, start, end: instant(details.endDate, zoneOf(details.item), name, term) }
  }
}

/** The zone an event's start names, which the file need not explain. */
const zoneOf = (event: ICAL.Event): string | undefined => event.component.getFirstProperty('dtstart')?.getFirstParameter('tzid')

/** A calendar's time as an instant; a time of no zone is the campus's own. */
function instant(time: ICAL.Time, wanted: string | undefined, name: string, term: Term): number {
  if (time.zone && (time.zone.component || time.zone.tzid === 'UTC')) return time.toUnixTime() * 1000
  const wall = [`${time.year}-${two(time.month)}-${two(time.day)}`, `${two(time.hour)}:${two(time.minute)}`] as const
  if (!wanted) return instantOf(term.zone, ...wall)
  try {
    Zone.of(wanted)
  } catch {
    throw new Unreadable(`${name} speaks of the time zone “${wanted}”, which it does not explain and nobody knows. Export it with its zones, or in UTC.`)
  }
  return instantOf(wanted, ...wall)
}

const two = (n: number) => String(n).padStart(2, '0')

function cellsOf(item: ICAL.Event, start: number, end: number, term: Term): Record<string, string> {
  const [first = '', ...rest] = (item.summary ?? '').trim().split(/\s+/)
  const wall = wallOf(term.zone, start)
  const organizer = item.component.getFirstProperty('organizer')
  const cn = organizer?.getFirstParameter('cn')
  return {
    ID: item.uid, Section: first.replace(/[:,]$/, ''), Title: '', Date: wall.date, Start: wall.time, End: wallOf(term.zone, end).time,
    Room: item.location ?? '', Presenter: cn || String(organizer?.getFirstValue() ?? '').replace(/^mailto:/i, ''), Summary: rest.join(' '),
  }
}
