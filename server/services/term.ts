/** The current term for the band over every page: its weeks, and what is captured on each day. */
import { QueryTypes } from 'sequelize'
import { wallOf, weeksOf, type Term as TermShape } from '~~/core/term/calendar'
import type { TermChoice, TermView } from '~~/shared/term/views'
import { campusNow } from '../adapters/clock'
import { database } from '../models/database'
import { Term } from '../models/term'
import { TermSpan } from '../models/term-span'
import { nothingHere, Refusal } from './errors'

export interface CurrentTerm { id: string, term: TermShape }

/** The term that campus time lies in, else the one nearest to it. @throws Refusal 404 with no term at all */
export async function currentTerm(): Promise<CurrentTerm> {
  const today = new Date(campusNow()).toISOString().slice(0, 10)
  const distance = database.literal(`greatest(teaching_from - DATE '${today}', DATE '${today}' - teaching_to, 0)`)
  const row = await Term.findOne({ order: [[distance, 'ASC']], raw: true })
  if (!row) throw new Refusal(404, 'There is no term yet. Set one up first.')
  return shaped(row)
}

/** One term by its id; the current one without. @throws Refusal 404 when there is none */
export async function termOf(id?: string): Promise<CurrentTerm> {
  if (!id) return currentTerm()
  const row = await Term.findByPk(id, { raw: true })
  if (!row) throw nothingHere()
  return shaped(row)
}

async function shaped(row: Term): Promise<CurrentTerm> {
  const spans = await TermSpan.findAll({ where: { termId: row.id }, order: ['fromDay'], raw: true })
  const term: TermShape = {
    name: row.name, zone: row.zone, teachingFrom: row.teachingFrom, teachingTo: row.teachingTo,
    spans: spans.map((s) => ({ kind: s.kind, from: s.fromDay, to: s.toDay, label: s.label })),
  }
  return { id: row.id, term }
}

/**
 * The term with a count for each day.
 * @param sectionIds only these sections; null for all
 */
export async function termOverview(sectionIds: string[] | null, termId?: string): Promise<TermView> {
  const { id, term } = await termOf(termId)
  const rows = await database.query<{ date: string, captures: number, trouble: number }>(`
    SELECT to_char(c.starts_at AT TIME ZONE $zone, 'YYYY-MM-DD') AS date, count(*) AS captures,
      count(*) FILTER (WHERE c.state IN ('missed', 'failed')) AS trouble
    FROM captures c JOIN sections s ON s.id = c.section_id
    WHERE s.term_id = $id AND s.practice_of IS NULL AND c.state NOT IN ('left_out', 'cancelled') AND ($all OR c.section_id = ANY($sections::uuid[]))
    GROUP BY 1 ORDER BY 1`, { bind: { zone: term.zone, id, all: sectionIds === null, sections: sectionIds ?? [] }, type: QueryTypes.SELECT })
  return { id, term, weeks: weeksOf(term), days: rows, captures: rows.reduce((sum, r) => sum + r.captures, 0) }
}

/** Campus date, `YYYY-MM-DD`, of now. */
export const campusToday = (zone: string): string => wallOf(zone, campusNow()).date

export async function termChoices(): Promise<TermChoice[]> {
  const current = await currentTerm().then((t) => t.id, () => '')
  const rows = await Term.findAll({ order: [['teachingFrom', 'DESC']], raw: true })
  return rows.map((t) => ({ id: t.id, name: t.name, from: t.teachingFrom, to: t.teachingTo, current: t.id === current }))
}
