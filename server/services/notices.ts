/**
 * Notices: one message for one action and person, in the application and by mail as each chooses.
 * Mail about a change waits a minute of real time: what is undone meanwhile nobody hears of.
 */
import { Op, QueryTypes, type Transaction } from 'sequelize'
import { wallOf } from '~~/core/term/calendar'
import { dateSentence } from '~~/core/term/words'
import { noticeKinds, type NoticeChoice, type NoticeKind, type NoticeView } from '~~/shared/notices/views'
import { campusDate } from '../adapters/clock'
import { mailIsSet, sendMail } from '../adapters/mail'
import { database } from '../models/database'
import { Notice } from '../models/notice'
import { Person } from '../models/person'
import { log } from './log'
import { tell } from './live'

const WAIT_MS = Number(process.env.NOTICE_WAIT_MS ?? 60_000)
const TRIES = 8

export interface Message { kind: NoticeKind, subject: string, body: string, path: string, editId?: string, waits?: boolean }

/** Tells people something, once each. Those who want neither mail nor a line in the application are not told. */
export async function notify(personIds: readonly string[], message: Message, transaction: Transaction): Promise<void> {
  const unique = [...new Set(personIds)]
  if (!unique.length) return
  const chosen = new Map((await choicesOf(unique, message.kind, transaction)).map((c) => [c.personId, c]))
  const now = Date.now()
  const rows = unique.map((personId) => ({
    personId, kind: message.kind, editId: message.editId ?? null, subject: message.subject, body: message.body, path: message.path, toldAt: campusDate(),
    dueAt: new Date(now + (message.waits ? WAIT_MS : 0)), inApp: chosen.get(personId)?.in_app ?? true, byMail: chosen.get(personId)?.by_mail ?? true,
  })).filter((r) => r.inApp || r.byMail)
  await Notice.bulkCreate(rows, { transaction, returning: false })
  for (const personId of unique.slice(0, 30)) await tell({ topic: 'notice', personId }, transaction)
}

const choicesOf = (personIds: readonly string[], kind: NoticeKind, transaction: Transaction) =>
  database.query<{ personId: string, in_app: boolean, by_mail: boolean }>('SELECT person_id AS "personId", in_app, by_mail FROM notice_choices WHERE person_id = ANY($personIds::uuid[]) AND kind = $kind', { bind: { personIds, kind }, type: QueryTypes.SELECT, transaction })

interface Concern { personId: string, section: string, room: string, start: Date, zone: string, state: string, captureId: string }

/** Whom captures concern: who presents, and those whom plan and section name. Practice concerns nobody. */
async function concernedBy(captureIds: readonly string[], transaction: Transaction): Promise<Concern[]> {
  return database.query<Concern>(`
    SELECT w.id AS "personId", k.code || '/' || s.number AS section, r.name AS room, c.starts_at AS start, t.zone, c.state, c.id AS "captureId"
    FROM captures c JOIN sections s ON s.id = c.section_id AND s.practice_of IS NULL JOIN courses k ON k.id = s.course_id JOIN terms t ON t.id = s.term_id JOIN rooms r ON r.id = c.room_id
      LEFT JOIN capture_plans cp ON cp.id = c.plan_id LEFT JOIN section_defaults d ON d.section_id = s.id
      CROSS JOIN LATERAL (SELECT DISTINCT unnest(ARRAY[c.presenter_id] || coalesce(cp.told, '{}') || coalesce(d.told, '{}')) AS id) w
    WHERE c.id = ANY($captureIds::uuid[]) ORDER BY c.starts_at`, { bind: { captureIds }, type: QueryTypes.SELECT, transaction })
}

/** Tells whom it concerns that the recording of a capture plays. */
export async function tellReady(recording: { id: string, name: string }, captureId: string, transaction: Transaction): Promise<void> {
  const people = (await concernedBy([captureId], transaction)).map((c) => c.personId)
  await notify(people, { kind: 'ready', subject: `Ready: ${recording.name}`, body: `${recording.name} plays now.`, path: `/go/recording/${recording.id}` }, transaction)
}

const LISTED = 12

/**
 * Tells everybody whom an edit of the timetable concerns: presenters before and after, and those its
 * plans and sections name. Captures of practice sections tell nobody.
 */
export async function tellOfEdit(edit: { id: string, kind: string, sentence: string, captureIds: string[], presentersBefore: string[] }, transaction: Transaction): Promise<void> {
  const concerns = await concernedBy(edit.captureIds, transaction)
  const kind: NoticeKind = edit.kind === 'cancelled' ? 'cancelled' : edit.kind === 'changed' || edit.kind === 'restored' ? 'changed' : 'planned'
  const byPerson = new Map<string, Concern[]>()
  for (const c of concerns) byPerson.set(c.personId, [...(byPerson.get(c.personId) ?? []), c])
  for (const [personId, list] of byPerson) {
    const lines = list.slice(0, LISTED).map((c) => `${c.section}, ${whenOf(c)}, ${c.room}${c.state === 'cancelled' ? ': cancelled' : ''}`)
    const more = list.length > LISTED ? [`and ${list.length - LISTED} more`] : []
    await notify([personId], { kind, editId: edit.id, subject: subjectOf(kind, list), body: [edit.sentence, '', ...lines, ...more].join('\n'), path: `/go/capture/${list[0]!.captureId}`, waits: kind !== 'planned' }, transaction)
  }
  // Somebody who no longer presents hears of it too.
  const left = edit.presentersBefore.filter((id) => !byPerson.has(id))
  if (concerns.length) await notify(left, { kind, editId: edit.id, subject: 'You no longer present a capture', body: edit.sentence, path: '/notices', waits: true }, transaction)
}

