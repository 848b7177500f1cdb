/** The library: sections with their folders, and what lies in them. */
import { QueryTypes } from 'sequelize'
import { decide, type Who } from '~~/core/access/decide'
import { topicOf } from '~~/core/capture/name'
import { roadOf } from '~~/core/library/road'
import { placeOf, wallOf, type Term } from '~~/core/term/calendar'
import type { FilingView, PlacementView, RecordingState, RecordingView, SectionView, SoundLevel } from '~~/shared/library/views'
import { campusNow } from '../adapters/clock'
import { database } from '../models/database'
import { recordingFacts } from './access'
import { nothingHere } from './errors'
import { posterAddress } from './grants'
import { undertakingOf } from './making'
import { currentTerm } from './term'

/** Sections somebody may browse; null stands for all of them. */
export function sectionsOf(who: Who): string[] | null {
  if (who.kind === 'nobody') return []
  if (who.role === 'staff') return null
  const at = campusNow()
  return [...new Set(who.memberships.map((m) => m.sectionId))].filter((sectionId) => decide({ who, action: 'browse', thing: { kind: 'section', sectionId }, at, way: 'address' }).allowed)
}

/** The sections of the current term that `who` may browse. */
export async function sectionList(who: Who): Promise<SectionView[]> {
  const { id } = await currentTerm()
  const mine = sectionsOf(who)
  const rows = await database.query<Omit<SectionView, 'teaches'>>(`
    SELECT s.id, d.id AS "folderId", c.code || '/' || s.number AS code, c.code AS course, s.number, c.title,
      (SELECT count(*) FROM filings f JOIN folders x ON x.id = f.folder_id WHERE x.section_id = s.id) AS recordings,
      (SELECT count(*) FROM class_list l WHERE l.section_id = s.id AND l.role = 'student') AS people
    FROM sections s JOIN courses c ON c.id = s.course_id JOIN folders d ON d.section_id = s.id AND d.parent_id IS NULL
    WHERE s.term_id = $id AND (($all AND s.practice_of IS NULL) OR s.id = ANY($mine::uuid[])) ORDER BY c.code, s.number`,
  { bind: { id, all: mine === null, mine: mine ?? [] }, type: QueryTypes.SELECT })
  const at = campusNow()
  return rows.map((row) => ({ ...row, teaches: decide({ who, action: 'release', thing: { kind: 'section', sectionId: row.id }, at, way: 'address' }).allowed }))
}

interface Row {
  filingId: string, recordingId: string, ownerId: string, sectionId: string, section: string, sectionTitle: string, name: string, state: RecordingState, trouble: string
  seconds: number | null, start: Date | null, room: string | null, presenter: string, released: Date | null, opens: Date | null, closes: Date | null
  met: number, waiting: number, seenBy: number, percent: number | null, workState: string | null, storePrefix: string | null, hasCamera: boolean, hasPicture: boolean
  level: SoundLevel | null, people: number
}

const FILINGS = `
  SELECT f.id AS "filingId", r.id AS "recordingId", s.id AS "sectionId", co.code || '/' || s.number AS section, co.title AS "sectionTitle",
    r.owner_id AS "ownerId", r.name, r.state, r.trouble, r.duration_s AS seconds, c.starts_at AS start, ro.name AS room, p.name AS presenter,
    l.released_at AS released, l.opens_at AS opens, l.closes_at AS closes, r.store_prefix AS "storePrefix", r.has_camera AS "hasCamera",
    r.has_picture AS "hasPicture", r.level, u.percent, u.state AS "workState",
    (SELECT count(*) FROM placements x WHERE x.filing_id = f.id AND x.met_at IS NOT NULL) AS met,
    (SELECT count(*) FROM placements x WHERE x.filing_id = f.id AND x.met_at IS NULL) AS waiting,
    (SELECT count(*) FROM viewings v JOIN class_list m ON m.person_id = v.person_id AND m.section_id = s.id AND m.role = 'student'
      WHERE v.recording_id = r.id AND jsonb_array_length(v.spans) > 0) AS "seenBy",
    (SELECT count(*) FROM class_list m WHERE m.section_id = s.id AND m.role = 'student') AS people
  FROM filings f JOIN folders d ON d.id = f.folder_id JOIN sections s ON s.id = d.section_id JOIN courses co ON co.id = s.course_id
    JOIN recordings r ON r.id = f.recording_id JOIN people p ON p.id = r.owner_id
    LEFT JOIN captures c ON c.id = r.capture_id LEFT JOIN rooms ro ON ro.id = c.room_id
    LEFT JOIN releases l ON l.filing_id = f.id LEFT JOIN undertakings u ON u.recording_id = r.id`

/**
 * What lies in a section's folder, in teaching order, as far as `who` may see it.
 * @param sectionId null for all sections `who` may browse, newest first
 */
