/** Taking a timetable in that was looked over: one transaction, one edit that can be undone. */
import { createHash } from 'node:crypto'
import { Op } from 'sequelize'
import type { Term } from '~~/core/term/calendar'
import { Zone } from '~~/core/term/zone'
import type { OwnField } from '~~/core/timetable/change'
import { fieldsBetween, type WantedField } from '~~/core/timetable/difference'
import { occurrencesOf, type Occurrence, type Wanted } from '~~/core/timetable/wanted'
import { campusNow } from '../adapters/clock'
import { Capture } from '../models/capture'
import { CapturePlan } from '../models/capture-plan'
import type { Import } from '../models/import'
import { TimetableSource } from '../models/timetable-source'
import { TimetableSourcePlan } from '../models/timetable-source-plan'
import { examine } from './clashes'
import { edit, type EditLog } from './edits'
import { Refusal } from './errors'
import { planRowChanges, writeCaptures, writePlans } from './planning'
import { readAll, type Reading } from './timetable-reading'

/**
 * @returns the edit
 * @throws Refusal 409 when plans clash that were neither settled nor left out; then nothing is written
 */
export async function takeTimetable(item: Import, onStep: (percent: number, step: string) => Promise<void>): Promise<{ editId: string, sentence: string }> {
  const reading = await readAll(item, (percent, step) => onStep(percent * 0.5, step))
  const { difference, settled, leftOut, campus, known, incoming } = reading
  const added = difference.added.filter((i) => !leftOut.has(i))
  const changed = difference.changed.filter((c) => !leftOut.has(c.incoming))
  const active = [...added, ...changed.map((c) => c.incoming)]
  await onStep(30, 'looking for clashes')
  const examined = await examine(active.map((i) => settled[i]!), campus, reading.nameOf, reading.making.captureIds)
  if (examined.clashes.length) throw new Refusal(409, `${examined.clashes[0]!.sentence} Settle or leave out what clashes, then take the rest in.`)
  const occurrences = active.map((_, at) => examined.occurrences.filter((o) => o.plan === at))
  const sentence = sentenceFor(item, added.length, changed.length, difference.gone.length)
  return edit(item.askedBy, item.kind === 'roll-over' ? 'rolled over' : 'brought in', async (log) => {
    const source = (await TimetableSource.findByPk(item.sourceId!, { transaction: log.transaction, lock: true }))!
    await onStep(50, 'writing captures')
    const keys = added.map((i) => incoming[i]!.key || keyOf(incoming[i]!.wanted, i))
    const mine = occurrences.slice(0, added.length).flatMap((list, at) => list.map((o) => ({ ...o, plan: at })))
    await writePlans(added.map((i) => settled[i]!), mine, { term: reading.term, termId: reading.termId, plannedBy: item.askedBy, source: { id: source.id, keys } }, log)
    await onStep(80, 'changing captures')
    for (const [at, c] of changed.entries()) {
      await reconcile(reading, { key: known[c.known]!.key, before: known[c.known]!.wanted, after: settled[c.incoming]!, fields: fieldsOf(reading, c), occurrences: occurrences[added.length + at]! }, source.id, log)
    }
    await cancel(reading.making.goneIds, log)
    await endPlans(source.id, difference.gone.map((k) => known[k]!.key), log)
    await onStep(95, 'remembering what the source said')
    await remember(source, reading, new Map(added.map((i, at) => [i, keys[at]!])), log)
    return { sentence }
  })
}

function sentenceFor(item: Import, added: number, changed: number, gone: number): string {
  const parts = [added ? `${added} plans new` : '', changed ? `${changed} changed` : '', gone ? `${gone} gone` : ''].filter(Boolean)
  return `${item.kind === 'roll-over' ? 'Rolled over' : 'Brought in'} ${item.name}: ${parts.join(', ') || 'nothing was different'}.`
}

/** A name for a plan whose source gives it none; two alike get different ones by their place in the file. */
const keyOf = (w: Wanted, place: number): string => createHash('sha256').update(JSON.stringify([w, place])).digest('base64url').slice(0, 22)

/** What differs from how the plan stands: what the source changed, and what was decided about its clashes. */
function fieldsOf({ standing, known, incoming, settled }: Reading, c: Reading['difference']['changed'][number]): WantedField[] {
  const stands = standing.get(known[c.known]!.key)
  return stands ? fieldsBetween(stands, settled[c.incoming]!) : [...new Set([...c.fields, ...fieldsBetween(incoming[c.incoming]!.wanted, settled[c.incoming]!)])]
}

interface ChangedPlan { key: string, before: Wanted, after: Wanted, fields: WantedField[], occurrences: Occurrence[] }

/**
 * Brings the captures of a known plan to what the source says now: only what the source itself has
 * changed is touched, and what was changed by hand for a date stays.
 */
