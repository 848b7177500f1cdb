/** Uploads by tus that are whole: booked when the last byte comes, or later if that moment was lost. */
import { readdir, readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { incomingDir, keepOriginal } from '../adapters/store'
import { bookArrival } from './recordings'
import { captureIdOf } from './recorders'
import { log } from './log'

/** What we note about an upload in its metadata when it begins; set by us, not by the sender. */
export interface UploadNote { uid: string, room: string, name: string, request: string }

/** Books a whole upload. @returns the recording's id, or undefined when its capture is not there */
export async function arrive(uploadId: string, bytes: number, note: UploadNote): Promise<string | undefined> {
  const captureId = captureIdOf(note.uid)
  if (!captureId) return undefined
  const booked = await bookArrival({ uploadId, captureId, roomId: note.room, name: note.name, bytes, requestId: note.request })
  if (!booked) return undefined
  await keepOriginal(uploadId, booked.storeKey)
  log.info({ uploadId, bytes, recordingId: booked.recordingId, requestId: note.request }, 'a recorder’s file has arrived')
  return booked.recordingId
}

/** Books uploads that are whole but were never booked: the web was killed between the last byte and the note of it. */
export async function bookStrays(): Promise<void> {
  const folder = incomingDir()
  const names = await readdir(folder).catch(() => [])
  for (const name of names.filter((n) => n.endsWith('.json'))) {
    const id = name.slice(0, -'.json'.length)
    try {
      const info = JSON.parse(await readFile(join(folder, name), 'utf8')) as { size?: number, metadata?: Partial<UploadNote> }
      const { size, mtimeMs } = await stat(join(folder, id))
      const { uid, room, name: file } = info.metadata ?? {}
      // A young one is being booked by the web process that received it.
      if (info.size !== size || Date.now() - mtimeMs < 5000 || !uid || !room) continue
      await arrive(id, size, { uid, room, name: file ?? id, request: randomUUID() })
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') log.error({ err: error, upload: id }, 'this upload could not be booked')
    }
  }
}
