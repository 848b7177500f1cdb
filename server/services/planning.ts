/** Planning captures: looking a plan over before it is saved, and saving one or a whole term of them. */
import { randomUUID } from 'node:crypto'
import type { CreationAttributes, Transaction } from 'sequelize'
import type { Term } from '~~/core/term/calendar'
import { Zone } from '~~/core/term/zone'
import type { WantedField } from '~~/core/timetable/difference'
import { problemsOf, ruleWords } from '~~/core/timetable/rule'
import type { Occurrence, Wanted } from '~~/core/timetable/wanted'
import { wantedOf, type PlanCaptures } from '~~/shared/timetable/plan-captures'
import type { Edited, PlanPreview } from '~~/shared/timetable/views'
import { Capture } from '../models/capture'
import { CapturePlan } from '../models/capture-plan'
import { Course } from '../models/course'
import { Person } from '../models/person'
import { Room } from '../models/room'
import { Section } from '../models/section'
import { campusOf, examine, previewOf } from './clashes'
import { edit, type EditLog } from './edits'
import { Refusal } from './errors'
import { termOf } from './term'

export const wrong = (field: string, sentence: string) => new Refusal(422, sentence, { fields: { [field]: sentence } })

interface Fitting { wanted: Wanted, termId: string, term: Term, section: string, presenter: string }

/** A form's plan with everything it names looked up. @throws Refusal 422 with `fields` for what does not fit */
async function fitting(plan: PlanCaptures): Promise<Fitting> {
  const [section, room, presenter] = await Promise.all([Section.findByPk(plan.sectionId), Room.findByPk(plan.roomId), Person.findByPk(plan.presenterId)])
  if (!section) throw wrong('sectionId', 'This section is no longer there. Choose another.')
  if (!room || room.retired) throw wrong('roomId', 'This room is no longer there. Choose another.')
  if (!presenter || presenter.role === 'student') throw wrong('presenterId', 'This person cannot present. Choose another.')
  const { id: termId, term } = await termOf(section.termId)
  const wanted = wantedOf(plan)
  const problems = problemsOf(wanted, term)
  if (Object.keys(problems).length) throw new Refusal(422, Object.values(problems)[0]!, { fields: problems })
  await refuseLacking(wanted, room)
  const course = (await Course.findByPk(section.courseId))!
  return { wanted, termId, term, section: `${course.code}/${section.number}`, presenter: presenter.name }
}

async function refuseLacking(wanted: Wanted, room: Room): Promise<void> {
  const elsewhere = Object.values(wanted.exceptions).flatMap((e) => e.roomId ?? [])
  for (const each of [room, ...await Room.findAll({ where: { id: elsewhere } })]) {
    const lacking = wanted.inputs.filter((input) => !each.inputs.includes(input))
    if (lacking.length) throw wrong('inputs', `${each.name} has no ${lacking.join(', no ')}.`)
  }
}

/** A plan's dates, clashes and ways out. @throws Refusal 422 */
export async function previewPlan(plan: PlanCaptures): Promise<PlanPreview> {
  const { wanted, termId, term, section, presenter } = await fitting(plan)
  const campus = await campusOf(termId, term)
  return previewOf(wanted, await examine([wanted], campus, () => ({ section, presenter })), term)
}

/**
 * Saves a plan and its captures.
 * @throws Refusal 422 with `fields`; 409 with the {@link PlanPreview} when a room is taken
 */
export async function planCaptures(plan: PlanCaptures, plannedBy: string): Promise<Edited & { planId: string, captureId: string }> {
  const { wanted, termId, term, section, presenter } = await fitting(plan)
  const campus = await campusOf(termId, term)
  const examined = await examine([wanted], campus, () => ({ section, presenter }))
  if (!examined.occurrences.length) throw wrong(plan.repeat === 'once' ? 'start' : 'weekdays', 'This time has passed. Captures can be planned from now on.')
  if (examined.clashes.length) throw new Refusal(409, examined.clashes[0]!.sentence, previewOf(wanted, examined, term))
  const n = examined.occurrences.length
  const sentence = n === 1 ? `${section} planned, ${ruleWords(wanted)}.` : `${n} captures of ${section} planned: ${ruleWords(wanted)}.`
  const done = await edit(plannedBy, 'planned', async (log) => {
    const [written] = await writePlans([wanted], examined.occurrences, { term, termId, plannedBy, told: [plan.told] }, log)
    return { sentence, planId: written!.planId, captureId: written!.captureIds[0]! }
  }).catch(async (error: unknown) => {
    // Somebody was quicker: what is in the way now is named like any other clash.
    const again = error instanceof Refusal ? await examine([wanted], campus, () => ({ section, presenter })) : undefined
    throw again?.clashes.length ? new Refusal(409, again.clashes[0]!.sentence, previewOf(wanted, again, term)) : error
  })
  return { ...done, warnings: examined.warnings }
}

