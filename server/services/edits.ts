/**
 * Edits of the timetable: each is one transaction, keeps the rows it found, and can be undone as a
 * whole while nobody else has changed the same captures since.
 */
import { randomUUID } from 'node:crypto'
import { ExclusionConstraintError, QueryTypes, type Transaction } from 'sequelize'
import type { EditView } from '~~/shared/timetable/views'
import { campusDate } from '../adapters/clock'
import { database } from '../models/database'
import { TimetableEdit, type Before, type EditKind } from '../models/timetable-edit'
import { TimetableSourcePlan } from '../models/timetable-source-plan'
import { nothingHere, Refusal } from './errors'
import { tell } from './live'
import { takeBackNotices, tellOfEdit } from './notices'

type Table = 'captures' | 'plans'
const tables: Record<Table, string> = { captures: 'captures', plans: 'capture_plans' }
/** What of a row an edit may change, and undoing puts back. */
const columns: Record<Table, string[]> = {
  captures: ['section_id', 'room_id', 'presenter_id', 'topic', 'starts_at', 'ends_at', 'inputs', 'state', 'plan_id', 'plan_date', 'own'],
  plans: ['room_id', 'presenter_id', 'title', 'inputs', 'told', 'weekdays', 'start', 'minutes', 'weeks', 'from_day', 'until', 'left_out', 'ended'],
}

/** Keeps what an edit finds before it changes it. */
export class EditLog {
  readonly id = randomUUID()
  readonly before: Before = { captures: { created: [], before: [] }, plans: { created: [], before: [] }, regrouped: [] }
  readonly sectionIds = new Set<string>()

  constructor(readonly transaction: Transaction) {}

  /** Locks rows that are about to change and keeps them as they are. */
  async keep(table: Table, ids: readonly string[]): Promise<void> {
    const rows = await database.query<{ row: Record<string, unknown> }>(`SELECT to_jsonb(t) AS row FROM ${tables[table]} t WHERE id = ANY($ids::uuid[]) ORDER BY id FOR UPDATE`,
      { bind: { ids }, type: QueryTypes.SELECT, transaction: this.transaction })
    this.before[table].before.push(...rows.map((r) => r.row))
    for (const { row } of rows) this.sectionIds.add(String(row.section_id))
  }

  /** Notes captures that come under another plan and are not changed otherwise. */
  regrouped(captureIds: readonly string[], planId: string): void {
    this.before.regrouped.push(...captureIds.map((id) => ({ id, plan_id: planId })))
  }

  /** Keeps what a source said last, before it is said anew. */
  async keepSource(id: string): Promise<void> {
    const plans = await TimetableSourcePlan.findAll({ where: { sourceId: id }, transaction: this.transaction, raw: true })
    this.before.source = { id, plans: plans.map(({ key, wanted }) => ({ key, wanted })) }
  }

  created(table: Table, ids: readonly string[]): void {
    this.before[table].created.push(...ids)
  }

  get captureIds(): string[] {
    return [...this.before.captures.created, ...this.before.captures.before.map((row) => String(row.id))]
  }
}

/**
 * Does an edit. Captures may pass through each other's places on the way; at its end no two may hold
 * one room.
 * @param work does it, telling the log what it is about to change; returns what the edit is called
 * @throws Refusal 409 when a room is taken at the end of it
 */
