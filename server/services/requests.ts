/** Instructors plan within the team's rules; beyond them it becomes a request that the team answers. */
import { QueryTypes } from 'sequelize'
import type { Who } from '~~/core/access/decide'
import { beyondRules, type Wished } from '~~/core/timetable/instructor-rules'
import { ruleWords } from '~~/core/timetable/rule'
import { occurrencesOf } from '~~/core/timetable/wanted'
import { ChangeCaptures } from '~~/shared/timetable/change-captures'
import { PlanCaptures, wantedOf } from '~~/shared/timetable/plan-captures'
import type { AnswerRequest, RequestView } from '~~/shared/timetable/requests'
import type { Edited } from '~~/shared/timetable/views'
import { check } from '~~/shared/validate'
import { campusDate, campusNow } from '../adapters/clock'
import { database } from '../models/database'
import { Person } from '../models/person'
import { PlanRequest } from '../models/plan-request'
import { Room } from '../models/room'
import { Section } from '../models/section'
import { ask } from './access'
import { changeCaptures, previewChange } from './changing'
import { settings } from './choices'
import { nothingHere, Refusal } from './errors'
import { tell } from './live'
import { notify } from './notices'
import { planCaptures, previewPlan } from './planning'
import { termOf } from './term'

type Signed = Extract<Who, { kind: 'person' }>
const isTeam = (who: Signed) => ask(who, 'plan', { kind: 'house' }).allowed

async function beyond(wished: readonly Wished[], termId?: string): Promise<string[]> {
  const [{ term }, rules, rooms] = await Promise.all([termOf(termId), settings(), Room.findAll({ raw: true })])
  return beyondRules(wished, { from: rules.instructorsFrom, to: rules.instructorsTo, daysAhead: rules.instructorsDaysAhead }, rooms, term, campusNow())
}

/** Why a plan goes beyond what `who` may plan alone; empty for the team. */
export async function beyondForPlan(who: Signed, plan: PlanCaptures): Promise<string[]> {
  if (isTeam(who)) return []
  const section = await Section.findByPk(plan.sectionId)
  const { id, term } = await termOf(section?.termId)
  return beyond(occurrencesOf([wantedOf(plan)], term, campusNow()), id)
}

/** The same for a change. */
export async function beyondForChange(who: Signed, captureId: string, wish: ChangeCaptures): Promise<string[]> {
  if (isTeam(who) || wish.cancelled) return []
  const { lines } = await previewChange(captureId, wish)
  const rooms = new Map((await Room.findAll({ attributes: ['id', 'name'] })).map((r) => [r.name, r.id]))
  return beyond(lines.map((l) => ({ roomId: rooms.get(l.after.room) ?? '', start: l.after.start, end: l.after.end })))
}

/** @throws Refusal 403 with `beyond` when it is more than an instructor may plan alone */
export function mustBeWithin(reasons: string[]): void {
  if (reasons.length) throw new Refusal(403, `${reasons.join(' ')} Ask the team for it.`, { beyond: reasons })
}

/** Asks the team for a new plan. @throws Refusal 409 while rooms are taken, 422 for what does not fit */
export async function askForPlan(who: Signed, plan: PlanCaptures, note: string): Promise<{ id: string, sentence: string }> {
  const { clashes } = await previewPlan(plan)
  if (clashes.length) throw new Refusal(409, clashes[0]!.sentence)
  return make(who, plan.sectionId, null, { ...plan }, ruleWords(wantedOf(plan)), await beyondForPlan(who, plan), note)
}

/** Asks the team for a change. */
export async function askForChange(who: Signed, captureId: string, sectionId: string, wish: ChangeCaptures, note: string): Promise<{ id: string, sentence: string }> {
  const { sentence } = await previewChange(captureId, wish)
  return make(who, sectionId, captureId, { ...wish }, sentence, await beyondForChange(who, captureId, wish), note)
}

