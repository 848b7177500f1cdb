/** What instructors may plan by themselves. Beyond it, planning becomes a request to the team; the reasons say why. */
import type { Term } from '../term/calendar'
import { minutesOf } from '../term/days'
import { dateSentence } from '../term/words'
import { Zone } from '../term/zone'

export interface InstructorRules {
  /** wall times between which instructors may plan, and how many days ahead at most */
  from: string
  to: string
  daysAhead: number
}

/** A capture as it is wished for. */
export interface Wished { roomId: string, start: number, end: number }
export interface RoomRule { id: string, name: string, openToInstructors: boolean }

const DAY_MS = 24 * 3600_000

/**
 * Why captures go beyond what an instructor may plan alone; empty when they do not. One reason each
 * for rooms, hours and days ahead, however many captures there are.
 * @param now campus time, ms
 */
export function beyondRules(wished: readonly Wished[], rules: InstructorRules, rooms: readonly RoomRule[], term: Term, now: number): string[] {
  const zone = Zone.of(term.zone)
  const reasons: string[] = []
  const asked = new Set(wished.map((w) => w.roomId))
  const closed = rooms.filter((r) => asked.has(r.id) && !r.openToInstructors).map((r) => r.name)
  if (closed.length) reasons.push(`${closed.join(', ')} ${closed.length === 1 ? 'is' : 'are'} planned by the team.`)
  const [low, high] = [minutesOf(rules.from), minutesOf(rules.to)]
  const outside = wished.find((w) => {
    const from = minutesOf(zone.wall(w.start).time)
    return from < low || from + (w.end - w.start) / 60_000 > high
  })
  if (outside) reasons.push(`Instructors plan between ${rules.from} and ${rules.to}.`)
  // The last day is theirs until its end.
  const lastDay = zone.wall(now + rules.daysAhead * DAY_MS).date
  if (wished.some((w) => zone.wall(w.start).date > lastDay)) reasons.push(`Instructors plan at most ${rules.daysAhead} days ahead, until ${dateSentence(lastDay)}.`)
  return reasons
}
