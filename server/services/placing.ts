/** Placements: codes for course pages, and the pages they were met on. */
import { randomBytes } from 'node:crypto'
import { QueryTypes } from 'sequelize'
import { linkCode, playerCode } from '~~/core/placement/embed'
import type { PlacementCode } from '~~/shared/library/views'
import { campusDate } from '../adapters/clock'
import { database } from '../models/database'
import { Filing } from '../models/filing'
import { Folder } from '../models/folder'
import { Placement } from '../models/placement'
import { Recording } from '../models/recording'
import { record } from './audit'
import { tell } from './live'
import { filingIn } from './releasing'

/**
 * A code to paste into a course page. A code that this person copied before and that was not met on
 * a page yet is handed out again.
 * @param origin scheme and host of this Karstland, for absolute addresses
 */
export async function place(recordingId: string, filingId: string, kind: 'player' | 'link', actorId: string, origin: string): Promise<PlacementCode> {
  const { filing, sectionId } = await filingIn(recordingId, filingId)
  const recording = (await Recording.findByPk(recordingId))!
  const placement = await database.transaction(async (transaction) => {
    const unmet = await Placement.findOne({ where: { filingId: filing.id, kind, placedBy: actorId, metAt: null }, transaction })
    if (unmet) return unmet
    const made = await Placement.create({ slug: randomBytes(9).toString('base64url'), filingId: filing.id, kind, placedBy: actorId, copiedAt: campusDate() }, { transaction })
    await record(transaction, actorId, 'placed', recordingId, { placementId: made.id, kind })
    await tell({ topic: 'recording', id: recordingId, sectionId }, transaction)
    return made
  })
  const address = `${origin}/${kind === 'player' ? 'embed' : 'to'}/${placement.slug}`
  const html = kind === 'player' ? playerCode(address, recording.name) : linkCode(address, recording.name, recording.durationS)
  return { id: placement.id, kind, address, html, text: `Watch the recording: ${recording.name} – ${address}` }
}

export interface PlacementFacts { id: string, slug: string, recordingId: string, filingId: string, sectionId: string, section: string, name: string, metAt: Date | null }

/** What a placement leads to; undefined for a slug that was never handed out. */
export async function placementOf(slug: string): Promise<PlacementFacts | undefined> {
  const [row] = await database.query<PlacementFacts>(`
    SELECT x.id, x.slug, f.recording_id AS "recordingId", f.id AS "filingId", s.id AS "sectionId", co.code || '/' || s.number || ' ' || co.title AS section,
      r.name, x.met_at AS "metAt"
    FROM placements x JOIN filings f ON f.id = x.filing_id JOIN folders d ON d.id = f.folder_id JOIN sections s ON s.id = d.section_id
      JOIN courses co ON co.id = s.course_id JOIN recordings r ON r.id = f.recording_id WHERE x.slug = $slug`, { bind: { slug }, type: QueryTypes.SELECT })
  return row
}

/** A placement was asked for from a page: notes the page the first time. Our own pages do not count. */
export async function meet(slug: string, referer: string | undefined, origin: string): Promise<void> {
  if (!referer || !URL.canParse(referer)) return
  const page = new URL(referer)
  if (page.origin === origin || !/^https?:$/.test(page.protocol)) return
  page.search = ''
  page.hash = ''
  page.username = page.password = ''
  await database.transaction(async (transaction) => {
    const placement = await Placement.findOne({ where: { slug }, transaction, lock: true })
    if (!placement || placement.metAt) return
    await placement.update({ metAt: campusDate(), pageUrl: page.href.slice(0, 1000) }, { transaction })
    const filing = (await Filing.findByPk(placement.filingId, { transaction }))!
    const folder = (await Folder.findByPk(filing.folderId, { transaction }))!
    await record(transaction, null, 'placement met', filing.recordingId, { page: page.href, placementId: placement.id })
    await tell({ topic: 'recording', id: filing.recordingId, sectionId: folder.sectionId }, transaction)
  })
}

export interface PlacedLine { id: string, kind: 'player' | 'link', recordingId: string, name: string, section: string, pageUrl: string | null, copiedAt: number, metAt: number | null, placedBy: string, released: boolean, start: number | null }

/** All placements of the sections given, latest first. @param sectionIds null for all */
export async function placementList(sectionIds: string[] | null): Promise<PlacedLine[]> {
  const rows = await database.query<Omit<PlacedLine, 'copiedAt' | 'metAt' | 'start'> & { copiedAt: Date, metAt: Date | null, start: Date | null }>(`
    SELECT x.id, x.kind, r.id AS "recordingId", r.name, co.code || '/' || s.number AS section, x.page_url AS "pageUrl", x.copied_at AS "copiedAt",
      x.met_at AS "metAt", p.name AS "placedBy", l.id IS NOT NULL AS released, c.starts_at AS start
    FROM placements x JOIN filings f ON f.id = x.filing_id JOIN folders d ON d.id = f.folder_id JOIN sections s ON s.id = d.section_id
      JOIN courses co ON co.id = s.course_id JOIN recordings r ON r.id = f.recording_id JOIN people p ON p.id = x.placed_by LEFT JOIN releases l ON l.filing_id = f.id
      LEFT JOIN captures c ON c.id = r.capture_id
    WHERE ($all OR s.id = ANY($sections::uuid[])) ORDER BY x.copied_at DESC LIMIT 500`,
  { bind: { all: sectionIds === null, sections: sectionIds ?? [] }, type: QueryTypes.SELECT })
  return rows.map((r) => ({ ...r, copiedAt: r.copiedAt.getTime(), metAt: r.metAt?.getTime() ?? null, start: r.start?.getTime() ?? null }))
}
