/** Release and hold of a filing, and the name of a recording; each with its entry in the record. */
import { campusDate } from '../adapters/clock'
import { database } from '../models/database'
import { Filing } from '../models/filing'
import { Folder } from '../models/folder'
import { Recording } from '../models/recording'
import { Release } from '../models/release'
import type { ReleaseFiling } from '~~/shared/library/changes'
import { record } from './audit'
import { nothingHere, Refusal } from './errors'
import { tell } from './live'

/** The filing's recording, if it is that of the address. @throws Refusal 404 */
export async function filingIn(recordingId: string, filingId: string): Promise<{ filing: Filing, sectionId: string }> {
  const filing = await Filing.findOne({ where: { id: filingId, recordingId } })
  const folder = filing && await Folder.findByPk(filing.folderId)
  if (!filing || !folder) throw nothingHere()
  return { filing, sectionId: folder.sectionId }
}

/** Releases to the class list. Released again, the new window counts. @throws Refusal 422 for a window that ends before it begins */
export async function release(recordingId: string, wish: ReleaseFiling, actorId: string): Promise<void> {
  const { filing, sectionId } = await filingIn(recordingId, wish.filingId)
  const opensAt = wish.opensAt ? new Date(wish.opensAt) : null
  const closesAt = wish.closesAt ? new Date(wish.closesAt) : null
  if (opensAt && closesAt && closesAt <= opensAt) {
    throw new Refusal(422, 'The window closes before it opens.', { fields: { closesAt: 'The window closes before it opens.' } })
  }
  await database.transaction(async (transaction) => {
    await Release.destroy({ where: { filingId: filing.id }, transaction })
    await Release.create({ filingId: filing.id, opensAt, closesAt, releasedBy: actorId, releasedAt: campusDate() }, { transaction })
    await record(transaction, actorId, 'released', recordingId, { filingId: filing.id, opensAt, closesAt })
    await tell({ topic: 'recording', id: recordingId, sectionId }, transaction)
  })
}

/** Holds a filing again: nobody of the class list may watch it any more. */
export async function hold(recordingId: string, filingId: string, actorId: string): Promise<void> {
  const { filing, sectionId } = await filingIn(recordingId, filingId)
  await database.transaction(async (transaction) => {
    const gone = await Release.destroy({ where: { filingId: filing.id }, transaction })
    if (gone) await record(transaction, actorId, 'held', recordingId, { filingId: filing.id })
    await tell({ topic: 'recording', id: recordingId, sectionId }, transaction)
  })
}

export async function rename(recordingId: string, name: string, actorId: string): Promise<void> {
  await database.transaction(async (transaction) => {
    const recording = await Recording.findByPk(recordingId, { transaction, lock: true })
    if (!recording) throw nothingHere()
    const before = recording.name
    if (before === name.trim()) return
    await recording.update({ name: name.trim() }, { transaction })
    await record(transaction, actorId, 'renamed', recordingId, { before, after: name.trim() })
    const filing = await Filing.findOne({ where: { recordingId }, transaction })
    const folder = filing && await Folder.findByPk(filing.folderId, { transaction })
    if (folder) await tell({ topic: 'recording', id: recordingId, sectionId: folder.sectionId }, transaction)
  })
}
