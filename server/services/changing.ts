/** Changing captures that are still to come: looking a change over date by date, and doing it. */
import { randomUUID } from 'node:crypto'
import { wallOf, weekdayOf, weekdayNames, type Term } from '~~/core/term/calendar'
import { dateSentence } from '~~/core/term/words'
import { changesOf, daysMoved, mayChange, regrouped, type Change, type Changed, type Piece, type Planned } from '~~/core/timetable/change'
import { clashesOf, type Occurrence } from '~~/core/timetable/wanted'
import { needOf, occupancyOf, waysOut } from '~~/core/timetable/ways-out'
import type { ChangeCaptures } from '~~/shared/timetable/change-captures'
import type { ChangeLine, ChangePreview, Edited } from '~~/shared/timetable/views'
import { campusNow } from '../adapters/clock'
import { Capture } from '../models/capture'
import { CapturePlan } from '../models/capture-plan'
import { Course } from '../models/course'
import { Person } from '../models/person'
import { Room } from '../models/room'
import { Section } from '../models/section'
import { campusOf, standingBetween, type NamedStanding } from './clashes'
import { edit, type EditLog } from './edits'
import { nothingHere, Refusal } from './errors'
import { wrong } from './planning'
import { termOf } from './term'

interface Asked {
  chosen: Planned
  all: Planned[]
  plan: CapturePlan | null
  section: Section
  sectionName: string
  termId: string
  term: Term
  change: Change
  changed: Changed[]
  untouched: Planned[]
}

const plannedOf = (c: Capture, term: Term): Planned => ({
  id: c.id, planDate: c.planDate ?? wallOf(term.zone, c.startsAt.getTime()).date, start: c.startsAt.getTime(), end: c.endsAt.getTime(), roomId: c.roomId,
  presenterId: c.presenterId, inputs: c.inputs, title: c.topic, state: c.state, own: c.own,
})

/** Everything a change concerns. @throws Refusal 404, 409 when the capture has begun, 422 for what does not fit */
async function asked(captureId: string, wish: ChangeCaptures): Promise<Asked> {
  const capture = await Capture.findByPk(captureId)
  if (!capture) throw nothingHere()
  const section = (await Section.findByPk(capture.sectionId))!
  const { id: termId, term } = await termOf(section.termId)
  const plan = capture.planId ? await CapturePlan.findByPk(capture.planId) : null
  const all = (plan ? await Capture.findAll({ where: { planId: plan.id } }) : [capture]).map((c) => plannedOf(c, term))
  const chosen = all.find((c) => c.id === captureId)!
  if (wish.scope !== 'all' && !mayChange(chosen, campusNow())) throw new Refusal(409, 'This capture has begun; what was recorded is not touched by the plan.')
  const change = changeOf(wish, chosen, term)
  await refuseUnfit(wish, all, section.id)
  const { changed, untouched } = changesOf(all, chosen, plan ? wish.scope : 'one', change, term, campusNow(), wish.weekdayOnly)
  const course = (await Course.findByPk(section.courseId))!
  const skipped = changed.find((c) => wish.start && !c.keeps.includes('start') && wallOf(term.zone, c.after.start).time !== wish.start)
  if (skipped) throw wrong('start', `${wish.start} does not exist on ${dateSentence(wallOf(term.zone, skipped.after.start).date)}: the clocks go forward over it. Choose another time.`)
  const kept = new Set(wish.except)
  return { chosen, all, plan, section, sectionName: `${course.code}/${section.number}`, termId, term, change, changed: changed.filter((c) => !kept.has(c.before.planDate)), untouched }
}

function changeOf(wish: ChangeCaptures, chosen: Planned, term: Term): Change {
  let days: number | undefined
  try {
    days = wish.date === undefined ? undefined : daysMoved(wallOf(term.zone, chosen.start).date, wish.date) || undefined
  } catch {
    throw wrong('date', 'There is no such day in the calendar.')
  }
  return { days, start: wish.start, minutes: wish.minutes, roomId: wish.roomId, presenterId: wish.presenterId, inputs: wish.inputs, title: wish.title?.trim(), cancelled: wish.cancelled }
}

