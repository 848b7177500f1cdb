/** The dry run of a timetable: every row understood or not, compared with the last time, its clashes and ways out. */
import { readFile } from 'node:fs/promises'
import { Op, QueryTypes } from 'sequelize'
import type { Term } from '~~/core/term/calendar'
import { importDifference, withChanges, type ImportDifference, type Known } from '~~/core/timetable/difference'
import { guessMapping, lackOf, understand, type Directory, type Incoming, type Mapping, type RowFault } from '~~/core/timetable/rows'
import { ruleWords } from '~~/core/timetable/rule'
import { adjusted, occurrencesOf, type Wanted } from '~~/core/timetable/wanted'
import { exceptionOf, resolveAll, type Campus } from '~~/core/timetable/ways-out'
import type { PlanLine, RowStatus, TimetableOptions, TimetableResult } from '~~/shared/imports/views'
import { readCalendar } from '../adapters/calendar-in'
import { readTable, type Table } from '../adapters/csv'
import { pathOf } from '../adapters/store'
import { campusNow } from '../adapters/clock'
import { database } from '../models/database'
import { Person } from '../models/person'
import { CapturePlan } from '../models/capture-plan'
import type { Import } from '../models/import'
import { TimetableSource } from '../models/timetable-source'
import { TimetableSourcePlan } from '../models/timetable-source-plan'
import { campusOf, examine, standingBetween, type NameOf } from './clashes'
import { rooms, sectionChoices } from './choices'
import { rolledOver } from './rolling-over'
import { termOf } from './term'

/** Everything known about an import's plans before any is written. */
export interface Reading {
  term: Term
  termId: string
  campus: Campus
  table: Table
  mapping: Mapping
  lack: string
  incoming: Incoming[]
  faults: RowFault[]
  known: Known[]
  difference: ImportDifference
  /** plans of the source as they stand, by its key; those that were split by hand are not among them */
  standing: Map<string, Wanted>
  /** incoming plans as they would be written, with what was decided; same index as `incoming` */
  settled: Wanted[]
  leftOut: Set<number>
  nameOf: NameOf
  /** captures still to come of known plans that change or are gone; they make way */
  making: { captureIds: string[], goneIds: string[] }
}

export async function readAll(item: Import, onStep: (percent: number, step: string) => Promise<void>): Promise<Reading> {
  const { id: termId, term } = await termOf(item.termId ?? undefined)
  const options = item.options as TimetableOptions
  await onStep(5, 'reading the file')
  const campus = await campusOf(termId, term)
  const { directory, nameOf } = await directoryOf(termId)
  const source = item.sourceId ? await TimetableSource.findByPk(item.sourceId) : null
  const table = item.kind === 'roll-over' ? { columns: [], rows: [], encoding: 'UTF-8' as const, delimiter: ',' as const } : await tableOf(item, term)
  const mapping = options.mapping ?? guessMapping(table.columns, source?.mapping)
  const lack = item.kind === 'roll-over' ? '' : lackOf(mapping)
  await onStep(25, 'understanding the rows')
  const { plans, faults } = item.kind === 'roll-over' ? await rolledOver(options.fromTermId!, termId, directory) : lack ? { plans: [], faults: [] } : understand(table.rows, mapping, directory, term)
  const known: Known[] = source ? (await TimetableSourcePlan.findAll({ where: { sourceId: source.id }, order: ['key'], raw: true })).map((k) => ({ key: k.key, wanted: k.wanted })) : []
  await onStep(45, 'comparing with the last time')
  const difference = importDifference(known, plans)
  const leftOut = new Set(options.leftOut)
  const settled = plans.map((p) => p.wanted)
  const standing = await standingPlans(source?.id, known, difference)
  for (const c of difference.changed) {
    const stands = standing.get(known[c.known]!.key)
    if (stands) settled[c.incoming] = withChanges(stands, plans[c.incoming]!.wanted, c.fields)
  }
  for (const d of options.decisions ?? []) if (settled[d.plan]) settled[d.plan] = adjusted(settled[d.plan]!, d.dates, exceptionOf(d.way), term)
  return { term, termId, campus, table, mapping, lack, incoming: plans, faults, known, difference, standing, settled, leftOut, nameOf, making: await making(source?.id, known, difference, leftOut) }
}

