/** The plans of a past term as they would be in a new one, in the shape of an import. */
import { QueryTypes } from 'sequelize'
import type { Directory, Incoming, RowFault } from '~~/core/timetable/rows'
import { makesCaptures, rollOver } from '~~/core/timetable/roll-over'
import type { Rule } from '~~/core/timetable/rule'
import { database } from '../models/database'
import { termOf } from './term'

interface Row { id: string, section: string, roomId: string, room: string | null, presenterId: string, title: string, inputs: string[], weekdays: number[], start: string, minutes: number, weeks: Rule['weeks'], fromDay: string | null, until: Rule['until'], leftOut: string[] }

/** Sections are found again by course and number; rooms and people must still be there. */
export async function rolledOver(fromTermId: string, toTermId: string, directory: Directory): Promise<{ plans: Incoming[], faults: RowFault[] }> {
  const [{ term: from }, { term: to }] = await Promise.all([termOf(fromTermId), termOf(toTermId)])
  const rows = await database.query<Row>(`
    SELECT p.id, c.code || '/' || s.number AS section, p.room_id AS "roomId", r.name AS room, p.presenter_id AS "presenterId", p.title, p.inputs, p.weekdays, p.start, p.minutes, p.weeks,
      to_char(p.from_day, 'YYYY-MM-DD') AS "fromDay", p.until, to_jsonb(p.left_out) AS "leftOut"
    FROM capture_plans p JOIN sections s ON s.id = p.section_id JOIN courses c ON c.id = s.course_id LEFT JOIN rooms r ON r.id = p.room_id AND NOT r.retired
    WHERE p.term_id = $fromTermId AND NOT p.ended ORDER BY c.code, s.number, p.weekdays, p.start`, { bind: { fromTermId }, type: QueryTypes.SELECT })
  const sections = new Map(directory.sections.map((s) => [s.code, s]))
  const people = new Set(directory.people.map((p) => p.id))
  const plans: Incoming[] = []
  const faults: RowFault[] = []
  rows.forEach((row, i) => {
    const section = sections.get(row.section)
    const fault = (sentence: string) => faults.push({ row: 0, column: '', sentence: `${row.section}, ${row.start}: ${sentence}` })
    if (!section) return fault(`the new term has no section ${row.section}`)
    if (!row.room) return fault('its room is no longer there')
    const { rule, lost } = rollOver({ ...row, from: row.fromDay, }, from, to)
    if (!makesCaptures(rule, to)) return fault(lost[0] ?? 'it makes no capture in the new term')
    if (lost.length) fault(lost.join('; '))
    // Whoever teaches the section now presents; titles spoke of the old term's lectures.
    const presenterId = section.presenterId ?? (people.has(row.presenterId) ? row.presenterId : null)
    if (!presenterId) return fault('the section has no instructor yet')
    plans.push({ key: row.id, rows: [i + 1], wanted: { ...rule, sectionId: section.id, roomId: row.roomId, presenterId, title: '', inputs: row.inputs, exceptions: {} } })
  })
  return { plans, faults }
}
