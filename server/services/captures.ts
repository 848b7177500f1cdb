/** Captures as lists show them. */
import { QueryTypes } from 'sequelize'
import { ruleWords } from '~~/core/timetable/rule'
import type { CaptureDetails, CaptureView } from '~~/shared/timetable/views'
import { CapturePlan } from '../models/capture-plan'
import { database } from '../models/database'
import { Person } from '../models/person'
import { nothingHere } from './errors'

export interface CaptureSpan { from: number, to: number, roomId?: string, sectionIds?: string[] | null, captureId?: string, cancelled?: boolean }

/** Captures that start in [from, to), earliest first; left-out ones are not among them, cancelled ones only if asked for. */
export async function capturesIn(span: CaptureSpan): Promise<CaptureView[]> {
  const rows = await database.query<Omit<CaptureView, 'start' | 'end'> & { start: Date, end: Date }>(`
    SELECT c.id, c.section_id AS "sectionId", co.code || '/' || s.number AS section, co.title AS course,
      c.room_id AS "roomId", r.name AS room, c.presenter_id AS "presenterId", p.name AS presenter, c.topic, c.starts_at AS start, c.ends_at AS end,
      c.inputs, c.state, c.plan_id AS "planId", c.own, rec.id AS "recordingId", coalesce(rec.trouble, '') AS trouble
    FROM captures c JOIN sections s ON s.id = c.section_id JOIN courses co ON co.id = s.course_id
      JOIN rooms r ON r.id = c.room_id JOIN people p ON p.id = c.presenter_id LEFT JOIN recordings rec ON rec.capture_id = c.id
    WHERE c.starts_at >= $from AND c.starts_at < $to AND c.state <> 'left_out' AND ($cancelled OR c.state <> 'cancelled')
      AND ($room::uuid IS NULL OR c.room_id = $room) AND ($capture::uuid IS NULL OR c.id = $capture)
      AND ($all OR c.section_id = ANY($sections::uuid[]))
    ORDER BY c.starts_at, r.name`, {
    bind: {
      from: new Date(span.from), to: new Date(span.to), room: span.roomId ?? null, capture: span.captureId ?? null,
      all: !span.sectionIds, sections: span.sectionIds ?? [], cancelled: span.cancelled ?? false,
    },
    type: QueryTypes.SELECT,
  })
  return rows.map((row) => ({ ...row, start: row.start.getTime(), end: row.end.getTime() }))
}

/** One capture, whatever its state, with its plan's rule in words. @throws Refusal 404 */
export async function captureOf(id: string): Promise<CaptureDetails> {
  const [capture] = await capturesIn({ from: 0, to: 253402300799000, captureId: id, cancelled: true })
  if (!capture) throw nothingHere()
  const plan = capture.planId ? await CapturePlan.findByPk(capture.planId) : null
  const told = plan?.told.length ? await Person.findAll({ where: { id: plan.told }, attributes: ['id', 'name'], raw: true }) : []
  const rule = plan && { ...plan.get({ plain: true }), from: plan.fromDay }
  return { ...capture, plan: rule ? ruleWords(rule) : '', weekdays: plan?.weeks.kind === 'dates' ? [] : plan?.weekdays ?? [], told }
}
