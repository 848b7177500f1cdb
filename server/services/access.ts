/**
 * Brings the facts to core/access and its answer back. Every route that shows or does anything asks
 * through {@link allow}; nothing else decides.
 */
import { QueryTypes } from 'sequelize'
import { decide, type Action, type Answer, type FilingFacts, type Membership, type Role, type Thing, type Way, type Who } from '~~/core/access/decide'
import { campusNow } from '../adapters/clock'
import { database } from '../models/database'
import { listen } from './live'
import { nothingHere, Refusal } from './errors'

const nobody: Who = { kind: 'nobody' }
const ms = (date: Date | null): number | null => date?.getTime() ?? null

/** Who a person is for access: role and class lists. Unknown or barred people are nobody. */
export async function whoIs(personId: string | undefined): Promise<Who> {
  if (!personId) return nobody
  const [person] = await database.query<{ id: string, role: Role, memberships: { sectionId: string, role: Membership['role'], from: string | null, to: string | null }[] }>(`
    SELECT p.id, p.role, coalesce(json_agg(json_build_object('sectionId', c.section_id, 'role', c.role, 'from', c.from_at, 'to', c.to_at))
      FILTER (WHERE c.id IS NOT NULL), '[]') AS memberships
    FROM people p LEFT JOIN class_list c ON c.person_id = p.id
    WHERE p.id = $personId AND NOT p.barred GROUP BY p.id`, { bind: { personId }, type: QueryTypes.SELECT })
  if (!person) return nobody
  const instant = (text: string | null) => (text === null ? null : Date.parse(text))
  return { kind: 'person', id: person.id, role: person.role, memberships: person.memberships.map((m) => ({ ...m, from: instant(m.from), to: instant(m.to) })) }
}

/** The facts about a recording; undefined when there is none. */
export async function recordingFacts(recordingId: string): Promise<Extract<Thing, { kind: 'recording' }> | undefined> {
  const rows = await database.query<{ owner: string, section: string | null, released: Date | null, opens: Date | null, closes: Date | null }>(`
    SELECT r.owner_id AS owner, d.section_id AS section, l.released_at AS released, l.opens_at AS opens, l.closes_at AS closes
    FROM recordings r LEFT JOIN filings f ON f.recording_id = r.id LEFT JOIN folders d ON d.id = f.folder_id LEFT JOIN releases l ON l.filing_id = f.id
    WHERE r.id = $recordingId`, { bind: { recordingId }, type: QueryTypes.SELECT })
  if (!rows.length) return undefined
  const filings = rows.flatMap((row): FilingFacts[] => (row.section
    ? [{ sectionId: row.section, release: row.released ? { opensAt: ms(row.opens), closesAt: ms(row.closes) } : null }]
    : []))
  return { kind: 'recording', ownerIds: [rows[0]!.owner], filings }
}

/** Asks about a recording, without throwing. */
export async function askRecording(who: Who, action: Action, recordingId: string, way: Way = 'address'): Promise<Answer> {
  const thing = await recordingFacts(recordingId)
  if (!thing) return who.kind === 'nobody' ? decide({ who, action, thing: { kind: 'house' }, at: campusNow(), way }) : { allowed: false, reasons: ['held'], say: 'hidden' }
  return decide({ who, action, thing, at: campusNow(), way })
}

/** Asks about a section or the house, without throwing. */
export function ask(who: Who, action: Action, thing: Thing): Answer {
  return decide({ who, action, thing, at: campusNow(), way: 'address' })
}

/** @throws Refusal 401 for somebody unknown, 404 otherwise, when the answer is no */
export function must(answer: Answer): void {
  if (answer.allowed) return
  if (answer.say === 'sign-in') throw new Refusal(401, 'Sign in to see this.')
  throw nothingHere()
}

/**
 * Asks about a recording's pictures for one address of a player. A player asks many times a second
 * about the same thing, so an answer holds for two seconds at most; any change of releases or lists
 * that is told live ends it at once.
 */
const recent = new Map<string, { until: number, answer: Promise<Answer> }>()
listen((event) => {
  if (event.topic !== 'work') recent.clear()
})

export function askMedia(personId: string, sessionId: string, recordingId: string): Promise<Answer> {
  const key = `${personId} ${sessionId} ${recordingId}`
  const kept = recent.get(key)
  if (kept && kept.until > Date.now()) return kept.answer
  if (recent.size > 10_000) recent.clear()
  const answer = sessionLasts(sessionId).then(async (lasts) => askRecording(lasts ? await whoIs(personId) : nobody, 'watch', recordingId))
  recent.set(key, { until: Date.now() + 2000, answer })
  answer.catch(() => recent.delete(key))
  return answer
}

async function sessionLasts(sessionId: string): Promise<boolean> {
  const rows = await database.query('SELECT 1 FROM sessions WHERE id = $sessionId AND ended_at IS NULL AND expires_at > now()', { bind: { sessionId }, type: QueryTypes.SELECT })
  return rows.length > 0
}
