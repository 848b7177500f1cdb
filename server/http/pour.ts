/**
 * Pours a part of a file into an answer. Buffers are used again and again: a fresh one for every
 * piece costs more than reading and sending it. Half a MiB a piece: smaller ones spend their time in
 * turns of the event loop, larger ones gain nothing more.
 */
import type { FileHandle } from 'node:fs/promises'
import type { ServerResponse } from 'node:http'

const PIECE = 512 * 1024
const MOST_KEPT = 64
const kept: Buffer[] = []

/** Writes one piece; resolves when its buffer may be used again, with false when the reader has gone. */
function write(res: ServerResponse, piece: Buffer): Promise<boolean> {
  return new Promise((resolve) => {
    if (res.destroyed) return resolve(false)
    const gone = () => resolve(false)
    res.once('close', gone)
    res.write(piece, (error) => {
      res.off('close', gone)
      resolve(!error)
    })
  })
}

/**
 * Sends bytes `start` to `end`, both included, and ends the answer. When the reader goes away in
 * the middle it stops. The file stays open; it is its opener's.
 * @returns whether all of it was sent
 */
export async function pour(file: FileHandle, start: number, end: number, res: ServerResponse): Promise<boolean> {
  const buffer = kept.pop() ?? Buffer.allocUnsafeSlow(PIECE)
  let reusable = true
  try {
    for (let at = start; at <= end;) {
      const { bytesRead } = await file.read(buffer, 0, Math.min(PIECE, end - at + 1), at)
      if (!bytesRead) break
      // Until its write is over a buffer belongs to the socket; one whose reader has gone is given up.
      if (!await write(res, buffer.subarray(0, bytesRead))) {
        reusable = false
        return false
      }
      at += bytesRead
    }
    res.end()
    return true
  } finally {
    if (reusable && kept.length < MOST_KEPT) kept.push(buffer)
  }
}
