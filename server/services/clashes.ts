/** What stands in the way of wanted plans, in words, with ways out. */
import { QueryTypes, type Transaction } from 'sequelize'
import { wallOf, type Term } from '~~/core/term/calendar'
import { dateSentence } from '~~/core/term/words'
import { datesOf } from '~~/core/timetable/rule'
import { clashesOf, occurrencesOf, type Clash, type Occurrence, type Standing, type Wanted } from '~~/core/timetable/wanted'
import { groupsOf, needOf, occupancyOf, waysOut, type Campus } from '~~/core/timetable/ways-out'
import type { ClashGroup, DateView, PlanPreview } from '~~/shared/timetable/views'
import { campusNow } from '../adapters/clock'
import { database } from '../models/database'
import { campusHours, roomFacts, sectionChoices } from './choices'

export interface NamedStanding extends Standing { section: string, presenter: string, room: string }

const HALF_DAY_MS = 12 * 3600_000

/** Captures that hold their rooms between two instants. @param without ids that do not count, being about to change */
export async function standingBetween(from: number, to: number, without: readonly string[] = [], transaction?: Transaction): Promise<NamedStanding[]> {
  const rows = await database.query<Omit<NamedStanding, 'start' | 'end'> & { start: Date, end: Date }>(`
    SELECT c.id, c.room_id AS "roomId", c.presenter_id AS "presenterId", c.starts_at AS start, c.ends_at AS end,
      co.code || '/' || s.number AS section, p.name AS presenter, r.name AS room
    FROM captures c JOIN sections s ON s.id = c.section_id JOIN courses co ON co.id = s.course_id JOIN people p ON p.id = c.presenter_id JOIN rooms r ON r.id = c.room_id
    WHERE c.starts_at > $from AND c.starts_at < $to AND c.state NOT IN ('left_out', 'cancelled') AND NOT c.id = ANY($without::uuid[])`,
  { bind: { from: new Date(from - HALF_DAY_MS), to: new Date(to + HALF_DAY_MS), without }, type: QueryTypes.SELECT, transaction })
  return rows.map((r) => ({ ...r, start: r.start.getTime(), end: r.end.getTime() }))
}

/** The campus as ways out are reckoned for it. */
export async function campusOf(termId: string, term: Term): Promise<Campus> {
  const people = new Map((await sectionChoices(termId, null)).map((s) => [s.id, s.people]))
  return { rooms: await roomFacts(), hours: await campusHours(), term, now: campusNow(), seatsOf: (wanted) => people.get(wanted.sectionId) ?? 0 }
}

export interface Examined {
  occurrences: Occurrence[]
  standing: NamedStanding[]
  clashes: ClashGroup[]
  warnings: string[]
}

/** How a wanted plan is called in sentences. */
export type NameOf = (wanted: Wanted) => { section: string, presenter: string }

/** Everything about wanted plans that has to be known before they are written. */
export async function examine(plans: readonly Wanted[], campus: Campus, nameOf: NameOf, without: readonly string[] = []): Promise<Examined> {
  const occurrences = occurrencesOf(plans, campus.term, campus.now)
  if (!occurrences.length) return { occurrences, standing: [], clashes: [], warnings: [] }
  let from = Infinity
  let to = -Infinity
  for (const o of occurrences) {
    from = Math.min(from, o.start)
    to = Math.max(to, o.end)
  }
  const standing = await standingBetween(from, to, without)
  const turnaround = new Map(campus.rooms.map((r) => [r.id, r.turnaroundMinutes]))
  const found = clashesOf(occurrences, standing, turnaround)
  const groups = groupsOf(found.rooms.map((c) => c.at))
  const taken = occupancyOf(campus, standing, occurrences, new Set(groups.flatMap((g) => g.dates)))
  const counts = new Map<number, number>()
  for (const o of occurrences) counts.set(o.plan, (counts.get(o.plan) ?? 0) + 1)
  const byPlan = new Map<number, Clash[]>()
  for (const c of found.rooms) byPlan.set(c.at.plan, [...(byPlan.get(c.at.plan) ?? []), c])
  const words = wordsFor(plans, campus, nameOf)
  const clashes = groups.map((group): ClashGroup => {
    const wanted = plans[group.plan]!
    const mine = byPlan.get(group.plan)!
    return {
      plan: group.plan, dates: group.dates.map((d) => d.date), sentence: words.clash(mine, wanted),
      with: mine.slice(0, 5).map((c) => words.other(c)),
      ways: waysOut(needOf(wanted, group, counts.get(group.plan)!, campus.seatsOf(wanted)), campus.rooms, taken, campus.hours, campus.term, campus.now),
    }
  })
  return { occurrences, standing, clashes, warnings: words.presenters(found.presenters) }
}

