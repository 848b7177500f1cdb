/** Files out of a zip that somebody sent: few, small, and with names that lead nowhere. */
import { fromBuffer, type Entry, type ZipFile } from 'yauzl'
import { Unreadable } from './csv'

const MOST_FILES = 40
const MOST_BYTES = 200 * 1024 ** 2

/**
 * @returns file name (without folders) → bytes
 * @throws Unreadable for no zip, names that climb out, too many files, or more than 200 MB unpacked
 */
export async function unzip(bytes: Uint8Array): Promise<Map<string, Uint8Array>> {
  const zip = await new Promise<ZipFile>((done, fail) => fromBuffer(Buffer.from(bytes), { lazyEntries: true, strictFileNames: true }, (error, found) => (found ? done(found) : fail(sentenceFor(error)))))
  if (zip.entryCount > MOST_FILES) throw new Unreadable(`The zip holds ${zip.entryCount} files; class data are at most ${MOST_FILES}.`)
  const files = new Map<string, Uint8Array>()
  let total = 0
  return new Promise((done, fail) => {
    const stop = (error: unknown) => {
      zip.close()
      fail(error)
    }
    zip.on('error', (error: Error) => stop(sentenceFor(error)))
    zip.on('end', () => done(files))
    zip.on('entry', (entry: Entry) => {
      if (entry.fileName.endsWith('/') || !/\.csv$/i.test(entry.fileName)) return zip.readEntry()
      zip.openReadStream(entry, (error, stream) => {
        if (!stream) return stop(sentenceFor(error))
        const parts: Buffer[] = []
        stream.on('error', (problem: Error) => stop(sentenceFor(problem)))
        // What the entry claims to be long is not believed: what comes out is counted.
        stream.on('data', (part: Buffer) => {
          total += part.length
          if (total > MOST_BYTES) stream.destroy(new Unreadable('The zip unpacks to more than 200 MB. Class data are smaller; nothing was taken.'))
          else parts.push(part)
        })
        stream.on('end', () => {
          files.set(entry.fileName.split('/').at(-1)!.toLowerCase(), Buffer.concat(parts))
          zip.readEntry()
        })
      })
    })
    zip.readEntry()
  })
}

function sentenceFor(error: Error | null): Unreadable {
  if (error instanceof Unreadable) return error
  if (/invalid relative path|absolute path|invalid characters/.test(error?.message ?? '')) return new Unreadable('The zip holds a file whose name leads out of its folder. Nothing of it was taken.')
  return new Unreadable('This is not a zip file we can read.')
}
