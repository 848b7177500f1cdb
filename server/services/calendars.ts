/** Timetables as calendars: a file to take along, or a private address that programs read again and again. */
import { Op, QueryTypes } from 'sequelize'
import type { Who } from '~~/core/access/decide'
import { seriesOf, type SeriesCapture, type SeriesPlan } from '~~/core/timetable/series'
import type { AskCalendar, CalendarAddressView, CalendarKind, NewCalendarAddress } from '~~/shared/timetable/calendars'
import { timetableText, type SectionSeries, type SingleEvent } from '../adapters/calendar'
import { campusNow } from '../adapters/clock'
import { CalendarAddress } from '../models/calendar-address'
import { database } from '../models/database'
import { Person } from '../models/person'
import { Room } from '../models/room'
import { ask, must, whoIs } from './access'
import { nothingHere } from './errors'
import { uidOf } from './recorders'
import { hashOf, newToken } from './secrets'
import { currentTerm } from './term'

type Signed = Extract<Who, { kind: 'person' }>

/** Whose calendar somebody may read. @throws Refusal 404 */
export function mustReadCalendar(who: Signed, { kind, id }: AskCalendar): void {
  if (kind === 'person') {
    if (id !== who.id) must(ask(who, 'plan', { kind: 'house' }))
  } else if (kind === 'section') must(ask(who, 'browse', { kind: 'section', sectionId: id }))
  else must(ask(who, 'plan', { kind: 'house' }))
}

interface Row { id: string, planId: string | null, planDate: string, start: Date, end: Date, room: string, presenter: string, title: string, state: string, revision: number, section: string, planRoom: string, planPresenter: string, planTitle: string, planStart: string, planMinutes: number }

const where: Record<CalendarKind, string> = {
  room: 'c.room_id = $id',
  section: 'c.section_id = $id',
  // Whoever presents, and whoever is on a class list, each for what concerns them.
  person: '(c.presenter_id = $id OR c.section_id IN (SELECT section_id FROM class_list WHERE person_id = $id))',
}

/** The calendar of a room, section or person: the current term's captures and all later ones. */
export async function calendarText({ kind, id }: AskCalendar): Promise<{ name: string, text: string }> {
  const { term } = await currentTerm()
  const rows = await database.query<Row>(`
    SELECT c.id, c.plan_id AS "planId", to_char(c.plan_date, 'YYYY-MM-DD') AS "planDate", c.starts_at AS start, c.ends_at AS end, r.name AS room, p.name AS presenter, c.topic AS title, c.state, c.revision,
      k.code || '/' || s.number AS section, pr.name AS "planRoom", pp.name AS "planPresenter", cp.title AS "planTitle", cp.start AS "planStart", cp.minutes AS "planMinutes"
    FROM captures c JOIN sections s ON s.id = c.section_id JOIN courses k ON k.id = s.course_id JOIN rooms r ON r.id = c.room_id JOIN people p ON p.id = c.presenter_id
      LEFT JOIN capture_plans cp ON cp.id = c.plan_id LEFT JOIN rooms pr ON pr.id = cp.room_id LEFT JOIN people pp ON pp.id = cp.presenter_id
    WHERE ${where[kind]} AND c.starts_at > ($from::date - 1) ORDER BY c.starts_at`, { bind: { id, from: term.teachingFrom }, type: QueryTypes.SELECT })
  const plans = new Map<string, { plan: SeriesPlan, section: string, captures: SeriesCapture[] }>()
  const singles: SingleEvent[] = []
  for (const row of rows) {
    const cancelled = row.state === 'cancelled' || row.state === 'left_out'
    const own = { id: row.id, planDate: row.planDate, start: row.start.getTime(), end: row.end.getTime(), room: row.room, presenter: row.presenter, title: row.title, cancelled, revision: row.revision }
    if (!row.planId) {
      if (!cancelled) singles.push({ ...own, uid: uidOf(row.id), section: row.section })
      continue
    }
    const plan = plans.get(row.planId) ?? { plan: { id: row.planId, start: row.planStart, minutes: row.planMinutes, room: row.planRoom, presenter: row.planPresenter, title: row.planTitle }, section: row.section, captures: [] }
    plan.captures.push(own)
    plans.set(row.planId, plan)
  }
  const series = [...plans.values()].flatMap(({ plan, section, captures }): SectionSeries[] => {
    const found = seriesOf(plan, captures, term.zone)
    return found ? [{ ...found, uid: `${plan.id}@plan.karstland`, section }] : []
  })
  const name = await nameOf(kind, id)
  return { name, text: timetableText(`${name} captures`, term.zone, series, singles, campusNow()) }
}

async function nameOf(kind: CalendarKind, id: string): Promise<string> {
  if (kind === 'room') return (await Room.findByPk(id))?.name ?? 'Room'
  if (kind === 'person') return (await Person.findByPk(id))?.name ?? 'Person'
  const [section] = await database.query<{ code: string }>(`SELECT c.code || '/' || s.number AS code FROM sections s JOIN courses c ON c.id = s.course_id WHERE s.id = $id`, { bind: { id }, type: QueryTypes.SELECT })
  return section?.code ?? 'Section'
}

/** Makes a private address. Whoever has it may read this calendar until it is revoked. */
export async function makeAddress(wish: AskCalendar, ownerId: string, origin: string): Promise<NewCalendarAddress> {
  const token = newToken()
  const name = await nameOf(wish.kind, wish.id)
  const made = await CalendarAddress.create({ tokenHash: hashOf(token), kind: wish.kind, subjectId: wish.id, ownerId, madeAt: new Date() })
  return { id: made.id, kind: made.kind, name, madeAt: made.madeAt.getTime(), readAt: null, address: `${origin}/calendar/${token}.ics` }
}

export async function myAddresses(ownerId: string): Promise<CalendarAddressView[]> {
  const all = await CalendarAddress.findAll({ where: { ownerId, revokedAt: null }, order: [['madeAt', 'DESC']], raw: true })
  return Promise.all(all.map(async (a) => ({ id: a.id, kind: a.kind, name: await nameOf(a.kind, a.subjectId), madeAt: a.madeAt.getTime(), readAt: a.readAt?.getTime() ?? null })))
}

/** @throws Refusal 404 for an address that is not theirs */
export async function revokeAddress(id: string, ownerId: string): Promise<void> {
  const [revoked] = await CalendarAddress.update({ revokedAt: new Date() }, { where: { id, ownerId, revokedAt: null } })
  if (!revoked) throw nothingHere()
}

/**
 * What a calendar program gets. The owner must still be allowed to read it: an address is no way around access.
 * @throws Refusal 404 for an unknown or revoked address
 */
export async function readAddress(token: string): Promise<string> {
  const found = await CalendarAddress.findOne({ where: { tokenHash: hashOf(token), revokedAt: { [Op.is]: null } } })
  const who = found && await whoIs(found.ownerId)
  if (!found || who?.kind !== 'person') throw nothingHere()
  const wish = { kind: found.kind, id: found.subjectId }
  mustReadCalendar(who, wish)
  await found.update({ readAt: new Date() })
  return (await calendarText(wish)).text
}
