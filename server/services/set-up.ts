/** Set-up: terms with their spans, rooms, and what the team settles for everybody. */
import { ExclusionConstraintError, QueryTypes, UniqueConstraintError } from 'sequelize'
import { weeksOf, type Term as TermShape } from '~~/core/term/calendar'
import { dayOf } from '~~/core/term/days'
import { Zone } from '~~/core/term/zone'
import { dateSentence } from '~~/core/term/words'
import type { InputKind } from '~~/shared/inputs'
import type { SaveRoom, SaveRules, SaveTerm } from '~~/shared/set-up/changes'
import type { RoomSetUp, TermSetUp } from '~~/shared/set-up/views'
import { campusNow } from '../adapters/clock'
import { CampusSettings } from '../models/campus-settings'
import { database } from '../models/database'
import { Room } from '../models/room'
import { Term } from '../models/term'
import { TermSpan } from '../models/term-span'
import { record } from './audit'
import { nothingHere } from "./errors"
import { tell } from './live'
import { wrong } from './planning'
import { termChoices, termOf } from './term'

export async function termsSetUp(): Promise<TermSetUp[]> {
  const counts = await database.query<{ id: string, sections: number, captures: number }>(`
    SELECT t.id, count(DISTINCT s.id) AS sections, count(c.id) AS captures FROM terms t LEFT JOIN sections s ON s.term_id = t.id LEFT JOIN captures c ON c.section_id = s.id GROUP BY t.id`, { type: QueryTypes.SELECT })
  const countOf = new Map(counts.map((c) => [c.id, c]))
  return Promise.all((await termChoices()).map(async ({ id, current }) => {
    const { term } = await termOf(id)
    const { sections = 0, captures = 0 } = countOf.get(id) ?? {}
    return { id, term, weeks: weeksOf(term), sections, captures, current }
  }))
}

/** Refuses what is no term. @throws Refusal 422 with `fields` */
function refuseUnfit(wish: SaveTerm): TermShape {
  try {
    Zone.of(wish.zone)
  } catch {
    throw wrong('zone', `There is no time zone “${wish.zone}”. Write it as Europe/London.`)
  }
  for (const [field, date] of [['teachingFrom', wish.teachingFrom], ['teachingTo', wish.teachingTo]] as const) {
    if (!isDay(date)) throw wrong(field, 'There is no such day in the calendar.')
  }
  if (wish.teachingTo < wish.teachingFrom) throw wrong('teachingTo', `Teaching ends before it starts: it starts on ${dateSentence(wish.teachingFrom)}.`)
  if (dayOf(wish.teachingTo) - dayOf(wish.teachingFrom) > 400) throw wrong('teachingTo', 'A term has at most 400 days.')
  for (const span of wish.spans) {
    if (![span.from, span.to].every(isDay)) throw wrong('spans', `${span.label}: there is no such day in the calendar.`)
    if (span.to < span.from) throw wrong('spans', `${span.label} ends before it starts.`)
    if (span.to < wish.teachingFrom || dayOf(span.from) - dayOf(wish.teachingTo) > 60) throw wrong('spans', `${span.label}, from ${dateSentence(span.from)}, lies outside this term.`)
  }
  const term: TermShape = { name: wish.name.trim(), zone: wish.zone, teachingFrom: wish.teachingFrom, teachingTo: wish.teachingTo, spans: wish.spans }
  if (!weeksOf(term).some((w) => w.number !== null)) throw wrong('spans', 'No week of teaching is left between these days.')
  return term
}

const isDay = (date: string) => {
  try {
    return dayOf(date) !== undefined
  } catch {
    return false
  }
}

/**
 * Saves a term with its spans. Captures that fall on days that are no longer taught are named, not moved.
 * @throws Refusal 404, 422 for what is no term, 409 for one that overlaps another
 */
export async function saveTerm(wish: SaveTerm, actorId: string): Promise<{ id: string, sentence: string }> {
  const shape = refuseUnfit(wish)
  try {
    return await database.transaction(async (transaction) => {
      const row = { name: shape.name, zone: shape.zone, teachingFrom: shape.teachingFrom, teachingTo: shape.teachingTo }
      const found = wish.id ? await Term.findByPk(wish.id, { transaction, lock: true }) : null
      if (wish.id && !found) throw nothingHere()
      const term = found ? await found.update(row, { transaction }) : await Term.create(row, { transaction })
      await TermSpan.destroy({ where: { termId: term.id }, transaction })
      await TermSpan.bulkCreate(shape.spans.map((s) => ({ termId: term.id, kind: s.kind, fromDay: s.from, toDay: s.to, label: s.label.trim() })), { transaction, returning: false })
      await record(transaction, actorId, 'set up', term.id, { term: row })
      await tell({ topic: 'timetable', sectionIds: null }, transaction)
      const [lost] = await database.query<{ n: number }>(`
        SELECT count(*) AS n FROM captures c JOIN sections s ON s.id = c.section_id JOIN terms t ON t.id = s.term_id
        WHERE t.id = $id AND c.starts_at > $now AND c.state IN ('planned', 'armed') AND (
          (c.starts_at AT TIME ZONE t.zone)::date NOT BETWEEN t.teaching_from AND t.teaching_to OR EXISTS (SELECT 1 FROM term_spans x WHERE x.term_id = t.id AND (c.starts_at AT TIME ZONE t.zone)::date BETWEEN x.from_day AND x.to_day))`,
      { bind: { id: term.id, now: new Date(campusNow()) }, type: QueryTypes.SELECT, transaction })
      const n = lost?.n ?? 0
      return { id: term.id, sentence: `${shape.name} is saved.${n ? ` ${n} planned ${n === 1 ? 'capture falls' : 'captures fall'} on days without teaching now; look at them in Timetable.` : ''}` }
    })
  } catch (error) {
    if (error instanceof UniqueConstraintError) throw wrong('name', 'Another term has this name.')
    if (error instanceof ExclusionConstraintError) throw wrong('teachingFrom', 'These days overlap with another term. Terms do not share days.')
    throw error
  }
}