async function reconcile({ term }: Reading, plan: ChangedPlan, sourceId: string, log: EditLog): Promise<void> {
  const { transaction } = log
  const plans = await CapturePlan.findAll({ where: { sourceId, sourceKey: plan.key, ended: false }, order: ['id'], transaction })
  const [first] = plans
  if (!first) return
  await log.keep('plans', plans.map((p) => p.id))
  const ahead = await Capture.findAll({ where: { planId: plans.map((p) => p.id), startsAt: { [Op.gt]: new Date(campusNow()) }, state: ['planned', 'armed'] }, transaction })
  await log.keep('captures', ahead.map((c) => c.id))
  const before = new Set(occurrencesOf([plan.before], term).map((o) => o.date))
  const after = new Map(plan.occurrences.map((o) => [o.date, o]))
  for (const capture of ahead) {
    const wanted = after.get(capture.planDate!)
    if (wanted) await capture.update({ ...changesFor(capture, wanted, plan, term), revision: capture.revision + 1 }, { transaction })
    // Only days that the source itself took away go; days moved there by hand are not its own.
    else if (plan.fields.includes('dates') && before.has(capture.planDate!) && !capture.own.length) await capture.update({ state: 'cancelled', revision: capture.revision + 1 }, { transaction })
  }
  const there = new Set((await Capture.findAll({ where: { planId: plans.map((p) => p.id) }, attributes: ['planDate'], transaction })).map((c) => c.planDate))
  const fresh = plan.occurrences.filter((o) => !there.has(o.date) && !before.has(o.date))
  const ids = await writeFresh(fresh, plan.after, first, log)
  log.created('captures', ids)
  for (const p of plans) await p.update(planRowChanges(plan.after, plan.fields), { transaction })
}

function changesFor(capture: Capture, wanted: Occurrence, { after, fields }: ChangedPlan, term: Term): Partial<Capture> {
  // A date that was decided to go elsewhere differs from its plan, and is then its own.
  const elsewhere: OwnField[] = [...(Zone.of(term.zone).wall(wanted.start).time === after.start ? [] : ['start' as const]), ...(wanted.roomId === after.roomId ? [] : ['room' as const])]
  const takes = (field: WantedField & OwnField) => (fields.includes(field) || elsewhere.includes(field)) && !capture.own.includes(field)
  const wall = Zone.of(term.zone).wall(capture.startsAt.getTime())
  const start = takes('start') ? wanted.start : capture.startsAt.getTime()
  const length = takes('minutes') ? wanted.end - wanted.start : capture.endsAt.getTime() - capture.startsAt.getTime()
  return {
    startsAt: new Date(wall.date === capture.planDate ? start : capture.startsAt.getTime()), endsAt: new Date((wall.date === capture.planDate ? start : capture.startsAt.getTime()) + length),
    ...(takes('room') ? { roomId: wanted.roomId } : {}), ...(takes('presenter') ? { presenterId: wanted.presenterId } : {}),
    ...(takes('inputs') || takes('room') ? { inputs: after.inputs } : {}), ...(takes('title') ? { topic: after.title } : {}), state: 'planned', own: [...new Set([...capture.own, ...elsewhere])],
  } as Partial<Capture>
}

async function writeFresh(occurrences: Occurrence[], wanted: Wanted, plan: CapturePlan, log: EditLog): Promise<string[]> {
  const rows = occurrences.map((o) => Capture.build({
    sectionId: wanted.sectionId, roomId: o.roomId, presenterId: o.presenterId, topic: wanted.title, startsAt: new Date(o.start), endsAt: new Date(o.end),
    inputs: wanted.inputs, plannedBy: plan.plannedBy, planId: plan.id, planDate: o.date, own: [],
  }).get({ plain: true }))
  await writeCaptures(rows, log.transaction)
  log.sectionIds.add(wanted.sectionId)
  return rows.map((r) => r.id)
}

async function cancel(ids: string[], log: EditLog): Promise<void> {
  if (!ids.length) return
  await log.keep('captures', ids)
  await Capture.update({ state: 'cancelled', revision: Capture.sequelize!.literal('revision + 1') as never }, { where: { id: ids }, transaction: log.transaction })
}

/** Plans that are gone end, unless something of them was changed by hand and so stays. */
async function endPlans(sourceId: string, keys: string[], log: EditLog): Promise<void> {
  const { transaction } = log
  const plans = await CapturePlan.findAll({ where: { sourceId, sourceKey: keys, ended: false }, transaction })
  await log.keep('plans', plans.map((p) => p.id))
  for (const plan of plans) {
    const left = await Capture.count({ where: { planId: plan.id, startsAt: { [Op.gt]: new Date(campusNow()) }, state: { [Op.notIn]: ['cancelled', 'left_out'] } }, transaction })
    if (!left) await plan.update({ ended: true }, { transaction })
  }
}

/** What the source says now is what it is compared with next time. */
async function remember(source: TimetableSource, { incoming, difference, known, leftOut, mapping }: Reading, keys: Map<number, string>, log: EditLog): Promise<void> {
  const { transaction } = log
  await log.keepSource(source.id)
  const rows = [...keys].map(([i, key]) => ({ key, wanted: incoming[i]!.wanted }))
  for (const c of difference.changed) if (!leftOut.has(c.incoming)) rows.push({ key: known[c.known]!.key, wanted: incoming[c.incoming]!.wanted })
  await TimetableSourcePlan.destroy({ where: { sourceId: source.id, key: difference.gone.map((k) => known[k]!.key) }, transaction })
  await TimetableSourcePlan.bulkCreate(rows.map((r) => ({ ...r, sourceId: source.id })), { transaction, updateOnDuplicate: ['wanted'] })
  await source.update({ mapping }, { transaction })
}
