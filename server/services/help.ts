/** Messages to the team and their answers. */
import { QueryTypes } from 'sequelize'
import type { Who } from '~~/core/access/decide'
import type { MessageView } from '~~/shared/help/messages'
import { campusDate } from '../adapters/clock'
import { database } from '../models/database'
import { HelpMessage } from '../models/help-message'
import { Person } from '../models/person'
import { ask } from './access'
import { nothingHere, Refusal } from './errors'
import { notify } from './notices'

type Signed = Extract<Who, { kind: 'person' }>

export async function writeToTeam(who: Signed, { body, path }: { body: string, path: string }): Promise<{ sentence: string }> {
  await database.transaction(async (transaction) => {
    const person = (await Person.findByPk(who.id, { transaction }))!
    await HelpMessage.create({ personId: who.id, path, body: body.trim(), writtenAt: campusDate() }, { transaction })
    const team = await Person.findAll({ where: { role: 'staff', barred: false }, attributes: ['id'], transaction, raw: true })
    await notify(team.map((p) => p.id).filter((id) => id !== who.id), { kind: 'message', subject: `${person.name} writes to the team`, body: `${body.trim()}\n\nLooking at ${path}`, path: '/messages' }, transaction)
  })
  return { sentence: 'The team has your message. The answer comes here and by mail.' }
}

/** All messages for the team, those that wait first; their own for everybody else. */
export async function messagesFor(who: Signed): Promise<MessageView[]> {
  const rows = await database.query<Omit<MessageView, 'at' | 'answeredAt' | 'mine'> & { at: Date, answeredAt: Date | null, personId: string }>(`
    SELECT m.id, m.person_id AS "personId", p.name AS who, p.email, m.path, m.body, m.written_at AS at, m.answer, coalesce(a.name, '') AS "answeredBy", m.answered_at AS "answeredAt"
    FROM help_messages m JOIN people p ON p.id = m.person_id LEFT JOIN people a ON a.id = m.answered_by
    WHERE $all OR m.person_id = $me ORDER BY m.answered_at IS NOT NULL, m.written_at DESC LIMIT 200`, { bind: { all: ask(who, 'run', { kind: 'house' }).allowed, me: who.id }, type: QueryTypes.SELECT })
  return rows.map(({ personId, ...r }) => ({ ...r, at: r.at.getTime(), answeredAt: r.answeredAt?.getTime() ?? null, mine: personId === who.id }))
}

/** @throws Refusal 404, 409 when somebody answered already */
export async function answerMessage(id: string, answer: string, actorId: string): Promise<{ sentence: string }> {
  return database.transaction(async (transaction) => {
    const message = await HelpMessage.findByPk(id, { transaction, lock: true })
    if (!message) throw nothingHere()
    if (message.answer) throw new Refusal(409, 'Somebody of the team has answered this already.')
    await message.update({ answer: answer.trim(), answeredBy: actorId, answeredAt: campusDate() }, { transaction })
    await notify([message.personId], { kind: 'message', subject: 'The media team has answered you', body: `${answer.trim()}\n\nYou wrote: ${message.body}`, path: `/help/${placeOf(message.path)}` }, transaction)
    return { sentence: 'Answered; they are told.' }
  })
}

const placeOf = (path: string) => /^\/([a-z-]+)/.exec(path)?.[1] ?? 'start'