export async function roomsSetUp(): Promise<RoomSetUp[]> {
  const rows = await database.query<RoomSetUp>(`
    SELECT r.id, r.name, r.building, r.seats, r.inputs, r.turnaround_minutes AS "turnaroundMinutes", r.open_to_instructors AS "openToInstructors", r.retired, x.name AS recorder,
      (SELECT count(*) FROM captures c WHERE c.room_id = r.id AND c.starts_at > $now AND c.state IN ('planned', 'armed')) AS ahead
    FROM rooms r LEFT JOIN recorders x ON x.room_id = r.id ORDER BY r.retired, r.building, r.name`, { bind: { now: new Date(campusNow()) }, type: QueryTypes.SELECT })
  return rows
}

/** @throws Refusal 404, 409 when captures to come need what the room would no longer have, 422 */
export async function saveRoom(wish: SaveRoom, actorId: string): Promise<{ id: string, sentence: string }> {
  try {
    return await database.transaction(async (transaction) => {
      const row = { name: wish.name.trim(), building: wish.building.trim(), seats: wish.seats, inputs: wish.inputs, turnaroundMinutes: wish.turnaroundMinutes, openToInstructors: wish.openToInstructors, retired: wish.retired }
      const found = wish.id ? await Room.findByPk(wish.id, { transaction, lock: true }) : null
      if (wish.id && !found) throw nothingHere()
      if (found) await refuseIfNeeded(found.id, wish)
      const room = found ? await found.update(row, { transaction }) : await Room.create(row, { transaction })
      // The room's own time follows its turnaround; two captures that no longer fit are refused here.
      if (found) await database.query(`UPDATE captures SET ends_at = ends_at WHERE room_id = $id AND starts_at > $now AND state IN ('planned', 'armed')`, { bind: { id: room.id, now: new Date(campusNow()) }, transaction })
      await record(transaction, actorId, 'set up', room.id, { room: row })
      await tell({ topic: 'timetable', sectionIds: null }, transaction)
      return { id: room.id, sentence: `${room.name} is saved.` }
    })
  } catch (error) {
    if (error instanceof UniqueConstraintError) throw wrong('name', 'Another room has this name.')
    if (error instanceof ExclusionConstraintError) throw wrong('turnaroundMinutes', 'Some captures in this room lie closer together than that. Move them first.')
    throw error
  }
}

async function refuseIfNeeded(roomId: string, wish: SaveRoom): Promise<void> {
  const [needed] = await database.query<{ n: number, lacking: number }>(`
    SELECT count(*) AS n, count(*) FILTER (WHERE NOT c.inputs <@ $inputs::text[]) AS lacking FROM captures c WHERE c.room_id = $roomId AND c.starts_at > $now AND c.state IN ('planned', 'armed')`,
  { bind: { roomId, inputs: wish.inputs as InputKind[], now: new Date(campusNow()) }, type: QueryTypes.SELECT })
  if (wish.retired && needed!.n) throw wrong('retired', `${needed!.n} captures are still to come in this room. Move or cancel them first.`)
  if (needed!.lacking) throw wrong('inputs', `${needed!.lacking} captures to come take in something that would be gone. Change them first.`)
}

/** @throws Refusal 422 when a day would end before it begins */
export async function saveRules(wish: SaveRules): Promise<{ sentence: string }> {
  if (wish.closes <= wish.opens) throw wrong('closes', 'The campus closes after it opens.')
  if (wish.instructorsTo <= wish.instructorsFrom) throw wrong('instructorsTo', 'This ends before it begins.')
  await CampusSettings.update({ ...wish, usualStarts: [...wish.usualStarts].sort((a, b) => a - b) }, { where: { theOne: true } })
  await tell({ topic: 'timetable', sectionIds: null })
  return { sentence: 'Saved. New plans follow it from now on.' }
}