const whenOf = (c: Concern) => {
  const wall = wallOf(c.zone, c.start.getTime())
  return `${dateSentence(wall.date)} ${wall.time}`
}

function subjectOf(kind: NoticeKind, list: Concern[]): string {
  const sections = [...new Set(list.map((c) => c.section))]
  const what = sections.length === 1 ? sections[0] : `${sections.length} sections`
  const word = kind === 'planned' ? 'planned' : kind === 'cancelled' ? 'cancelled' : 'changed'
  return list.length === 1 ? `${what}: capture ${word}, ${whenOf(list[0]!)}` : `${what}: ${list.length} captures ${word}`
}

/** An edit was undone: whoever has not been written to yet never is; whoever has gets a correction. */
export async function takeBackNotices(editId: string, sentence: string, transaction: Transaction): Promise<void> {
  const told = await Notice.findAll({ where: { editId }, transaction, lock: true })
  const mailed = told.filter((n) => n.mailedAt !== null || n.dueAt.getTime() <= Date.now())
  await Notice.destroy({ where: { id: told.filter((n) => !mailed.includes(n)).map((n) => n.id) }, transaction })
  for (const n of mailed) await notify([n.personId], { kind: 'changed', subject: `Taken back: ${n.subject}`, body: sentence, path: n.path }, transaction)
  for (const n of told) await tell({ topic: 'notice', personId: n.personId }, transaction)
}

/** Sends what is due. Several workers share the work; a message is locked while it is on its way. @returns how many were sent */
export async function sendDueMail(origin = process.env.PUBLIC_ORIGIN ?? ''): Promise<number> {
  if (!mailIsSet()) return 0
  let sent = 0
  for (; sent < 200; sent++) {
    const more = await database.transaction(async (transaction) => {
      const notice = await Notice.findOne({ where: { byMail: true, mailedAt: null, attempts: { [Op.lt]: TRIES }, dueAt: { [Op.lte]: new Date() } }, order: ['dueAt'], lock: true, skipLocked: true, transaction })
      if (!notice) return false
      const person = await Person.findByPk(notice.personId, { transaction })
      try {
        await sendMail({ id: notice.id, to: person!.email, name: person!.name, subject: notice.subject, text: `${notice.body}\n\n${origin}${notice.path}\n\nWhich notices come by mail: ${origin}/notices\n` })
        await notice.update({ mailedAt: new Date(), trouble: '' }, { transaction })
      } catch (error) {
        // Tried again later, each time after a longer while.
        await notice.update({ attempts: notice.attempts + 1, dueAt: new Date(Date.now() + 30_000 * 2 ** notice.attempts), trouble: String(error).slice(0, 300) }, { transaction })
        log.warn({ err: String(error), noticeId: notice.id, attempts: notice.attempts }, 'mail was not taken')
      }
      return true
    })
    if (!more) break
  }
  return sent
}

export async function noticesOf(personId: string): Promise<NoticeView[]> {
  const rows = await Notice.findAll({ where: { personId, inApp: true }, order: [['toldAt', 'DESC']], limit: 100, raw: true })
  return rows.map((n) => ({ id: n.id, kind: n.kind, subject: n.subject, body: n.body, path: n.path, at: n.toldAt.getTime(), read: n.readAt !== null }))
}

export async function unreadCount(personId: string): Promise<number> {
  return Notice.count({ where: { personId, inApp: true, readAt: null } })
}

/** @param id null for all of them */
export async function markRead(personId: string, id: string | null): Promise<void> {
  await Notice.update({ readAt: new Date() }, { where: { personId, readAt: null, ...(id ? { id } : {}) } })
  await tell({ topic: 'notice', personId })
}

export async function noticeChoices(personId: string): Promise<NoticeChoice[]> {
  const rows = await database.query<{ kind: NoticeKind, inApp: boolean, byMail: boolean }>('SELECT kind, in_app AS "inApp", by_mail AS "byMail" FROM notice_choices WHERE person_id = $personId', { bind: { personId }, type: QueryTypes.SELECT })
  const found = new Map(rows.map((r) => [r.kind, r]))
  return noticeKinds.map((kind) => found.get(kind) ?? { kind, inApp: true, byMail: true })
}

export async function chooseNotices(personId: string, choices: NoticeChoice[]): Promise<void> {
  await database.query(`INSERT INTO notice_choices (person_id, kind, in_app, by_mail) SELECT $personId, kind, "inApp", "byMail" FROM jsonb_to_recordset($rows::jsonb) AS x(kind text, "inApp" boolean, "byMail" boolean)
    ON CONFLICT (person_id, kind) DO UPDATE SET in_app = excluded.in_app, by_mail = excluded.by_mail`, { bind: { personId, rows: JSON.stringify(choices) } })
}
