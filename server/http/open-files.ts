/**
 * Files that are being sent, kept open between requests: a player asks for piece after piece of the
 * same stream, and a hundred players for the same. Streams never change once they are there; a file
 * that was replaced is seen again after a few seconds of rest.
 */
import { open, type FileHandle } from 'node:fs/promises'

export interface OpenFile { handle: FileHandle, size: number, modified: Date, isFile: boolean }
interface Kept { file: Promise<OpenFile>, users: number, timer?: ReturnType<typeof setTimeout> }

const REST_MS = 5000
/** Beyond this many, a file is closed as soon as its last reader has gone. */
const MOST = 256
const kept = new Map<string, Kept>()

/** Opens a file, or takes it as it stands open. Call {@link release} once for each. @throws ENOENT and the like */
export async function take(path: string): Promise<OpenFile> {
  const entry = kept.get(path) ?? { file: begin(path), users: 0 }
  kept.set(path, entry)
  clearTimeout(entry.timer)
  entry.users++
  try {
    return await entry.file
  } catch (error) {
    if (kept.get(path) === entry) kept.delete(path)
    throw error
  }
}

async function begin(path: string): Promise<OpenFile> {
  const handle = await open(path, 'r')
  const info = await handle.stat()
  return { handle, size: info.size, modified: info.mtime, isFile: info.isFile() }
}

export function release(path: string): void {
  const entry = kept.get(path)
  if (!entry || --entry.users > 0) return
  const end = () => {
    kept.delete(path)
    void entry.file.then((file) => file.handle.close()).catch(() => {})
  }
  if (kept.size > MOST) end()
  else entry.timer = setTimeout(end, REST_MS).unref()
}