async function refuseUnfit(wish: ChangeCaptures, all: Planned[], sectionId: string): Promise<void> {
  if (wish.presenterId) {
    const presenter = await Person.findByPk(wish.presenterId)
    if (!presenter || presenter.role === 'student') throw wrong('presenterId', 'This person cannot present. Choose another.')
  }
  const room = wish.roomId ? await Room.findByPk(wish.roomId) : null
  if (wish.roomId && (!room || room.retired)) throw wrong('roomId', 'This room is no longer there. Choose another.')
  if (!room && !wish.inputs) return
  const rooms = room ? [room] : await Room.findAll({ where: { id: [...new Set(all.map((c) => c.roomId))] } })
  const inputs = new Set(wish.inputs ?? all.flatMap((c) => c.inputs))
  for (const each of rooms) {
    const lacking = [...inputs].filter((input) => !each.inputs.includes(input))
    if (lacking.length) throw wrong(room ? 'roomId' : 'inputs', `${each.name} has no ${lacking.join(', no ')}. ${wish.inputs ? '' : `Choose what ${sectionId ? 'it' : ''} takes in there too.`}`.trim())
  }
}

/** A change date by date. @throws Refusal as {@link asked} */
export async function previewChange(captureId: string, wish: ChangeCaptures): Promise<ChangePreview> {
  const facts = await asked(captureId, wish)
  const { lines, warnings } = await linesOf(facts)
  return { lines, warnings, untouched: facts.untouched.length, sentence: sentenceOf(facts, wish), weekdays: [...new Set(facts.all.map((c) => weekdayOf(c.planDate)))].sort() }
}

async function linesOf({ changed, section, termId, term }: Asked): Promise<{ lines: ChangeLine[], warnings: string[] }> {
  if (!changed.length) return { lines: [], warnings: [] }
  const campus = await campusOf(termId, term)
  const kept = changed.map((c) => c.after).filter((a) => a.state !== 'cancelled' && a.state !== 'left_out')
  const starts = kept.map((a) => a.start)
  const standing = kept.length ? await standingBetween(Math.min(...starts), Math.max(...starts) + 8 * 3600_000, changed.map((c) => c.before.id)) : []
  // Each changed capture stands for a plan of its own, so that ways out are found for it alone.
  const occurrences = kept.map((a, plan): Occurrence => ({ plan, date: wallOf(term.zone, a.start).date, week: null, start: a.start, end: a.end, roomId: a.roomId, presenterId: a.presenterId }))
  const found = clashesOf(occurrences, standing, new Map(campus.rooms.map((r) => [r.id, r.turnaroundMinutes])))
  const people = new Map((await Person.findAll({ where: { id: [...new Set(changed.flatMap((c) => [c.before.presenterId, c.after.presenterId]))] }, attributes: ['id', 'name'] })).map((p) => [p.id, p.name]))
  const room = new Map((await Room.findAll({ attributes: ['id', 'name'] })).map((r) => [r.id, r.name]))
  const taken = occupancyOf(campus, standing, occurrences, new Set(found.rooms.map((c) => c.at)))
  const shape = (p: Planned) => ({ start: p.start, end: p.end, room: room.get(p.roomId) ?? '', presenter: people.get(p.presenterId) ?? '', state: p.state })
  const lines = changed.map((c): ChangeLine => {
    const i = kept.indexOf(c.after)
    const clash = found.rooms.find((x) => x.at.plan === i)
    const other = clash && 'standing' in clash.with ? clash.with.standing as NamedStanding : undefined
    const wanted = { sectionId: section.id, roomId: c.after.roomId, inputs: c.after.inputs, start: wallOf(term.zone, c.after.start).time }
    return {
      captureId: c.before.id, planDate: c.before.planDate, before: shape(c.before), after: shape(c.after), keeps: c.keeps, what: wordsOf(c, shape(c.before), shape(c.after), term),
      clash: clash ? `${room.get(c.after.roomId)} is taken by ${other ? `${other.section} with ${other.presenter}, ${wallOf(term.zone, other.start).time}–${wallOf(term.zone, other.end).time}` : 'another date of this change'}` : '',
      ways: clash ? waysOut(needOf(wanted, { plan: i, dates: [occurrences[i]!] }, 1, campus.seatsOf(wanted)), campus.rooms, taken, campus.hours, term, campus.now) : [],
    }
  })
  return { lines, warnings: [...new Set(found.presenters.map((c) => presenterWords(c.at, people, c.with, term)))].slice(0, 8) }
}