async function tableOf(item: Import, term: Term): Promise<Table> {
  const [file] = item.storeKeys
  const bytes = await readFile(pathOf(file!.key))
  return /\.(ics|ical|ifb)$/i.test(file!.name) || bytes.subarray(0, 15).toString().includes('BEGIN:VCALENDAR') ? readCalendar(bytes, file!.name, term) : readTable(bytes, file!.name)
}

export async function directoryOf(termId: string): Promise<{ directory: Directory, nameOf: NameOf }> {
  const [sections, all, people] = await Promise.all([sectionChoices(termId, null), rooms(), Person.findAll({ where: { role: { [Op.ne]: 'student' }, barred: false }, attributes: ['id', 'name', 'email'], raw: true })])
  const section = new Map(sections.map((s) => [s.id, s.code]))
  const person = new Map(people.map((p) => [p.id, p.name]))
  return {
    directory: { sections: sections.map((s) => ({ id: s.id, code: s.code, presenterId: s.presenterIds[0] ?? null })), rooms: all, people },
    nameOf: (w) => ({ section: section.get(w.sectionId) ?? 'a section', presenter: person.get(w.presenterId) ?? 'somebody' }),
  }
}

/** How plans that the source has changed stand now: perhaps changed by hand since it was taken in. */
async function standingPlans(sourceId: string | undefined, known: Known[], difference: ImportDifference): Promise<Map<string, Wanted>> {
  const keys = difference.changed.map((c) => known[c.known]!.key)
  const rows = sourceId && keys.length ? await CapturePlan.findAll({ where: { sourceId, sourceKey: keys, ended: false } }) : []
  const counts = new Map<string, number>()
  for (const p of rows) counts.set(p.sourceKey!, (counts.get(p.sourceKey!) ?? 0) + 1)
  return new Map(rows.filter((p) => counts.get(p.sourceKey!) === 1).map((p) => [p.sourceKey!, {
    sectionId: p.sectionId, roomId: p.roomId, presenterId: p.presenterId, title: p.title, inputs: p.inputs, exceptions: {}, weekdays: p.weekdays, start: p.start, minutes: p.minutes,
    weeks: p.weeks, from: p.fromDay, until: p.until, leftOut: p.leftOut,
  }]))
}

/** Captures that make way for what comes in: of changed plans all to come, of gone ones those not changed by hand. */
async function making(sourceId: string | undefined, known: Known[], difference: ImportDifference, leftOut: Set<number>): Promise<Reading['making']> {
  if (!sourceId) return { captureIds: [], goneIds: [] }
  const of = async (keys: string[], byHand: boolean) => (await database.query<{ id: string }>(`
    SELECT c.id FROM captures c JOIN capture_plans p ON p.id = c.plan_id
    WHERE p.source_id = $sourceId AND p.source_key = ANY($keys::text[]) AND c.starts_at > $now AND c.state IN ('planned', 'armed') AND ($byHand OR c.own = '{}')`,
  { bind: { sourceId, keys, now: new Date(campusNow()), byHand }, type: QueryTypes.SELECT })).map((c) => c.id)
  const goneIds = await of(difference.gone.map((k) => known[k]!.key), false)
  return { goneIds, captureIds: [...await of(difference.changed.filter((c) => !leftOut.has(c.incoming)).map((c) => known[c.known]!.key), true), ...goneIds] }
}

