/** iCalendar (RFC 5545) out: a recorder's plan, and timetables as any calendar program reads them. */
import ICAL from 'ical.js'
import { Zone } from '~~/core/term/zone'
import { rruleText } from '~~/core/timetable/recurrence'
import { yearAround, type EventFacts, type Series } from '~~/core/timetable/series'

// The library counts the blank that begins a folded line on top; the standard wants 75 octets with it.
ICAL.foldLength = 74

export interface CalendarEvent {
  uid: string
  start: number
  end: number
  /** rises by one with each change of the event */
  sequence: number
  summary: string
  location: string
  categories: string[]
}

/** One VCALENDAR with an event each; times in UTC, so no zone is needed. */
export function calendarText(name: string, events: readonly CalendarEvent[], stamp: number): string {
  const calendar = begun(name)
  for (const event of events) {
    const component = new ICAL.Component('vevent')
    component.addPropertyWithValue('uid', event.uid)
    component.addPropertyWithValue('dtstamp', utc(stamp))
    component.addPropertyWithValue('dtstart', utc(event.start))
    component.addPropertyWithValue('dtend', utc(event.end))
    component.addPropertyWithValue('sequence', event.sequence)
    component.addPropertyWithValue('summary', event.summary)
    component.addPropertyWithValue('location', event.location)
    const categories = new ICAL.Property('categories')
    categories.setValues(event.categories)
    component.addProperty(categories)
    calendar.addSubcomponent(component)
  }
  return `${calendar.toString()}\r\n`
}

const utc = (instant: number) => ICAL.Time.fromJSDate(new Date(instant), true)

function begun(name: string): ICAL.Component {
  const calendar = new ICAL.Component(['vcalendar', [], []])
  calendar.addPropertyWithValue('version', '2.0')
  calendar.addPropertyWithValue('prodid', '-//Karstland//Capture plan//EN')
  calendar.addPropertyWithValue('name', name)
  return calendar
}

/** A capture that belongs to no plan. */
export interface SingleEvent extends EventFacts { uid: string, section: string, start: number, end: number, revision: number }
export interface SectionSeries extends Series { uid: string, section: string }

/**
 * A timetable: a recurring event for each plan, exceptions left out (EXDATE), dates that differ as
 * events of their own (RECURRENCE-ID), all in the campus's zone, whose changes are stated (VTIMEZONE).
 */
export function timetableText(name: string, zone: string, series: readonly SectionSeries[], singles: readonly SingleEvent[], stamp: number): string {
  const calendar = begun(name)
  calendar.addPropertyWithValue('x-wr-calname', name)
  // Programs ask again by themselves; more often than this is of no use.
  calendar.addProperty(new ICAL.Property(['refresh-interval', {}, 'duration', 'PT1H']))
  const instants = [...series.flatMap((s) => [s.first, s.last]), ...singles.map((s) => s.start)]
  if (instants.length) calendar.addSubcomponent(zoneComponent(zone, yearAround(instants)))
  for (const s of series) {
    const master = event(s.uid, stamp, s.revision, s.plan, s.section)
    master.addProperty(zoned('dtstart', zone, s.first))
    master.addProperty(zoned('dtend', zone, s.first + s.plan.minutes * 60_000))
    if (s.first !== s.last) master.addPropertyWithValue('rrule', ICAL.Recur.fromString(rruleText(s.recurrence, s.last)))
    for (const at of s.except) master.addProperty(zoned('exdate', zone, at))
    calendar.addSubcomponent(master)
    for (const { at, capture } of s.differing) {
      const own = event(s.uid, stamp, s.revision, capture, s.section)
      own.addProperty(zoned('recurrence-id', zone, at))
      own.addProperty(zoned('dtstart', zone, capture.start))
      own.addProperty(zoned('dtend', zone, capture.end))
      calendar.addSubcomponent(own)
    }
  }
  for (const s of singles) {
    const own = event(s.uid, stamp, s.revision, s, s.section)
    own.addProperty(zoned('dtstart', zone, s.start))
    own.addProperty(zoned('dtend', zone, s.end))
    calendar.addSubcomponent(own)
  }
  return `${calendar.toString()}\r\n`
}

function event(uid: string, stamp: number, sequence: number, { room, presenter, title }: EventFacts, section: string): ICAL.Component {
  const component = new ICAL.Component('vevent')
  component.addPropertyWithValue('uid', uid)
  component.addPropertyWithValue('dtstamp', utc(stamp))
  component.addPropertyWithValue('sequence', sequence)
  component.addPropertyWithValue('summary', title ? `${section}: ${title}` : section)
  component.addPropertyWithValue('location', room)
  component.addPropertyWithValue('description', `Captured lecture, ${presenter}`)
  return component
}

/** A property with the time on the wall and the zone it is meant in. */
function zoned(name: string, zone: string, instant: number): ICAL.Property {
  const { date, time } = Zone.of(zone).wall(instant)
  const property = new ICAL.Property(name)
  property.setValue(ICAL.Time.fromDateTimeString(`${date}T${time}:00`))
  property.setParameter('tzid', zone)
  return property
}

function offsetText(offset: number): string {
  const minutes = Math.abs(offset) / 60_000
  return `${offset < 0 ? '-' : '+'}${String(Math.floor(minutes / 60)).padStart(2, '0')}${String(Math.round(minutes % 60)).padStart(2, '0')}`
}

/** The zone's changes in a span, each stated once: rules of zones change, and a term is short. */
function zoneComponent(name: string, span: { from: number, to: number }): ICAL.Component {
  const component = new ICAL.Component('vtimezone')
  component.addPropertyWithValue('tzid', name)
  const zone = Zone.of(name)
  const changes = zone.changesBetween(span.from, span.to)
  const first = zone.offsetAt(span.from)
  const all = [{ at: span.from, before: first, after: first }, ...changes]
  const lowest = Math.min(...all.map((c) => c.after))
  for (const { at, before, after } of all) {
    const part = new ICAL.Component(after > lowest ? 'daylight' : 'standard')
    // The onset is written as the wall clock showed it just before.
    part.addPropertyWithValue('dtstart', ICAL.Time.fromDateTimeString(new Date(at + before).toISOString().slice(0, 19)))
    part.addPropertyWithValue('tzoffsetfrom', ICAL.UtcOffset.fromString(`${offsetText(before).slice(0, 3)}:${offsetText(before).slice(3)}`))
    part.addPropertyWithValue('tzoffsetto', ICAL.UtcOffset.fromString(`${offsetText(after).slice(0, 3)}:${offsetText(after).slice(3)}`))
    component.addSubcomponent(part)
  }
  return component
}
