/** Imports from the file that arrives to the decision of a person; the worker reads and writes them. */
import { randomUUID } from 'node:crypto'
import { mkdir, rm, writeFile } from 'node:fs/promises'
import { QueryTypes, type Transaction } from 'sequelize'
import type { ClassDataResult, Decision, ImportSummary, ImportView, TimetableOptions, TimetableResult } from '~~/shared/imports/views'
import type { UndertakingView } from '~~/shared/library/views'
import { campusDate, campusNow } from '../adapters/clock'
import { enqueue } from '../adapters/queue'
import { pathOf } from '../adapters/store'
import { database } from '../models/database'
import { Import } from '../models/import'
import { Person } from '../models/person'
import { TimetableEdit } from '../models/timetable-edit'
import { TimetableSource } from '../models/timetable-source'
import { nothingHere, Refusal } from './errors'
import { tell } from './live'
import { termOf } from './term'

export interface SentFile { name: string, bytes: Uint8Array }
const MOST_BYTES = 64 * 1024 ** 2

/** Keeps what was sent and has it read. @returns the import's id. @throws Refusal 422 for no file or too large ones */
export async function beginImport(wish: { kind: 'class data' | 'timetable', termId?: string, source: string }, files: SentFile[], askedBy: string): Promise<{ id: string }> {
  if (!files.length) throw new Refusal(422, 'Choose a file first.', { fields: { file: 'Choose a file first.' } })
  if (files.reduce((n, f) => n + f.bytes.length, 0) > MOST_BYTES) throw new Refusal(413, 'Files of up to 64 MB are taken here. A term’s timetable is smaller; nothing was kept.')
  const id = randomUUID()
  await mkdir(pathOf('imports', id), { recursive: true })
  const storeKeys = files.map((f, i) => ({ name: f.name.split(/[\\/]/).at(-1)!.slice(0, 120), key: `imports/${id}/${i}` }))
  await Promise.all(files.map((f, i) => writeFile(pathOf(storeKeys[i]!.key), f.bytes)))
  try {
    const { id: termId } = wish.kind === 'timetable' ? await termOf(wish.termId) : { id: null }
    await database.transaction(async (transaction) => {
      const sourceId = wish.kind === 'timetable' ? await sourceOf(termId!, wish.source.trim() || 'Timetable', transaction) : null
      await Import.create({ id, kind: wish.kind, state: 'waiting', name: storeKeys.map((k) => k.name).join(', ').slice(0, 160), termId, sourceId, storeKeys, askedBy, askedAt: campusDate() }, { transaction })
      await read(id, transaction)
    })
  } catch (error) {
    await rm(pathOf('imports', id), { recursive: true, force: true })
    throw error
  }
  return { id }
}

/** Lays the plans of one term onto another, to be looked over like an import. @throws Refusal 404, 422 */
export async function beginRollOver(fromTermId: string, toTermId: string, askedBy: string): Promise<{ id: string }> {
  if (fromTermId === toTermId) throw new Refusal(422, 'Choose two different terms.', { fields: { toTermId: 'Choose another term than the one the plans come from.' } })
  const [from, to] = await Promise.all([termOf(fromTermId), termOf(toTermId)])
  const id = randomUUID()
  await database.transaction(async (transaction) => {
    const sourceId = await sourceOf(to.id, `Roll-over of ${from.term.name}`, transaction)
    await Import.create({ id, kind: 'roll-over', state: 'waiting', name: `${from.term.name} onto ${to.term.name}`, termId: to.id, sourceId, storeKeys: [], options: { fromTermId } as object, askedBy, askedAt: campusDate() }, { transaction })
    await read(id, transaction)
  })
  return { id }
}

async function sourceOf(termId: string, name: string, transaction: Transaction): Promise<string> {
  const [source] = await TimetableSource.findOrCreate({ where: { termId, name }, defaults: { termId, name, mapping: { columns: {}, dateOrder: 'dmy' } }, transaction })
  return source.id
}

async function read(id: string, transaction: Transaction): Promise<void> {
  await Import.update({ state: 'waiting', step: 'waiting for a worker', percent: 0, sentence: '' }, { where: { id }, transaction })
  await enqueue(transaction, 'read_import', { importId: id }, `read ${id}`)
  await tellImport(id, transaction)
}

/** Changes what was decided about an import and has it read again. @throws Refusal 404, 409 when it is no longer open */
export async function decideImport(id: string, change: (options: TimetableOptions) => TimetableOptions): Promise<void> {
  await database.transaction(async (transaction) => {
    const item = await Import.findByPk(id, { transaction, lock: true })
    if (!item) throw nothingHere()
    if (!['looked over', 'waiting', 'reading', 'failed'].includes(item.state)) throw new Refusal(409, 'This has been taken in or dropped already. Bring the file again to change something.')
    await item.update({ options: change(item.options as TimetableOptions) }, { transaction })
    await read(id, transaction)
  })
}