async function make(who: Signed, sectionId: string, captureId: string | null, wish: object, words: string, reasons: string[], note: string): Promise<{ id: string, sentence: string }> {
  return database.transaction(async (transaction) => {
    const made = await PlanRequest.create({ personId: who.id, sectionId, captureId, wish, words, reasons, note: note.trim(), askedAt: campusDate() }, { transaction })
    const team = await Person.findAll({ where: { role: 'staff', barred: false }, attributes: ['id'], transaction, raw: true })
    const person = (await Person.findByPk(who.id, { transaction }))!
    await notify(team.map((p) => p.id), { kind: 'request', subject: `${person.name} asks for a capture`, body: [words, ...reasons, note.trim()].filter(Boolean).join('\n'), path: '/timetable/requests' }, transaction)
    await tell({ topic: 'timetable', sectionIds: [sectionId] }, transaction)
    return { id: made.id, sentence: 'The team has your request and answers it; you will be told.' }
  })
}

/** All requests for the team, their own for instructors; those that wait first. */
export async function requestsFor(who: Signed): Promise<RequestView[]> {
  const rows = await database.query<Omit<RequestView, 'askedAt' | 'mine'> & { askedAt: Date, personId: string }>(`
    SELECT q.id, q.person_id AS "personId", p.name AS who, k.code || '/' || s.number AS section, q.words, q.reasons, q.note, q.state, q.answer, coalesce(a.name, '') AS "answeredBy", q.asked_at AS "askedAt"
    FROM plan_requests q JOIN people p ON p.id = q.person_id JOIN sections s ON s.id = q.section_id JOIN courses k ON k.id = s.course_id LEFT JOIN people a ON a.id = q.answered_by
    WHERE $all OR q.person_id = $me ORDER BY q.state <> 'waiting', q.asked_at DESC LIMIT 200`, { bind: { all: isTeam(who), me: who.id }, type: QueryTypes.SELECT })
  return rows.map(({ personId, ...r }) => ({ ...r, askedAt: r.askedAt.getTime(), mine: personId === who.id }))
}

/**
 * The team's answer. Accepted, it is planned at once, as asked.
 * @throws Refusal 404, 409 when it was answered already or a room has been taken meanwhile; then it goes on waiting
 */
export async function answerRequest(id: string, { answer, word }: AnswerRequest, actorId: string): Promise<{ sentence: string, edited: Edited | null }> {
  const found = await PlanRequest.findByPk(id)
  if (!found) throw nothingHere()
  if (found.state !== 'waiting') throw new Refusal(409, 'This request was answered already.')
  const edited = answer === 'accepted' ? await fulfil(found, actorId) : null
  await database.transaction(async (transaction) => {
    await found.update({ state: answer, answer: word.trim(), answeredBy: actorId, answeredAt: campusDate() }, { transaction })
    await notify([found.personId], { kind: 'request', subject: `Your request was ${answer}`, body: [found.words, word.trim()].filter(Boolean).join('\n'), path: found.captureId ? `/go/capture/${found.captureId}` : '/timetable/requests' }, transaction)
    await tell({ topic: 'timetable', sectionIds: [found.sectionId] }, transaction)
  })
  return { sentence: answer === 'accepted' ? edited!.sentence : 'Turned down; they are told.', edited }
}

async function fulfil(found: PlanRequest, actorId: string): Promise<Edited> {
  if (found.captureId) {
    const wish = await check(ChangeCaptures, found.wish)
    if ('errors' in wish) throw new Refusal(422, 'This request can no longer be read; ask for it anew.')
    return changeCaptures(found.captureId, wish.value, actorId)
  }
  const plan = await check(PlanCaptures, found.wish)
  if ('errors' in plan) throw new Refusal(422, 'This request can no longer be read; ask for it anew.')
  return planCaptures(plan.value, actorId)
}

/** An instructor takes a request back while it waits. */
export async function takeBackRequest(id: string, personId: string): Promise<void> {
  const [n] = await PlanRequest.update({ state: 'taken back' }, { where: { id, personId, state: 'waiting' } })
  if (!n) throw nothingHere()
}

