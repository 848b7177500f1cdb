/** Planning captures: what can be chosen, the captures of a span of days, planning one, taking one back. */
import { ExclusionConstraintError, QueryTypes } from 'sequelize'
import { statesBefore, type CaptureState } from '~~/core/capture/states'
import { clashesWith, nearestFree } from '~~/core/timetable/clash'
import { instantOf, wallOf } from '~~/core/term/calendar'
import type { PlanCapture } from '~~/shared/timetable/plan-capture'
import type { InputKind } from '~~/shared/inputs'
import type { CaptureView, ClashView, PlanChoices, RoomView } from '~~/shared/timetable/views'
import { campusNow } from '../adapters/clock'
import { database } from '../models/database'
import { Capture } from '../models/capture'
import { Person } from '../models/person'
import { Room } from '../models/room'
import { Section } from '../models/section'
import { record } from './audit'
import { nothingHere, Refusal } from './errors'
import { tell } from './live'
import { currentTerm } from './term'

/** A room opens and closes at these campus times. */
const DAY = { opens: '08:00', closes: '21:00' }
/** Starts are proposed on whole five minutes. */
const STEP_MS = 5 * 60_000

export async function planChoices(): Promise<PlanChoices> {
  const { id } = await currentTerm()
  const sections = await database.query<PlanChoices['sections'][number]>(`
    SELECT s.id, c.code || '/' || s.number AS code, c.title,
      count(*) FILTER (WHERE l.role = 'student') AS people,
      coalesce(array_agg(l.person_id) FILTER (WHERE l.role = 'instructor'), '{}') AS "presenterIds"
    FROM sections s JOIN courses c ON c.id = s.course_id LEFT JOIN class_list l ON l.section_id = s.id
    WHERE s.term_id = $id GROUP BY s.id, c.code, c.title ORDER BY c.code, s.number`, { bind: { id }, type: QueryTypes.SELECT })
  const presenters = await Person.findAll({ where: { role: ['instructor', 'staff'], barred: false }, attributes: ['id', 'name'], order: ['name'], raw: true })
  return { sections, presenters, rooms: await rooms() }
}

export async function rooms(): Promise<RoomView[]> {
  const found = await Room.findAll({ order: [['seats', 'DESC'], 'name'], raw: true })
  return found.map((r) => ({ ...r, inputs: r.inputs as InputKind[] }))
}

export interface CaptureSpan { from: number, to: number, roomId?: string, sectionIds?: string[] | null, captureId?: string }

/** Captures that start in [from, to), earliest first; left-out and cancelled ones are not among them. */
export async function capturesIn(span: CaptureSpan): Promise<CaptureView[]> {
  const rows = await database.query<Omit<CaptureView, 'start' | 'end'> & { start: Date, end: Date }>(`
    SELECT c.id, c.section_id AS "sectionId", co.code || '/' || s.number AS section, co.title AS course,
      c.room_id AS "roomId", r.name AS room, p.name AS presenter, c.topic, c.starts_at AS start, c.ends_at AS end,
      c.inputs, c.state, rec.id AS "recordingId", coalesce(rec.trouble, '') AS trouble
    FROM captures c JOIN sections s ON s.id = c.section_id JOIN courses co ON co.id = s.course_id
      JOIN rooms r ON r.id = c.room_id JOIN people p ON p.id = c.presenter_id LEFT JOIN recordings rec ON rec.capture_id = c.id
    WHERE c.starts_at >= $from AND c.starts_at < $to AND c.state NOT IN ('left_out', 'cancelled')
      AND ($room::uuid IS NULL OR c.room_id = $room) AND ($capture::uuid IS NULL OR c.id = $capture)
      AND ($all OR c.section_id = ANY($sections::uuid[]))
    ORDER BY c.starts_at, r.name`, {
    bind: {
      from: new Date(span.from), to: new Date(span.to), room: span.roomId ?? null, capture: span.captureId ?? null,
      all: !span.sectionIds, sections: span.sectionIds ?? [],
    },
    type: QueryTypes.SELECT,
  })
  return rows.map((row) => ({ ...row, start: row.start.getTime(), end: row.end.getTime() }))
}

/**
 * Plans one capture.
 * @returns its id, and warnings that do not stop it
 * @throws Refusal 409 with a {@link ClashView} when the room is taken; 422 with `fields` for what does not fit
 */
export async function planOne(plan: PlanCapture, plannedBy: string): Promise<{ id: string, warnings: string[] }> {
  const { term } = await currentTerm()
  const [section, room, presenter] = await Promise.all([Section.findByPk(plan.sectionId), Room.findByPk(plan.roomId), Person.findByPk(plan.presenterId)])
  if (!section) throw wrong('sectionId', 'This section is no longer there. Choose another.')
  if (!room) throw wrong('roomId', 'This room is no longer there. Choose another.')
  if (!presenter || presenter.role === 'student') throw wrong('presenterId', 'This person cannot present. Choose another.')
  const lacking = plan.inputs.filter((input) => !room.inputs.includes(input))
  if (lacking.length) throw wrong('inputs', `${room.name} has no ${lacking.join(', no ')}.`)
  const span = spanOf(term.zone, plan)
  if (span.start <= campusNow()) throw wrong('start', 'This time has passed. Captures can be planned from now on.')
  try {
    const id = await database.transaction(async (transaction) => {
      const capture = await Capture.create({
        sectionId: section.id, roomId: room.id, presenterId: presenter.id, topic: plan.topic?.trim() ?? '',
        startsAt: new Date(span.start), endsAt: new Date(span.end), inputs: plan.inputs, plannedBy,
      }, { transaction, returning: ['id'] })
      await record(transaction, plannedBy, 'planned', capture.id)
      await tell({ topic: 'capture', id: capture.id, sectionId: section.id }, transaction)
      return capture.id
    })
    return { id, warnings: await presenterElsewhere(presenter, id, span, term.zone) }
  } catch (error) {
    if (error instanceof ExclusionConstraintError) throw new Refusal(409, 'The room is taken.', await clashOf(plan, room, span, term.zone))
    throw error
  }
}