export async function edit<T extends { sentence: string }>(actorId: string | null, kind: EditKind, work: (log: EditLog) => Promise<T>): Promise<T & { editId: string, captures: number }> {
  try {
    return await database.transaction(async (transaction) => {
      await takeTurns(transaction)
      const log = new EditLog(transaction)
      const done = await work(log)
      await database.query('SET CONSTRAINTS ALL IMMEDIATE', { transaction })
      const { captureIds } = log
      await TimetableEdit.create({ id: log.id, at: campusDate(), actorId, kind, sentence: done.sentence, before: log.before, captureIds, sectionIds: [...log.sectionIds] }, { transaction })
      await tellOfEdit({ id: log.id, kind, sentence: done.sentence, captureIds, presentersBefore: log.before.captures.before.map((row) => String(row.presenter_id)) }, transaction)
      await tellChanged([...log.sectionIds], transaction)
      return { ...done, editId: log.id, captures: captureIds.length }
    })
  } catch (error) {
    if (error instanceof ExclusionConstraintError) throw new Refusal(409, 'A room was taken by somebody else at this moment; nothing was changed. Look at the dates again.')
    throw error
  }
}

/** Any fixed number: the lock behind which edits of the timetable take turns. */
const LOCK = 710_225

/** Two edits that checked each other's unfinished rows at their ends would wait for one another for ever. */
async function takeTurns(transaction: Transaction): Promise<void> {
  await database.query('SELECT pg_advisory_xact_lock($lock)', { bind: { lock: LOCK }, type: QueryTypes.SELECT, transaction })
  await database.query('SET CONSTRAINTS ALL DEFERRED', { transaction })
}

/** Long lists are not sent: everybody then looks again. */
const NAMED = 40
async function tellChanged(sectionIds: string[], transaction: Transaction): Promise<void> {
  await tell({ topic: 'timetable', sectionIds: sectionIds.length > NAMED ? null : sectionIds }, transaction)
}

/**
 * Puts everything an edit changed back as it was; captures that have begun since stay.
 * @throws Refusal 409 when it was undone already, somebody changed the same captures since, or a room has been given away
 */
export async function undo(editId: string, actorId: string): Promise<{ sentence: string }> {
  try {
    return await database.transaction(async (transaction) => {
      const found = await TimetableEdit.findByPk(editId, { transaction, lock: true })
      if (!found) throw nothingHere()
      if (found.undoneAt) throw new Refusal(409, 'This was undone already.')
      await refuseIfChangedSince(found, transaction)
      await takeTurns(transaction)
      const left = await restore(found.before, transaction)
      await database.query('SET CONSTRAINTS ALL IMMEDIATE', { transaction })
      await found.update({ undoneAt: campusDate(), undoneBy: actorId }, { transaction })
      await takeBackNotices(editId, `Undone: ${found.sentence}`, transaction)
      await tellChanged(found.sectionIds, transaction)
      return { sentence: `Undone: ${found.sentence}${left ? ` ${left} ${left === 1 ? 'capture has' : 'captures have'} begun since and ${left === 1 ? 'stays' : 'stay'}.` : ''}` }
    })
  } catch (error) {
    if (error instanceof ExclusionConstraintError) throw new Refusal(409, 'A room has been given to another capture meanwhile, so this cannot be undone as a whole. Nothing was changed.')
    throw error
  }
}

async function refuseIfChangedSince(found: TimetableEdit, transaction: Transaction): Promise<void> {
  const [later] = await database.query<{ sentence: string, who: string | null }>(`
    SELECT e.sentence, p.name AS who FROM timetable_edits e LEFT JOIN people p ON p.id = e.actor_id
    WHERE (e.capture_ids && $ids::uuid[] OR e.before->'source'->>'id' = $source) AND e.undone_at IS NULL AND e.id <> $id AND e.seq > $seq ORDER BY e.seq DESC LIMIT 1`,
  { bind: { source: found.before.source?.id ?? '', ids: found.captureIds, id: found.id, seq: found.seq }, type: QueryTypes.SELECT, transaction })
  if (later) throw new Refusal(409, `Some of these captures were changed after that, by ${later.who ?? 'the house'}: ${later.sentence} Undo that first.`)
}

