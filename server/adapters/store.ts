/**
 * The store: where originals and streams lie. A folder (`STORE_DIR`), shared by all machines that run
 * web or workers. Keys are relative paths made by us, never by those who send files.
 */
import { mkdir, open, rename, rm, stat } from 'node:fs/promises'
import { dirname, join, resolve, sep } from 'node:path'

export const storeRoot = (): string => resolve(process.env.STORE_DIR ?? '.karstland/store')

/** Absolute path of a key. @throws Error when the key would lead out of the store */
export function pathOf(...key: string[]): string {
  const root = storeRoot()
  const full = resolve(root, ...key)
  if (full !== root && !full.startsWith(root + sep)) throw new Error(`key leads out of the store: ${key.join('/')}`)
  return full
}

export const incomingDir = (): string => pathOf('incoming')

/** Moves a finished upload to its place among the originals. Moving again what was moved is no error. */
export async function keepOriginal(uploadId: string, key: string): Promise<void> {
  const target = pathOf(key)
  await mkdir(dirname(target), { recursive: true })
  try {
    await rename(join(incomingDir(), uploadId), target)
  } catch (error) {
    if (!(await exists(target))) throw error
  }
  await rm(join(incomingDir(), `${uploadId}.json`), { force: true })
}

export const exists = (path: string): Promise<boolean> => stat(path).then(() => true, () => false)

/** Reads ranges of one file; close it when done. */
export async function openRanges(path: string) {
  const file = await open(path, 'r')
  const size = (await file.stat()).size
  return {
    size,
    read: async (offset: number, length: number) => {
      const buffer = new Uint8Array(length)
      const { bytesRead } = await file.read(buffer, 0, length, offset)
      return buffer.subarray(0, bytesRead)
    },
    close: () => file.close(),
  }
}