function presenterWords(at: Occurrence, people: Map<string, string>, other: { standing: object } | { occurrence: object }, term: Term): string {
  const s = 'standing' in other ? other.standing as NamedStanding : undefined
  return `${people.get(at.presenterId)} is also ${s ? `in ${s.room} for ${s.section}` : 'in another of these captures'} on ${dateSentence(at.date)} at ${wallOf(term.zone, at.start).time}.`
}

function wordsOf(c: Changed, before: ChangeLine['before'], after: ChangeLine['after'], term: Term): string[] {
  const [from, to] = [wallOf(term.zone, before.start), wallOf(term.zone, after.start)]
  const words: string[] = []
  if (from.date !== to.date) words.push(`${dateSentence(from.date)} → ${dateSentence(to.date)}`)
  if (from.time !== to.time) words.push(`${from.time} → ${to.time}`)
  const [was, is] = [(before.end - before.start) / 60_000, (after.end - after.start) / 60_000]
  if (was !== is) words.push(`${was} → ${is} min`)
  if (before.room !== after.room) words.push(`${before.room} → ${after.room}`)
  if (before.presenter !== after.presenter) words.push(`${before.presenter} → ${after.presenter}`)
  if (c.before.inputs.join() !== c.after.inputs.join()) words.push(`takes in ${c.after.inputs.join(', ')}`)
  if (c.before.title !== c.after.title) words.push(`title “${c.after.title}”`)
  if (before.state !== after.state) words.push(after.state === 'cancelled' ? 'cancelled' : 'put back')
  return words
}

function sentenceOf({ changed, sectionName, term, chosen }: Asked, wish: ChangeCaptures): string {
  if (!changed.length) return wish.told ? `Other people are told of ${sectionName}.` : `Nothing of ${sectionName} changes.`
  const [first] = changed
  const date = dateSentence(wallOf(term.zone, first!.before.start).date)
  const which = changed.length === 1 ? `${sectionName} of ${date}` : `${changed.length} captures of ${sectionName} from ${date} on`
  const day = wish.weekdayOnly && changed.length > 1 ? ` (${weekdayNames[weekdayOf(chosen.planDate) - 1]} only)` : ''
  if (wish.cancelled !== undefined) return `${which}${day} ${wish.cancelled ? 'cancelled' : 'put back'}.`
  const wall = wallOf(term.zone, first!.after.start)
  const what = [
    ...(wish.date !== undefined && first!.before.start !== first!.after.start ? [`to ${weekdayNames[wall.weekday - 1]}`] : []), ...(wish.start ? [`at ${wish.start}`] : []),
    ...(wish.minutes ? [`for ${wish.minutes} min`] : []), ...(wish.roomId ? ['to another room'] : []), ...(wish.presenterId ? ['with another presenter'] : []),
    ...(wish.inputs ? ['with other inputs'] : []), ...(wish.title !== undefined ? ['with another title'] : []), ...(wish.told ? ['with other people told'] : []),
  ]
  return `${which}${day} changed${what.length ? `: ${what.join(', ')}` : ''}.`
}

/** Does a change. @throws Refusal as {@link asked}; 409 with the {@link ChangePreview} when a room is taken */
export async function changeCaptures(captureId: string, wish: ChangeCaptures, actorId: string): Promise<Edited> {
  const facts = await asked(captureId, wish)
  const { lines, warnings } = await linesOf(facts)
  const clashing = lines.filter((l) => l.clash)
  if (clashing.length) {
    const sentence = `${clashing[0]!.clash}.${clashing.length > 1 ? ` ${clashing.length - 1} more dates are taken too.` : ''}`
    throw new Refusal(409, sentence, { lines, warnings, untouched: facts.untouched.length })
  }
  if (!lines.length && wish.told === undefined) throw new Refusal(422, 'This changes nothing: the captures are like that already, or were changed by hand.', { fields: {} })
  const kind = wish.cancelled === true ? 'cancelled' : wish.cancelled === false ? 'restored' : 'changed'
  const done = await edit(actorId, kind, async (log) => {
    await write(facts, wish, log)
    return { sentence: sentenceOf(facts, wish) }
  })
  return { ...done, warnings }
}