/** @returns how many captures could not be put back because they have begun */
async function restore(before: Before, transaction: Transaction): Promise<number> {
  const now = campusDate()
  const bind = { now, created: before.captures.created, rows: JSON.stringify(before.captures.before) }
  // A plan that comes back must be there before its captures do.
  await putBack('plans', before.plans.before, transaction)
  const gone = await database.query<{ id: string }>(`
    DELETE FROM captures c WHERE c.id = ANY($created::uuid[]) AND c.starts_at > $now AND c.state IN ('planned', 'armed', 'cancelled', 'left_out')
      AND NOT EXISTS (SELECT 1 FROM recordings r WHERE r.capture_id = c.id) RETURNING c.id`,
  { bind: { now: bind.now, created: bind.created }, type: QueryTypes.SELECT, transaction })
  const set = columns.captures.map((c) => `${c} = b.${c}`).join(', ')
  const back = await database.query<{ id: string }>(`
    UPDATE captures c SET ${set}, revision = c.revision + 1 FROM jsonb_populate_recordset(NULL::captures, $rows::jsonb) b
    WHERE c.id = b.id AND c.starts_at > $now AND c.state IN ('planned', 'armed', 'cancelled', 'left_out') RETURNING c.id`,
  { bind: { now: bind.now, rows: bind.rows }, type: QueryTypes.SELECT, transaction })
  // These were never changed, so they go back under their plan even when they have begun since.
  await database.query('UPDATE captures c SET plan_id = b.plan_id FROM jsonb_to_recordset($rows::jsonb) AS b(id uuid, plan_id uuid) WHERE c.id = b.id',
    { bind: { rows: JSON.stringify(before.regrouped ?? []) }, transaction })
  await database.query(`DELETE FROM capture_plans p WHERE p.id = ANY($ids::uuid[]) AND NOT EXISTS (SELECT 1 FROM captures c WHERE c.plan_id = p.id)`,
    { bind: { ids: before.plans.created }, transaction })
  if (before.source) {
    const sourceId = before.source.id
    await TimetableSourcePlan.destroy({ where: { sourceId }, transaction })
    await TimetableSourcePlan.bulkCreate(before.source.plans.map((p) => ({ ...p, sourceId })), { transaction, returning: false })
  }
  return before.captures.created.length + before.captures.before.length - gone.length - back.length
}

async function putBack(table: Table, rows: Record<string, unknown>[], transaction: Transaction): Promise<void> {
  if (!rows.length) return
  const set = columns[table].map((c) => `${c} = b.${c}`).join(', ')
  await database.query(`UPDATE ${tables[table]} t SET ${set} FROM jsonb_populate_recordset(NULL::${tables[table]}, $rows::jsonb) b WHERE t.id = b.id`,
    { bind: { rows: JSON.stringify(rows) }, transaction })
}

/** What was done to the timetable, newest first: of one capture, one section, or all. */
export async function editsOf(by: { captureId?: string, sectionIds?: string[] | null }, limit = 100): Promise<EditView[]> {
  const rows = await database.query<Omit<EditView, 'at' | 'undoneAt' | 'mayUndo'> & { at: Date, undoneAt: Date | null }>(`
    SELECT e.id, e.at, coalesce(p.name, 'Karstland') AS who, e.kind, e.sentence, cardinality(e.capture_ids) AS captures, e.undone_at AS "undoneAt", u.name AS "undoneBy"
    FROM timetable_edits e LEFT JOIN people p ON p.id = e.actor_id LEFT JOIN people u ON u.id = e.undone_by
    WHERE ($capture::uuid IS NULL OR e.capture_ids @> ARRAY[$capture::uuid]) AND ($all OR e.section_ids && $sections::uuid[])
    ORDER BY e.seq DESC LIMIT ${Math.trunc(limit)}`,
  { bind: { capture: by.captureId ?? null, all: !by.sectionIds, sections: by.sectionIds ?? [] }, type: QueryTypes.SELECT })
  return rows.map((r) => ({ ...r, at: r.at.getTime(), undoneAt: r.undoneAt?.getTime() ?? null, mayUndo: r.undoneAt === null }))
}