/** A later decision about a date replaces an earlier one. */
export function withDecisions(options: TimetableOptions, decisions: Decision[]): TimetableOptions {
  return { ...options, propose: false, decisions: [...(options.decisions ?? []), ...decisions] }
}

/** Has an import taken in by the worker. @throws Refusal 404, 409 */
export async function takeIn(id: string): Promise<void> {
  await database.transaction(async (transaction) => {
    const item = await Import.findByPk(id, { transaction, lock: true })
    if (!item) throw nothingHere()
    if (item.state !== 'looked over') throw new Refusal(409, item.state === 'taken in' ? 'This was taken in already.' : 'Wait until it has been read, then look it over.')
    await item.update({ state: 'taking in', percent: 0, step: 'waiting for a worker' }, { transaction })
    await enqueue(transaction, 'take_import', { importId: id }, `take ${id}`)
    await tellImport(id, transaction)
  })
}

/** Drops an import that was not taken in; its files go. */
export async function dropImport(id: string): Promise<void> {
  const [dropped] = await Import.update({ state: 'dropped', endedAt: new Date() }, { where: { id, state: ['waiting', 'reading', 'looked over', 'failed'] } })
  if (!dropped) throw new Refusal(409, 'This is being taken in, or was already. Wait for its end; a timetable can then be undone in “What was changed”.')
  await rm(pathOf('imports', id), { recursive: true, force: true })
  await tellImport(id)
}

const SUMMARY = `SELECT i.id, i.kind, i.state, i.name, i.percent, i.step, i.sentence, i.asked_at AS "askedAt", p.name AS who, i.edit_id AS "editId" FROM imports i JOIN people p ON p.id = i.asked_by`

export async function importList(kinds: string[]): Promise<ImportSummary[]> {
  const rows = await database.query<Omit<ImportSummary, 'askedAt'> & { askedAt: Date }>(`${SUMMARY} WHERE i.kind = ANY($kinds::text[]) AND i.state <> 'dropped' ORDER BY i.asked_at DESC LIMIT 30`, { bind: { kinds }, type: QueryTypes.SELECT })
  return rows.map((r) => ({ ...r, askedAt: r.askedAt.getTime() }))
}

export async function importView(id: string): Promise<ImportView> {
  const item = await Import.findByPk(id)
  if (!item) throw nothingHere()
  const who = (await Person.findByPk(item.askedBy))!.name
  const undone = item.editId ? (await TimetableEdit.findByPk(item.editId))?.undoneAt != null : false
  return {
    id: item.id, kind: item.kind, state: item.state, name: item.name, percent: item.percent, step: item.step, sentence: item.sentence, askedAt: item.askedAt.getTime(), who, editId: item.editId, undone,
    classData: item.kind === 'class data' ? item.result as ClassDataResult | null : null, timetable: item.kind === 'class data' ? null : item.result as TimetableResult | null, options: item.options as TimetableOptions,
  }
}

const inWork: Record<ImportSummary['state'], UndertakingView['state']> = { 'waiting': 'waiting', 'reading': 'running', 'looked over': 'done', 'taking in': 'running', 'taken in': 'done', 'failed': 'failed', 'dropped': 'cancelled' }

/** Imports as “Under way” shows them. */
export async function importsUnderWay(): Promise<UndertakingView[]> {
  const rows = await database.query<ImportSummary>(`${SUMMARY} WHERE i.state IN ('waiting', 'reading', 'taking in') OR (i.state = 'looked over' AND i.asked_at > $today) OR (i.state IN ('failed', 'taken in') AND i.ended_at > now() - interval '30 minutes') ORDER BY i.asked_at DESC LIMIT 12`, { bind: { today: new Date(campusNow() - 12 * 3600_000) }, type: QueryTypes.SELECT })
  return rows.map(asWork)
}

const asWork = (r: ImportSummary): UndertakingView => ({
  id: r.id, kind: 'import', recordingId: null, link: `/bring-in/${r.id}`, sectionId: null, title: r.name, state: inWork[r.state], step: r.state === 'looked over' ? 'read; look it over' : r.step, percent: r.percent, leftS: null, sentence: r.sentence,
})

export async function tellImport(id: string, transaction?: Transaction): Promise<void> {
  const [row] = await database.query<ImportSummary>(`${SUMMARY} WHERE i.id = $id`, { bind: { id }, type: QueryTypes.SELECT, transaction })
  if (row) await tell({ topic: 'work', sectionId: null, work: asWork(row) }, transaction)
}
