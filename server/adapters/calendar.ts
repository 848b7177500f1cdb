/** iCalendar (RFC 5545) out: a recorder's plan as any calendar program reads it. */
import ICAL from 'ical.js'

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
  const calendar = new ICAL.Component(['vcalendar', [], []])
  calendar.addPropertyWithValue('version', '2.0')
  calendar.addPropertyWithValue('prodid', '-//Karstland//Capture plan//EN')
  calendar.addPropertyWithValue('name', name)
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
