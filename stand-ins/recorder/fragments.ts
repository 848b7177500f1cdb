/**
 * A prepared lecture as fragments of about a second each (fragmented MP4, ISO/IEC 14496-12, 8.8),
 * and how it is laid end to end for as long as a capture lasts: every fragment is whole in itself, so
 * a file that is written fragment by fragment survives a kill at any moment.
 */

interface Box { type: string, at: number, size: number, body: number }

function* boxesOf(data: Buffer, from: number, to: number): Generator<Box> {
  for (let at = from; at + 8 <= to;) {
    let size = data.readUInt32BE(at)
    let body = at + 8
    if (size === 1) {
      size = Number(data.readBigUInt64BE(at + 8))
      body = at + 16
    }
    if (size < 8) return
    yield { type: data.toString('latin1', at + 4, at + 8), at, size, body }
    at += size
  }
}

const child = (data: Buffer, box: Box, type: string) => [...boxesOf(data, box.body, box.at + box.size)].find((b) => b.type === type)

interface Track { id: number, timescale: number }

/** Where a fragment names its time: the position of the 64-bit number, and the track's clock. */
interface TimeField { at: number, timescale: number, value: bigint }

interface Fragment { bytes: Buffer, sequenceAt: number, times: TimeField[], start: number }

export class Lecture {
  /** file type and index: the beginning of every recording of it */
  readonly head: Buffer
  readonly fragments: Fragment[] = []
  /** seconds until it begins anew */
  readonly seconds: number

  /** @throws Error when the file is no fragmented MP4 with 64-bit times */
  constructor(data: Buffer) {
    const top = [...boxesOf(data, 0, data.length)]
    const moov = top.find((b) => b.type === 'moov')
    if (!moov) throw new Error('no index in the prepared lecture')
    this.head = data.subarray(0, moov.at + moov.size)
    const tracks = tracksOf(data, moov)
    let end = 0
    top.forEach((box, i) => {
      const mdat = top[i + 1]
      if (box.type !== 'moof' || mdat?.type !== 'mdat') return
      const { fragment, ends } = fragmentOf(data, box, mdat, tracks)
      this.fragments.push(fragment)
      end = Math.max(end, ends)
    })
    if (!this.fragments.length) throw new Error('no fragments in the prepared lecture')
    this.seconds = end
  }

  /** Seconds into the recording at which fragment number `n` of the endless lecture begins. */
  startOf(n: number): number {
    return Math.floor(n / this.fragments.length) * this.seconds + this.fragments[n % this.fragments.length]!.start
  }

  /** Fragment number `n` of the endless lecture, its times moved to where it belongs. */
  fragment(n: number): Buffer {
    const round = Math.floor(n / this.fragments.length)
    const fragment = this.fragments[n % this.fragments.length]!
    const bytes = Buffer.from(fragment.bytes)
    bytes.writeUInt32BE(n + 1, fragment.sequenceAt)
    for (const { at, timescale, value } of fragment.times) bytes.writeBigUInt64BE(value + BigInt(Math.round(round * this.seconds * timescale)), at)
    return bytes
  }
}

function tracksOf(data: Buffer, moov: Box): Map<number, Track> {
  const tracks = new Map<number, Track>()
  for (const trak of boxesOf(data, moov.body, moov.at + moov.size)) {
    if (trak.type !== 'trak') continue
    const tkhd = child(data, trak, 'tkhd')!
    const mdhd = child(data, child(data, trak, 'mdia')!, 'mdhd')!
    // Version 1 has 64-bit creation and change times before the fields wanted here.
    const id = data.readUInt32BE(tkhd.body + (data[tkhd.body] === 1 ? 20 : 12))
    tracks.set(id, { id, timescale: data.readUInt32BE(mdhd.body + (data[mdhd.body] === 1 ? 20 : 12)) })
  }
  return tracks
}

function fragmentOf(data: Buffer, moof: Box, mdat: Box, tracks: Map<number, Track>): { fragment: Fragment, ends: number } {
  const mfhd = child(data, moof, 'mfhd')!
  const times: TimeField[] = []
  let start = Infinity
  let ends = 0
  for (const traf of boxesOf(data, moof.body, moof.at + moof.size)) {
    if (traf.type !== 'traf') continue
    const tfhd = child(data, traf, 'tfhd')!
    const tfdt = child(data, traf, 'tfdt')!
    if (data[tfdt.body] !== 1) throw new Error('the prepared lecture has 32-bit times')
    const { timescale } = tracks.get(data.readUInt32BE(tfhd.body + 4))!
    const value = data.readBigUInt64BE(tfdt.body + 4)
    times.push({ at: tfdt.body + 4 - moof.at, timescale, value })
    start = Math.min(start, Number(value) / timescale)
    ends = Math.max(ends, (Number(value) + durationOf(data, traf, tfhd)) / timescale)
  }
  return { fragment: { bytes: data.subarray(moof.at, mdat.at + mdat.size), sequenceAt: mfhd.body + 4 - moof.at, times, start }, ends }
}

/** Ticks of all samples of a track fragment (8.8.7, 8.8.8). */
function durationOf(data: Buffer, traf: Box, tfhd: Box): number {
  const flags = data.readUIntBE(tfhd.body + 1, 3)
  const optional = [[0x1, 8], [0x2, 4]].reduce((sum, [flag, size]) => sum + (flags & flag! ? size! : 0), 0)
  const fallback = flags & 0x8 ? data.readUInt32BE(tfhd.body + 8 + optional) : 0
  let ticks = 0
  for (const trun of boxesOf(data, traf.body, traf.at + traf.size)) {
    if (trun.type !== 'trun') continue
    const trunFlags = data.readUIntBE(trun.body + 1, 3)
    const count = data.readUInt32BE(trun.body + 4)
    const row = 4 * [0x100, 0x200, 0x400, 0x800].filter((f) => trunFlags & f).length
    const rows = trun.body + 8 + (trunFlags & 0x1 ? 4 : 0) + (trunFlags & 0x4 ? 4 : 0)
    for (let i = 0; i < count; i++) ticks += trunFlags & 0x100 ? data.readUInt32BE(rows + i * row) : fallback
  }
  return ticks
}

/** Bytes of `file` up to the end of its last whole fragment, and how many there are. */
export function wholeFragments(file: Buffer): { bytes: number, count: number } {
  let bytes = 0
  let count = 0
  const boxes = [...boxesOf(file, 0, file.length)]
  boxes.forEach((box, i) => {
    if (box.at + box.size > file.length) return
    if (box.type === 'moov') bytes = box.at + box.size
    if (box.type === 'mdat' && boxes[i - 1]?.type === 'moof') {
      bytes = box.at + box.size
      count++
    }
  })
  return { bytes, count }
}
