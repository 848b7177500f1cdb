import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Lecture, wholeFragments } from './fragments'

const folder = mkdtempSync(join(tmpdir(), 'karstland-fragments-'))
let lecture: Lecture

beforeAll(() => {
  execFileSync('ffmpeg', ['-loglevel', 'error', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=5', '-f', 'lavfi', '-i', 'sine=300:r=32000', '-t', '8', '-c:v', 'libx264', '-preset', 'ultrafast',
    '-g', '10', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-movflags', 'empty_moov+default_base_moof', '-frag_duration', '1000000', join(folder, 'piece.mp4')])
  lecture = new Lecture(readFileSync(join(folder, 'piece.mp4')))
})
afterAll(() => rmSync(folder, { recursive: true }))

const record = (count: number) => Buffer.concat([lecture.head, ...Array.from({ length: count }, (_, n) => lecture.fragment(n))])

describe('a lecture laid end to end', () => {
  it('decodes without a fault and is as long as what was laid', () => {
    const count = lecture.fragments.length * 3
    const file = join(folder, 'three.mp4')
    writeFileSync(file, record(count))
    const faults = execFileSync('ffmpeg', ['-loglevel', 'error', '-xerror', '-i', file, '-f', 'null', '-'], { encoding: 'utf8' })
    expect(faults).toBe('')
    const packets = execFileSync('ffprobe', ['-v', 'error', '-select_streams', 'v:0', '-show_entries', 'packet=pts_time', '-of', 'csv=p=0', file], { encoding: 'utf8' })
    const times = packets.trim().split('\n').map((t) => Number.parseFloat(t))
    expect(times).toHaveLength(3 * 40)
    expect(times.at(-1)).toBeCloseTo(lecture.startOf(count) - 0.2, 0)
    expect(times.every((t, i) => i === 0 || t > times[i - 1]!)).toBe(true)
  })

  it('keeps every whole fragment when it was cut anywhere', () => {
    const file = record(5)
    for (const cut of [file.length, file.length - 1, lecture.head.length + 10, lecture.head.length]) {
      const { bytes, count } = wholeFragments(file.subarray(0, cut))
      expect(bytes).toBeLessThanOrEqual(cut)
      expect(Buffer.compare(record(count), file.subarray(0, bytes))).toBe(0)
    }
    expect(wholeFragments(file).count).toBe(5)
  })

  it('says what is wrong with a file that has no fragments', () => {
    expect(() => new Lecture(Buffer.from('nothing of the kind'))).toThrow(/index/)
  })
})
