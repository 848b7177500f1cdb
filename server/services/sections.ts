/** A section's own page: its class list, and what it settles by default. */
import { QueryTypes, type Transaction } from 'sequelize'
import type { Who } from '~~/core/access/decide'
import { folderName, unknownParts } from '~~/core/library/folder-pattern'
import { instantOf, addDays, placeOf, wallOf, weekdayNames, type Term } from '~~/core/term/calendar'
import type { ListEntry, SectionDefaults, SectionPage } from '~~/shared/term/section'
import type { Capture } from '../models/capture'
import { database } from '../models/database'
import { Filing } from '../models/filing'
import { Folder } from '../models/folder'
import { Person } from '../models/person'
import { Release } from '../models/release'
import { SectionDefault } from '../models/section-default'
import { campusDate } from '../adapters/clock'
import { ask } from './access'
import { record } from './audit'
import { nothingHere } from './errors'
import { wrong } from './planning'
import { currentTerm } from './term'

export async function defaultsOf(sectionId: string, transaction?: Transaction): Promise<SectionDefaults> {
  const row = await SectionDefault.findByPk(sectionId, { transaction, raw: true })
  return row ? { release: row.release, opensDays: row.opensDays, closesDays: row.closesDays, captions: row.captions, folderPattern: row.folderPattern, told: row.told } : { release: 'held', opensDays: null, closesDays: null, captions: false, folderPattern: '', told: [] }
}

export async function sectionPage(who: Extract<Who, { kind: 'person' }>, id: string): Promise<SectionPage> {
  const [section] = await database.query<{ code: string, title: string, term: string }>(`SELECT c.code || '/' || s.number AS code, c.title, t.name AS term FROM sections s JOIN courses c ON c.id = s.course_id JOIN terms t ON t.id = s.term_id WHERE s.id = $id`, { bind: { id }, type: QueryTypes.SELECT })
  if (!section) throw nothingHere()
  const list = await database.query<Omit<ListEntry, 'from' | 'to'> & { from: Date | null, to: Date | null }>(`
    SELECT p.id AS "personId", p.name, p.email, l.role, l.from_at AS "from", l.to_at AS "to", p.last_sign_in_at IS NOT NULL AS came
    FROM class_list l JOIN people p ON p.id = l.person_id WHERE l.section_id = $id ORDER BY l.role <> 'instructor', l.role, p.name`, { bind: { id }, type: QueryTypes.SELECT })
  const defaults = await defaultsOf(id)
  const told = defaults.told.length ? await Person.findAll({ where: { id: defaults.told }, attributes: ['id', 'name'], raw: true }) : []
  return { id, ...section, list: list.map((e) => ({ ...e, from: e.from?.getTime() ?? null, to: e.to?.getTime() ?? null })), defaults, told, mayChange: ask(who, 'plan', { kind: 'section', sectionId: id }).allowed }
}

/** @throws Refusal 422 for a window that closes before it opens, or a pattern with unknown parts */
export async function saveDefaults(sectionId: string, wish: SectionDefaults, actorId: string): Promise<void> {
  const unknown = unknownParts(wish.folderPattern)
  if (unknown.length) throw wrong('folderPattern', `Nobody knows {${unknown.join('}, {')}}. A pattern may name {week}, {weekday}, {course} and {section}.`)
  if (wish.closesDays !== null && wish.opensDays !== null && wish.closesDays <= wish.opensDays) throw wrong('closesDays', 'This closes before it opens.')
  await database.transaction(async (transaction) => {
    await SectionDefault.upsert({ sectionId, ...wish, folderPattern: wish.folderPattern.trim() }, { transaction })
    await record(transaction, actorId, 'set up', sectionId, { defaults: { ...wish } })
  })
}

/** The folder that a capture's recording goes to, by the section's pattern; made when it is not there. */
export async function folderFor(capture: Capture, section: { id: string, course: string, number: string }, term: Term, transaction: Transaction): Promise<Folder> {
  const root = (await Folder.findOne({ where: { sectionId: section.id, parentId: null }, transaction }))!
  const { folderPattern } = await defaultsOf(section.id, transaction)
  if (!folderPattern) return root
  const wall = wallOf(term.zone, capture.startsAt.getTime())
  const { week } = placeOf(term, wall.date)
  const name = folderName(folderPattern, { week: week?.number ?? null, weekLabel: week?.label ?? wall.date, weekday: weekdayNames[wall.weekday - 1]!, course: section.course, section: section.number })
  if (!name) return root
  const [folder] = await Folder.findOrCreate({ where: { sectionId: section.id, parentId: root.id, name }, defaults: { sectionId: section.id, parentId: root.id, name }, transaction })
  return folder
}

/**
 * A recording plays for the first time: released by the section's default, unless captions are wanted
 * first; those are checked by a person.
 */
export async function releaseByDefault(recordingId: string, capture: Capture, transaction: Transaction): Promise<void> {
  const { release, captions, opensDays, closesDays } = await defaultsOf(capture.sectionId, transaction)
  const filing = await Filing.findOne({ where: { recordingId }, transaction })
  if (release !== 'class list' || captions || !filing || await Release.findOne({ where: { filingId: filing.id }, transaction })) return
  const { term } = await currentTerm()
  const lesson = wallOf(term.zone, capture.startsAt.getTime()).date
  const day = (days: number | null) => (days === null ? null : new Date(instantOf(term.zone, addDays(lesson, days), '00:00')))
  await Release.create({ filingId: filing.id, releasedBy: capture.presenterId, releasedAt: campusDate(), opensAt: day(opensDays || null), closesAt: day(closesDays) }, { transaction })
  await record(transaction, null, 'released', recordingId, { by: 'the section’s default' })
}
