/**
 * The boxes of an ISO base media file (MP4, MOV), read only as far as needed to tell whether the file
 * is all there. A truncated file with its index in front passes every probe with its full length, so
 * the sizes in the boxes are held against the size of the file (ISO/IEC 14496-12, 4.2).
 */

/** Reads `length` bytes at `offset`; fewer at the end of the file. */
export type ReadAt = (offset: number, length: number) => Promise<Uint8Array>

export interface Boxes {
  /** top-level box types in order */
  types: string[]
  /** bytes the boxes speak of beyond the end of the file */
  missing: number
}

const MOST_BOXES = 200_000

/** Walks the top-level boxes; undefined when the file does not begin like an ISO media file. */
export async function readBoxes(read: ReadAt, size: number): Promise<Boxes | undefined> {
  const types: string[] = []
  let at = 0
  while (at < size && types.length < MOST_BOXES) {
    const head = await read(at, 16)
    if (head.length < 8) return { types, missing: 8 - head.length }
    const view = new DataView(head.buffer, head.byteOffset, head.length)
    const type = String.fromCharCode(...head.subarray(4, 8))
    if (!/^[\x20-\x7e]{4}$/.test(type) || (types.length === 0 && !['ftyp', 'styp', 'moov', 'wide', 'free', 'skip', 'mdat'].includes(type))) {
      return types.length ? { types, missing: 0 } : undefined
    }
    types.push(type)
    let length = view.getUint32(0)
    // 0: to the end of the file; 1: a 64-bit length follows the type.
    if (length === 0) return { types, missing: 0 }
    if (length === 1) {
      if (head.length < 16) return { types, missing: 16 - head.length }
      length = Number(view.getBigUint64(8))
    }
    if (length < 8) return types.length > 1 ? { types, missing: 0 } : undefined
    at += length
  }
  return { types, missing: Math.max(0, at - size) }
}

/**
 * Bytes really lost. A recorder that lost power leaves a last fragment half written: the fragments
 * before it are whole, so such a file is fit; a plain file with an index that points past its end is not.
 */
export function missingBytes(boxes: Boxes): number {
  const fragments = boxes.types.filter((t) => t === 'moof').length
  return fragments >= 1 ? 0 : boxes.missing
}
