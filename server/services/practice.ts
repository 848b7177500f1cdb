/**
 * Practice sections: every instructor has one. What is captured there tells nobody, counts nowhere
 * and goes away by itself.
 */
import { rm } from 'node:fs/promises'
import { QueryTypes } from 'sequelize'
import { campusNow } from '../adapters/clock'
import { pathOf } from '../adapters/store'
import { database } from '../models/database'
import { currentTerm } from './term'

/** How long a practice capture and its recording stay. */
const KEPT_DAYS = 14

/** Sees to it that every instructor has a practice section in the current term. @returns how many were made */
export async function keepPracticeSections(): Promise<number> {
  const term = await currentTerm().catch(() => undefined)
  if (!term) return 0
  return database.transaction(async (transaction) => {
    const bind = { term: term.id }
    await database.query(`INSERT INTO courses (code, title) VALUES ('PRACTICE', 'Practice') ON CONFLICT (code) DO NOTHING`, { transaction })
    await database.query(`UPDATE sections SET term_id = $term WHERE practice_of IS NOT NULL AND term_id <> $term`, { bind, transaction })
    const made = await database.query<{ id: string }>(`
      INSERT INTO sections (course_id, term_id, number, practice_of)
      SELECT c.id, $term, CASE WHEN count(*) OVER (PARTITION BY p.name) > 1 THEN p.email ELSE p.name END, p.id FROM people p, courses c
      WHERE c.code = 'PRACTICE' AND p.role = 'instructor' AND NOT p.barred AND NOT EXISTS (SELECT 1 FROM sections s WHERE s.practice_of = p.id)
      ON CONFLICT DO NOTHING RETURNING id`, { bind, type: QueryTypes.SELECT, transaction })
    await database.query(`INSERT INTO class_list (section_id, person_id, role) SELECT s.id, s.practice_of, 'instructor' FROM sections s WHERE s.practice_of IS NOT NULL ON CONFLICT DO NOTHING`, { transaction })
    return made.length
  })
}

/** Removes practice captures that are over for two weeks, with their recordings and files. @returns how many */
export async function clearPractice(): Promise<number> {
  const bind = { before: new Date(campusNow() - KEPT_DAYS * 86_400_000) }
  const gone = await database.transaction(async (transaction) => {
    const old = await database.query<{ id: string, recordingId: string | null }>(`
      SELECT c.id, r.id AS "recordingId" FROM captures c JOIN sections s ON s.id = c.section_id AND s.practice_of IS NOT NULL LEFT JOIN recordings r ON r.capture_id = c.id
      WHERE c.ends_at < $before FOR UPDATE OF c SKIP LOCKED`, { bind, type: QueryTypes.SELECT, transaction })
    if (!old.length) return []
    const recordings = old.flatMap((o) => o.recordingId ?? [])
    await database.query('DELETE FROM recordings WHERE id = ANY($recordings::uuid[])', { bind: { recordings }, transaction })
    await database.query('DELETE FROM captures WHERE id = ANY($ids::uuid[])', { bind: { ids: old.map((o) => o.id) }, transaction })
    await database.query('DELETE FROM capture_plans p USING sections s WHERE s.id = p.section_id AND s.practice_of IS NOT NULL AND NOT EXISTS (SELECT 1 FROM captures c WHERE c.plan_id = p.id)', { transaction })
    return recordings
  })
  // Files go after the rows: what is left over by a crash is never shown again.
  for (const id of gone) for (const place of ['media', 'originals']) await rm(pathOf(place, id), { recursive: true, force: true })
  return gone.length
}
