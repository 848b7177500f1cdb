import { describe, expect, it } from 'vitest'
import { placeOf, weeksOf } from '~~/core/term/calendar'
import { clashesWith } from '~~/core/timetable/clash'
import { courses, rooms, students } from './college'
import { datesOf, opening, slotsFor, termAround, type DemoSection } from './timetable'

const sections: DemoSection[] = courses.flatMap(([course, , sizes]) => sizes.map((people, i) => ({ code: `${course}/0${i + 1}`, course, number: `0${i + 1}`, people })))

describe('the demo', () => {
  it('has the college’s size', () => {
    expect(rooms).toHaveLength(11)
    expect(sections).toHaveLength(40)
    const people = students()
    expect(new Set(people.map((p) => p.email)).size).toBe(900)
  })

  it.each(['2026-01-01', '2026-03-29', '2026-11-23', '2027-07-04'])('opens in teaching week 6 of a twelve-week term on %s', (day) => {
    const { today } = opening(Date.parse(`${day}T12:00:00Z`))
    const term = termAround(today)
    expect(placeOf(term, today).week?.number).toBe(6)
    expect(weeksOf(term).filter((w) => w.number)).toHaveLength(12)
  })

  it('gives every section its hours and no room to two', () => {
    const slots = slotsFor(sections)
    const term = termAround('2026-11-25')
    const all = sections.flatMap((s) => datesOf(term, slots.get(s.code)!))
    for (const section of sections) expect(slots.get(section.code)!.length, section.code).toBe(2)
    for (const room of rooms) {
      const inRoom = all.filter((d) => d.slot.room === room)
      for (const one of inRoom) expect(clashesWith(one, inRoom, room.turnaround)).toEqual([one])
    }
  })
})