export interface WriteOptions { term: Term, termId: string, plannedBy: string | null, told?: readonly string[][], source?: { id: string, keys: readonly string[] } }

/** Rows at once: the statement stays small beside the room constraint's work. */
const PIECE = 500

/** Writes plans with their captures. @returns for each plan its id and its captures' */
export async function writePlans(plans: readonly Wanted[], occurrences: readonly Occurrence[], options: WriteOptions, log: EditLog): Promise<{ planId: string, captureIds: string[] }[]> {
  const written = plans.map(() => ({ planId: randomUUID() as string, captureIds: [] as string[] }))
  await CapturePlan.bulkCreate(plans.map((p, i) => ({ ...planRow(written[i]!.planId, p, options, options.told?.[i] ?? []), sourceId: options.source?.id ?? null, sourceKey: options.source?.keys[i] ?? null })), { transaction: log.transaction, returning: false })
  const rows = captureRows(plans, occurrences, written, options)
  await writeCaptures(rows, log.transaction)
  log.created('plans', written.map((w) => w.planId))
  log.created('captures', rows.map((r) => r.id!))
  for (const p of plans) log.sectionIds.add(p.sectionId)
  return written
}

export async function writeCaptures(rows: CreationAttributes<Capture>[], transaction: Transaction): Promise<void> {
  for (let i = 0; i < rows.length; i += PIECE) await Capture.bulkCreate(rows.slice(i, i + PIECE), { transaction, returning: false })
}

function planRow(id: string, p: Wanted, { termId, plannedBy }: WriteOptions, told: string[]): CreationAttributes<CapturePlan> {
  return {
    id, termId, sectionId: p.sectionId, roomId: p.roomId, presenterId: p.presenterId, title: p.title, inputs: p.inputs, told, weekdays: p.weekdays,
    start: p.start, minutes: p.minutes, weeks: p.weeks, fromDay: p.from, until: p.until, leftOut: p.leftOut, plannedBy, ended: false,
  }
}

function captureRows(plans: readonly Wanted[], occurrences: readonly Occurrence[], written: { planId: string, captureIds: string[] }[], options: WriteOptions): CreationAttributes<Capture>[] {
  const zone = Zone.of(options.term.zone)
  return occurrences.map((o) => {
    const p = plans[o.plan]!
    const id = randomUUID()
    written[o.plan]!.captureIds.push(id)
    const own = [...(o.roomId === p.roomId ? [] : ['room' as const]), ...(zone.wall(o.start).time === p.start ? [] : ['start' as const])]
    return {
      id, sectionId: p.sectionId, roomId: o.roomId, presenterId: o.presenterId, topic: p.title, startsAt: new Date(o.start), endsAt: new Date(o.end),
      inputs: p.inputs, plannedBy: options.plannedBy, planId: written[o.plan]!.planId, planDate: o.date, own,
    }
  })
}


/** What of a plan's row changes with some fields of what is wanted. */
export function planRowChanges(p: Wanted, fields: readonly WantedField[]): Partial<CreationAttributes<CapturePlan>> {
  const has = (field: WantedField) => fields.includes(field)
  return {
    ...(has('dates') ? { weekdays: p.weekdays, weeks: p.weeks, fromDay: p.from, until: p.until, leftOut: p.leftOut } : {}), ...(has('start') ? { start: p.start } : {}),
    ...(has('minutes') ? { minutes: p.minutes } : {}), ...(has('room') ? { roomId: p.roomId } : {}), ...(has('presenter') ? { presenterId: p.presenterId } : {}),
    ...(has('inputs') || has('room') ? { inputs: p.inputs } : {}), ...(has('title') ? { title: p.title } : {}),
  }
}