async function write(facts: Asked, wish: ChangeCaptures, log: EditLog): Promise<void> {
  const { plan, changed, term } = facts
  const { transaction } = log
  await log.keep('captures', changed.map((c) => c.before.id))
  log.sectionIds.add(facts.section.id)
  let planOf = new Map<string, string>()
  const ofPlan = wish.scope !== 'one' && wish.cancelled === undefined && changed.length > 0
  if (plan && (ofPlan || wish.told)) await log.keep('plans', [plan.id])
  if (plan && ofPlan) planOf = await regroup(facts, wish, log)
  // Who is told is the plan's affair: for one capture it changes for all of them.
  else if (plan && wish.told) await plan.update({ told: wish.told }, { transaction })
  const now = campusNow()
  for (const { before, after } of changed) {
    const moved = before.start !== after.start || before.roomId !== after.roomId || before.end !== after.end
    const stillAhead = await Capture.findByPk(before.id, { transaction, lock: true })
    if (!stillAhead || !mayChange(plannedOf(stillAhead, term), now)) throw new Refusal(409, 'One of these captures has begun just now; nothing was changed. Look at the dates again.')
    await stillAhead.update({
      roomId: after.roomId, presenterId: after.presenterId, topic: after.title, startsAt: new Date(after.start), endsAt: new Date(after.end), inputs: after.inputs,
      state: moved && after.state === 'armed' ? 'planned' : after.state, own: after.own, revision: stillAhead.revision + 1,
      ...(plan ? { planId: planOf.get(after.planDate) ?? plan.id, planDate: after.planDate } : {}),
    }, { transaction })
  }
}

/** Shares the dates of a changed plan out among plans. @returns plan date after the change → plan */
async function regroup({ plan, all, changed, change, term }: Asked, wish: ChangeCaptures, log: EditLog): Promise<Map<string, string>> {
  const going = new Set(changed.map((c) => c.before.id))
  const facts = { start: plan!.start, minutes: plan!.minutes, roomId: plan!.roomId, presenterId: plan!.presenterId, inputs: plan!.inputs, title: plan!.title }
  const { stay, go } = regrouped(facts, change, all.filter((c) => !going.has(c.id)).map((c) => c.planDate), changed.map((c) => c.after.planDate), term)
  const planOf = new Map<string, string>()
  const { transaction } = log
  const put = async (piece: Piece, id: string | null, told: string[]) => {
    const { rule, facts: f } = piece
    const row = {
      roomId: f.roomId, presenterId: f.presenterId, title: f.title, inputs: f.inputs, told, weekdays: rule.weekdays, start: rule.start, minutes: rule.minutes,
      weeks: rule.weeks, fromDay: rule.from, until: rule.until, leftOut: rule.leftOut, ended: false,
    }
    const planId = id ?? randomUUID()
    if (id) await plan!.update(row, { transaction })
    else {
      await CapturePlan.create({ ...row, id: planId, termId: plan!.termId, sectionId: plan!.sectionId, plannedBy: plan!.plannedBy, sourceId: plan!.sourceId, sourceKey: plan!.sourceKey }, { transaction })
      log.created('plans', [planId])
    }
    return planId
  }
  // The first piece goes on under the old plan's id, so that its calendar entry stays the same one.
  let first = true
  for (const piece of stay) {
    const id = await put(piece, first ? plan!.id : null, plan!.told)
    if (!first) {
      const moving = all.filter((c) => !going.has(c.id) && piece.dates.includes(c.planDate)).map((c) => c.id)
      log.regrouped(moving, plan!.id)
      await Capture.update({ planId: id }, { where: { id: moving }, transaction })
    }
    first = false
  }
  for (const piece of go) {
    const id = await put(piece, first ? plan!.id : null, wish.told ?? plan!.told)
    for (const date of piece.dates) planOf.set(date, id)
    first = false
  }
  return planOf
}