export async function filingsOf(who: Who, sectionId: string | null, limit = 400): Promise<FilingView[]> {
  const { id, term } = await currentTerm()
  const mine = sectionId ? [sectionId] : sectionsOf(who)
  const rows = await database.query<Row>(`${FILINGS}
    WHERE s.term_id = $id AND (($all AND s.practice_of IS NULL) OR s.id = ANY($mine::uuid[])) ORDER BY f.position ${sectionId ? 'ASC' : 'DESC'}, r.name LIMIT ${Math.trunc(limit)}`,
  { bind: { id, all: mine === null, mine: mine ?? [] }, type: QueryTypes.SELECT })
  const at = campusNow()
  return rows.filter((row) => maySee(who, row, at)).map((row) => viewOf(row, term, at, who))
}

const ms = (date: Date | null) => date?.getTime() ?? null

/** The same question for each line of a list, from the facts the list has read already. */
function maySee(who: Who, row: Row, at: number): boolean {
  const release = row.released ? { opensAt: ms(row.opens), closesAt: ms(row.closes) } : null
  return decide({ who, action: 'see', thing: { kind: 'recording', ownerIds: [row.ownerId], filings: [{ sectionId: row.sectionId, release }] }, at, way: 'address' }).allowed
}

function viewOf(row: Row, term: Term, at: number, who: Who): FilingView {
  const day = row.start ? wallOf(term.zone, row.start.getTime()).date : null
  const week = day ? placeOf(term, day).week : undefined
  const underWay = row.workState === 'waiting' || row.workState === 'running'
  const road = roadOf({
    playable: row.state === 'ready', percent: underWay ? row.percent : null, trouble: row.trouble, released: row.released !== null,
    opensAt: ms(row.opens), closesAt: ms(row.closes), placements: row.met, waitingPlacements: row.waiting, seenBy: row.seenBy,
  }, at)
  return {
    filingId: row.filingId, recordingId: row.recordingId, section: row.section, name: row.name, topic: topicOf(row.name), state: row.state, trouble: row.trouble,
    seconds: row.seconds, start: ms(row.start), week: week?.label ?? '', weekNumber: week?.number ?? null, room: row.room ?? '', presenter: row.presenter,
    released: row.released !== null, opensAt: ms(row.opens), closesAt: ms(row.closes), road,
    poster: row.storePrefix && row.hasPicture && who.kind === 'person' ? posterAddress(row.recordingId) : null,
  }
}

/** One recording with all that its bench shows. @throws Refusal 404 when there is none or `who` may not see it */
export async function recordingView(who: Who, recordingId: string): Promise<RecordingView> {
  const facts = await recordingFacts(recordingId)
  const at = campusNow()
  const may = (action: 'see' | 'release' | 'place' | 'rename') => !!facts && decide({ who, action, thing: facts, at, way: 'address' }).allowed
  if (!may('see')) throw nothingHere()
  const { term } = await currentTerm()
  const [row] = await database.query<Row>(`${FILINGS} WHERE r.id = $recordingId ORDER BY f.position LIMIT 1`, { bind: { recordingId }, type: QueryTypes.SELECT })
  if (!row) throw nothingHere()
  const works = may('place')
  return {
    ...viewOf(row, term, at, who), sectionId: row.sectionId, sectionTitle: row.sectionTitle, people: row.people, seenBy: row.seenBy, hasCamera: row.hasCamera,
    level: row.level, placements: works ? await placementsOf(row.filingId) : [], log: works ? await logOf(recordingId) : [],
    may: { release: may('release'), place: works, rename: may('rename') }, undertaking: works ? await undertakingOf(recordingId) : null,
  }
}

async function placementsOf(filingId: string): Promise<PlacementView[]> {
  const rows = await database.query<Omit<PlacementView, 'copiedAt' | 'metAt'> & { copiedAt: Date, metAt: Date | null }>(`
    SELECT x.id, x.kind, x.copied_at AS "copiedAt", x.page_url AS "pageUrl", x.met_at AS "metAt", p.name AS "placedBy"
    FROM placements x JOIN people p ON p.id = x.placed_by WHERE x.filing_id = $filingId ORDER BY x.copied_at`, { bind: { filingId }, type: QueryTypes.SELECT })
  return rows.map((r) => ({ ...r, copiedAt: r.copiedAt.getTime(), metAt: ms(r.metAt) }))
}

async function logOf(recordingId: string) {
  const rows = await database.query<{ at: Date, who: string | null, what: string }>(`
    SELECT a.at, p.name AS who, a.action AS what FROM audit a LEFT JOIN people p ON p.id = a.actor_id
    WHERE a.subject_id = $recordingId ORDER BY a.at DESC, a.id DESC LIMIT 30`, { bind: { recordingId }, type: QueryTypes.SELECT })
  return rows.map((r) => ({ at: r.at.getTime(), who: r.who ?? 'Karstland', what: r.what }))
}
