import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, truncateSync, statSync, writeFileSync, readdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { planStreams } from '~~/core/media/plan'
import { refusalOf } from '~~/core/media/probe'
import { missingIn, probeFile } from './probe'
import { lengthOf, makePoster, makeStream, readLevel, soundLevel } from './streams'

const folder = mkdtempSync(join(tmpdir(), 'karstland-media-'))
const at = (name: string) => join(folder, name)
const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-loglevel', 'error', '-y', ...args])

beforeAll(() => {
  ffmpeg('-f', 'lavfi', '-i', 'testsrc2=s=640x360:r=10', '-f', 'lavfi', '-i', 'sine=440', '-t', '6', '-c:v', 'libx264', '-preset', 'ultrafast', '-g', '20',
    '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-movflags', '+faststart', at('whole.mp4'))
})
afterAll(() => rmSync(folder, { recursive: true }))

const verdict = async (file: string) => {
  const { bytes, missing } = await missingIn(file)
  return refusalOf(bytes, await probeFile(file), missing)?.code
}

describe('files that people send', () => {
  it('passes a whole one', async () => {
    expect(await verdict(at('whole.mp4'))).toBeUndefined()
  })

  it('refuses a truncated one although its index promises all of it', async () => {
    ffmpeg('-i', at('whole.mp4'), '-c', 'copy', '-movflags', '+faststart', at('cut.mp4'))
    truncateSync(at('cut.mp4'), Math.floor(statSync(at('cut.mp4')).size / 2))
    expect(await verdict(at('cut.mp4'))).toBe('truncated')
  })

  it('refuses text, emptiness, and lists that reach for other files', async () => {
    writeFileSync(at('text.mp4'), 'This is a shopping list, not a lecture.\n'.repeat(50))
    writeFileSync(at('empty.mp4'), '')
    writeFileSync(at('list.mp4'), `#EXTM3U\n#EXT-X-TARGETDURATION:6\n#EXTINF:6,\nfile://${at('whole.mp4')}\n#EXT-X-ENDLIST\n`)
    writeFileSync(at('concat.mp4'), `ffconcat version 1.0\nfile '${at('whole.mp4')}'\n`)
    expect(await verdict(at('text.mp4'))).toBe('not-media')
    expect(await verdict(at('empty.mp4'))).toBe('empty')
    expect(await verdict(at('list.mp4'))).toBe('not-media')
    expect(await verdict(at('concat.mp4'))).toBe('not-media')
  })
})

describe('making', () => {
  it('copies into one ranged file, and leaves no half-made folder when stopped', async () => {
    const probe = (await probeFile(at('whole.mp4')))!
    const [plan] = planStreams(probe)
    expect(plan).toMatchObject({ copyVideo: true, copyAudio: true })
    expect(await makeStream(at('whole.mp4'), plan!, at('screen'), { length: 6 })).toBeCloseTo(6, 0)
    expect(readFileSync(at('screen/index.m3u8'), 'utf8')).toContain('#EXT-X-BYTERANGE')
    await expect(makeStream(at('whole.mp4'), { ...plan!, copyVideo: false }, at('stopped'), { length: 6, signal: AbortSignal.abort() })).rejects.toThrow()
    expect(readdirSync(folder)).not.toContain('stopped')
  })

  it('encodes when it may not copy, makes a poster and hears the tone', async () => {
    const [plan] = planStreams((await probeFile(at('whole.mp4')))!)
    let seen = 0
    const length = await makeStream(at('whole.mp4'), { ...plan!, copyVideo: false, copyAudio: false }, at('encoded'), { length: 6, onSeconds: (s) => (seen = s) })
    expect(length).toBeCloseTo(6, 0)
    expect(seen).toBeGreaterThan(3)
    await makePoster(at('whole.mp4'), 0, 1, at('poster.jpg'))
    expect(readFileSync(at('poster.jpg')).subarray(0, 2)).toEqual(Buffer.from([0xff, 0xd8]))
    const level = await soundLevel(at('whole.mp4'), { length: 6 })
    expect(level.heard).toBeGreaterThan(0.8)
    expect(level.loudness).toBeLessThan(0)
  })

  it('calls silence silence', () => {
    const log = '[x] t: 0.1 TARGET:-23 LUFS M:-120.7 S:-120.7 I: -70.0 LUFS\n[x] Summary:\n Integrated loudness:\n  I:  -70.0 LUFS\n'
    expect(readLevel(log)).toMatchObject({ loudness: null, heard: 0 })
    expect(lengthOf('')).toBe(0)
  })
})
