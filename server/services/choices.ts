/** What planning chooses from: sections, presenters, rooms, and the hours of the campus. */
import { QueryTypes } from 'sequelize'
import type { RoomFacts } from '~~/core/timetable/ways-out'
import type { InputKind } from '~~/shared/inputs'
import type { HoursView, PlanChoices, RoomView, SectionChoice } from '~~/shared/timetable/views'
import { database } from '../models/database'
import { CampusSettings } from '../models/campus-settings'
import { Person } from '../models/person'
import { Room } from '../models/room'
import { termOf } from './term'

/** @param sectionIds only these; null for all. @param termId the current term without one */
export async function planChoices(sectionIds: string[] | null, termId?: string): Promise<PlanChoices> {
  const { id } = await termOf(termId)
  const presenters = await Person.findAll({ where: { role: ['instructor', 'staff'], barred: false }, attributes: ['id', 'name'], order: ['name'], raw: true })
  return { termId: id, sections: await sectionChoices(id, sectionIds), presenters, rooms: await rooms(), hours: await campusHours() }
}

export async function sectionChoices(termId: string, sectionIds: string[] | null): Promise<SectionChoice[]> {
  return database.query<SectionChoice>(`
    SELECT s.id, c.code || '/' || s.number AS code, c.code AS course, c.title,
      count(*) FILTER (WHERE l.role = 'student') AS people,
      coalesce(array_agg(l.person_id) FILTER (WHERE l.role = 'instructor'), '{}') AS "presenterIds"
    FROM sections s JOIN courses c ON c.id = s.course_id LEFT JOIN class_list l ON l.section_id = s.id
    WHERE s.term_id = $termId AND (($all AND s.practice_of IS NULL) OR s.id = ANY($mine::uuid[])) GROUP BY s.id, c.code, c.title ORDER BY c.code, s.number`,
  { bind: { termId, all: sectionIds === null, mine: sectionIds ?? [] }, type: QueryTypes.SELECT })
}

/** All rooms in use, the largest first. */
export async function rooms(): Promise<RoomView[]> {
  const found = await Room.findAll({ where: { retired: false }, order: [['seats', 'DESC'], 'name'], raw: true })
  return found.map((r) => ({ ...r, inputs: r.inputs as InputKind[] }))
}

export const roomFacts = async (): Promise<RoomFacts[]> => rooms()

export async function settings(): Promise<CampusSettings> {
  return (await CampusSettings.findOne())!
}

export async function campusHours(): Promise<HoursView> {
  const { opens, closes, usualStarts } = await settings()
  return { opens, closes, usualStarts }
}
