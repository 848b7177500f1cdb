/** The demo's term and timetable: two hours a week for each section, no two in one room. */
import { addDays, instantOf, mondayOf, notTeaching, wallOf, weeksOf, type Term } from '~~/core/term/calendar'
import { clashesWith, type Span } from '~~/core/timetable/clash'
import { Chance } from './chance'
import { rooms, zone, type DemoRoom } from './college'

/** A term whose teaching week 6 is the week of `today`. */
export function termAround(today: string): Term {
  const monday = mondayOf(today)
  const from = addDays(monday, -35)
  const season = ['Winter', 'Winter', 'Spring', 'Spring', 'Spring', 'Summer', 'Summer', 'Summer', 'Autumn', 'Autumn', 'Autumn', 'Winter'][Number(from.slice(5, 7)) - 1]
  return {
    name: `${season} ${from.slice(0, 4)}`, zone, teachingFrom: from, teachingTo: addDays(monday, 7 * 7 + 4),
    spans: [
      { kind: 'reading', from: addDays(monday, 7), to: addDays(monday, 13), label: 'Reading' },
      { kind: 'holiday', from: addDays(monday, 25), to: addDays(monday, 25), label: 'Founders’ day' },
      { kind: 'exams', from: addDays(monday, 56), to: addDays(monday, 67), label: 'Exams' },
    ],
  }
}

/** The moment at which the demo opens: Wednesday of this week, shortly before ten. */
export function opening(real: number): { today: string, instant: number } {
  const today = addDays(mondayOf(wallOf(zone, real).date), 2)
  return { today, instant: instantOf(zone, today, '09:57') }
}

export interface Slot { weekday: number, start: string, minutes: number, room: DemoRoom }
export interface DemoSection { code: string, course: string, number: string, people: number }

const starts = ['09:00', '10:00', '11:00', '12:00', '13:00', '14:00', '15:00', '16:00']

/** Two weekly slots for each section, in the smallest room that seats it; large sections choose first. */
export function slotsFor(sections: DemoSection[]): Map<string, Slot[]> {
  const chance = new Chance(7)
  const taken = new Map<string, Span[]>()
  const slots = new Map<string, Slot[]>()
  for (const section of [...sections].sort((a, b) => b.people - a.people)) {
    const mine: Slot[] = []
    const lengths = [50, chance.of([50, 50, 50, 110])]
    // One course is pinned to what its pictures and tests speak of.
    if (section.code === 'HYD-210/01') add(mine, taken, { weekday: 3, start: '10:00', minutes: 50, room: rooms[0]! })
    const tries = chance.shuffled([1, 2, 3, 4, 5].flatMap((weekday) => starts.map((start) => ({ weekday, start }))))
    for (const { weekday, start } of tries) {
      if (mine.length === 2) break
      if (mine.some((s) => s.weekday === weekday)) continue
      const minutes = lengths[mine.length]!
      const fitting = rooms.filter((r) => r.seats >= section.people).sort((a, b) => a.seats - b.seats).slice(0, 3)
      fitting.some((room) => add(mine, taken, { weekday, start, minutes, room }))
    }
    slots.set(section.code, mine)
  }
  return slots
}

function add(mine: Slot[], taken: Map<string, Span[]>, slot: Slot): boolean {
  const [h = 0, m = 0] = slot.start.split(':').map(Number)
  const start = (h * 60 + m) * 60_000
  const span = { start, end: start + slot.minutes * 60_000 }
  if (span.end > 18 * 3600_000) return false
  const key = `${slot.room.name} ${slot.weekday}`
  const others = taken.get(key) ?? []
  if (clashesWith(span, others, slot.room.turnaround).length) return false
  taken.set(key, [...others, span])
  mine.push(slot)
  return true
}

export interface DemoDate { date: string, start: number, end: number, slot: Slot, week: number, off: string | undefined }

/** The dates of a section's slots through the term, in order; `off` names why a date is left out. */
export function datesOf(term: Term, slots: Slot[]): DemoDate[] {
  return weeksOf(term).filter((w) => w.number !== null).flatMap((week) => slots.map((slot) => {
    const date = addDays(week.monday, slot.weekday - 1)
    const start = instantOf(term.zone, date, slot.start)
    return { date, start, end: start + slot.minutes * 60_000, slot, week: week.number!, off: notTeaching(term, date) }
  })).sort((a, b) => a.start - b.start)
}