/** The dry run as a page shows it. */
export async function dryRun(item: Import, onStep: (percent: number, step: string) => Promise<void>): Promise<TimetableResult> {
  const reading = await readAll(item, onStep)
  await onStep(60, 'looking for clashes')
  const { incoming, difference, settled, campus, known } = reading
  const statusOf = statuses(reading)
  const active = incoming.map((_, i) => i).filter((i) => ['new', 'changed'].includes(statusOf[i]!))
  const examined = await examine(active.map((i) => settled[i]!), campus, reading.nameOf, reading.making.captureIds)
  const clashes = examined.clashes.map((c) => ({ ...c, plan: active[c.plan]! }))
  for (const c of clashes) statusOf[c.plan] = 'clash'
  await onStep(85, 'writing it down')
  const fieldsOf = new Map(difference.changed.map((c) => [c.incoming, c.fields]))
  const countOf = countsByPlan(settled, campus)
  const lines = incoming.map((p, plan): PlanLine => ({
    plan, rows: p.rows, status: statusOf[plan]!, section: reading.nameOf(p.wanted).section, words: wordsOf(settled[plan]!, reading), captures: countOf[plan]!, fields: fieldsOf.get(plan) ?? [],
    sentence: decidedWords(item.options as TimetableOptions, plan),
  }))
  const faults = reading.faults.map((f, i): PlanLine => ({ plan: -1 - i, rows: [f.row], status: 'not understood', section: '', words: '', captures: 0, fields: [], sentence: f.row ? `Row ${f.row}${f.column ? `, ${f.column}` : ''}: ${f.sentence}.` : `${f.sentence}.` }))
  const gone = difference.gone.map((k, i): PlanLine => ({ plan: -100_000 - i, rows: [], status: 'gone', section: reading.nameOf(known[k]!.wanted).section, words: wordsOf(known[k]!.wanted, reading), captures: 0, fields: [], sentence: 'no longer in the timetable; its captures to come are cancelled' }))
  const all = [...lines, ...faults, ...gone]
  const counts = Object.fromEntries((['new', 'same', 'changed', 'gone', 'clash', 'not understood', 'left out'] as RowStatus[]).map((s) => [s, all.filter((l) => l.status === s).length])) as Record<RowStatus, number>
  return {
    columns: reading.table.columns, mapping: reading.mapping, lack: reading.lack, encoding: reading.table.encoding, rowCount: reading.table.rows.length,
    sample: reading.table.rows.slice(0, 3).map((r) => r.cells), lines: all, clashes, warnings: examined.warnings.slice(0, 30), counts,
    writes: lines.filter((l) => l.status === 'new' || l.status === 'changed').reduce((n, l) => n + l.captures, 0), cancels: reading.making.goneIds.length,
    proposals: (item.options as TimetableOptions).propose ? await propose(reading, active) : null,
  }
}

function statuses({ incoming, difference, leftOut }: Reading): RowStatus[] {
  const status: RowStatus[] = incoming.map(() => 'new')
  for (const s of difference.same) status[s.incoming] = 'same'
  for (const c of difference.changed) status[c.incoming] = 'changed'
  for (const i of leftOut) if (status[i] && status[i] !== 'same') status[i] = 'left out'
  return status
}

function countsByPlan(settled: readonly Wanted[], campus: Campus): number[] {
  const counts = settled.map(() => 0)
  for (const o of occurrencesOf(settled, campus.term, campus.now)) counts[o.plan]!++
  return counts
}

function wordsOf(w: Wanted, { campus, nameOf }: Reading): string {
  const room = campus.rooms.find((r) => r.id === w.roomId)?.name ?? ''
  return `${ruleWords(w)}, ${room}, ${nameOf(w).presenter}`
}

function decidedWords(options: TimetableOptions, plan: number): string {
  return (options.decisions ?? []).filter((d) => d.plan === plan).map((d) => (d.way.kind === 'room' ? `to ${d.way.room}` : d.way.kind === 'start' ? `at ${d.way.start}` : `${d.dates.length} left out`)).join(', ')
}

/** A whole set of ways out, to look over first. */
async function propose(reading: Reading, active: number[]): Promise<TimetableResult['proposals']> {
  const plans = active.map((i) => reading.settled[i]!)
  const occurrences = occurrencesOf(plans, reading.term, reading.campus.now)
  if (!occurrences.length) return []
  const starts = occurrences.map((o) => o.start)
  const standing = await standingBetween(starts.reduce((a, b) => Math.min(a, b)), starts.reduce((a, b) => Math.max(a, b)), reading.making.captureIds)
  return resolveAll(plans, standing, reading.campus).proposals.map((p) => ({ plan: active[p.plan]!, dates: p.dates, way: p.way, section: reading.nameOf(plans[p.plan]!).section, words: wordsOf(plans[p.plan]!, reading) }))
}