const wrong = (field: string, sentence: string) => new Refusal(422, sentence, { fields: { [field]: sentence } })

function spanOf(zone: string, plan: PlanCapture) {
  let start: number
  try {
    start = instantOf(zone, plan.date, plan.start)
  } catch {
    throw wrong('date', 'There is no such day in the calendar.')
  }
  return { start, end: start + plan.minutes * 60_000 }
}

/** What is in the way, and the ways out. The winner of a race may be gone again; then only that is said. */
async function clashOf(plan: PlanCapture, room: Room, span: { start: number, end: number }, zone: string): Promise<ClashView> {
  const day = { start: instantOf(zone, plan.date, DAY.opens), end: instantOf(zone, plan.date, DAY.closes) }
  const around = await capturesIn({ from: day.start - 12 * 3600_000, to: day.end + 12 * 3600_000 })
  const inRoom = around.filter((c) => c.roomId === room.id)
  const [clash] = clashesWith(span, inRoom, room.turnaroundMinutes)
  const nearest = nearestFree(span, inRoom, room.turnaroundMinutes, { start: Math.max(day.start, Math.ceil(campusNow() / STEP_MS) * STEP_MS), end: day.end })
  const seats = (await planChoices()).sections.find((s) => s.id === plan.sectionId)?.people ?? 0
  const freeRooms = (await rooms())
    .filter((r) => r.id !== room.id && plan.inputs.every((i) => r.inputs.includes(i)) && r.seats >= seats)
    .filter((r) => !clashesWith(span, around.filter((c) => c.roomId === r.id), r.turnaroundMinutes).length)
    // The smallest room that seats the class leaves the large ones to others.
    .sort((a, b) => a.seats - b.seats)
    .slice(0, 3)
  const time = (instant: number) => wallOf(zone, instant).time
  return {
    sentence: clash
      ? `${room.name} is taken: ${clash.section} with ${clash.presenter}, ${time(clash.start)} to ${time(clash.end)}${room.turnaroundMinutes ? `, and ${room.turnaroundMinutes} min to turn the room around` : ''}.`
      : `${room.name} was taken at this moment by someone else. Try again.`,
    clash: clash ? { id: clash.id, section: clash.section, presenter: clash.presenter, start: clash.start, end: clash.end } : null,
    nearestStart: nearest === undefined ? null : time(nearest),
    freeRooms: freeRooms.map(({ id, name, seats }) => ({ id, name, seats })),
  }
}

async function presenterElsewhere(presenter: Person, captureId: string, span: { start: number, end: number }, zone: string): Promise<string[]> {
  const rows = await database.query<{ section: string, room: string, start: Date }>(`
    SELECT co.code || '/' || s.number AS section, r.name AS room, c.starts_at AS start
    FROM captures c JOIN sections s ON s.id = c.section_id JOIN courses co ON co.id = s.course_id JOIN rooms r ON r.id = c.room_id
    WHERE c.presenter_id = $presenter AND c.id <> $id AND c.state NOT IN ('left_out', 'cancelled') AND c.starts_at < $end AND c.ends_at > $start`,
  { bind: { presenter: presenter.id, id: captureId, start: new Date(span.start), end: new Date(span.end) }, type: QueryTypes.SELECT })
  return rows.map((r) => `${presenter.name} is also in ${r.room} for ${r.section} at ${wallOf(zone, r.start.getTime()).time}.`)
}

/** Takes a capture that has not begun out of the plan, or puts it back. @throws Refusal 409 when it has begun or the room is taken */
export async function setCancelled(id: string, cancelled: boolean): Promise<void> {
  const to: CaptureState = cancelled ? 'cancelled' : 'planned'
  try {
    await database.transaction(async (transaction) => {
      const capture = await Capture.findByPk(id, { transaction, lock: true })
      if (!capture) throw nothingHere()
      const begun = capture.startsAt.getTime() <= campusNow()
      if (begun || !statesBefore(to).includes(capture.state)) throw new Refusal(409, 'This capture has begun; what was recorded is not touched by the plan.')
      await capture.update({ state: to, revision: capture.revision + 1 }, { transaction })
      await tell({ topic: 'capture', id, sectionId: capture.sectionId }, transaction)
    })
  } catch (error) {
    if (error instanceof ExclusionConstraintError) throw new Refusal(409, 'The room has been given to another capture meanwhile.')
    throw error
  }
}