function wordsFor(plans: readonly Wanted[], campus: Campus, nameOf: NameOf) {
  const { zone } = campus.term
  const room = new Map(campus.rooms.map((r) => [r.id, r]))
  const at = (start: number, end: number) => `${dateSentence(wallOf(zone, start).date)} ${wallOf(zone, start).time}–${wallOf(zone, end).time}`
  const otherOf = (clash: Clash) => {
    if ('standing' in clash.with) {
      const s = clash.with.standing as NamedStanding
      return { captureId: s.id as string | null, who: `${s.section} with ${s.presenter}`, room: s.room, start: s.start, end: s.end }
    }
    const o = clash.with.occurrence
    const named = nameOf(plans[o.plan]!)
    return { captureId: null, who: `${named.section} with ${named.presenter}`, room: room.get(o.roomId)?.name ?? '', start: o.start, end: o.end }
  }
  return {
    other: (clash: Clash) => {
      const o = otherOf(clash)
      return { captureId: o.captureId, words: `${o.who}, ${at(o.start, o.end)}`, start: o.start }
    },
    clash: (clashes: Clash[], wanted: Wanted): string => {
      const [first] = clashes
      const facts = room.get(first!.at.roomId)
      const o = otherOf(first!)
      const rest = new Set(clashes.map((c) => c.at.date)).size - 1
      const turn = facts?.turnaroundMinutes ? `, and ${facts.turnaroundMinutes} min to turn the room around` : ''
      return `${facts?.name ?? 'The room'} is taken: ${o.who}, ${at(o.start, o.end)}${turn}.${rest ? ` ${rest} more ${rest === 1 ? 'date' : 'dates'} of ${nameOf(wanted).section} ${rest === 1 ? 'is' : 'are'} taken too.` : ''}`
    },
    /** One sentence a pair of people and section, not one a date. */
    presenters: (clashes: Clash[]): string[] => {
      const seen = new Map<string, { text: string, more: number }>()
      for (const c of clashes) {
        const o = otherOf(c)
        const key = `${c.at.plan} ${o.who} ${o.room}`
        const known = seen.get(key)
        if (known) known.more++
        else seen.set(key, { text: `${nameOf(plans[c.at.plan]!).presenter} is also in ${o.room} for ${o.who.split(' with ')[0]}, ${at(o.start, o.end)}`, more: 0 })
      }
      return [...seen.values()].map(({ text, more }) => `${text}${more ? `, and on ${more} more ${more === 1 ? 'date' : 'dates'}` : ''}.`)
    },
  }
}

/** One plan as its form shows it: every date, skipped ones with the reason. */
export function previewOf(wanted: Wanted, examined: Examined, term: Term): PlanPreview {
  const clashing = new Set(examined.clashes.flatMap((c) => c.dates))
  const made = new Map(examined.occurrences.map((o) => [o.date, o]))
  const dates = datesOf(wanted, term).map((d): DateView => {
    const o = made.get(d.date)
    return { date: d.date, week: d.week, start: o?.start ?? d.start, end: o?.end ?? d.end, roomId: o?.roomId ?? wanted.roomId, skipped: d.skipped || (o ? '' : 'over'), clash: clashing.has(d.date) }
  })
  return { dates, clashes: examined.clashes, warnings: examined.warnings }
}
