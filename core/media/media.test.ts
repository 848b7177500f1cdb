import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { missingBytes, readBoxes } from './boxes'
import { forecast, leftWords, secondsLeft } from './forecast'
import { mayCopyVideo, planStreams } from './plan'
import { refusalOf, type Probe, type VideoTrack } from './probe'

const video = (change: Partial<VideoTrack> = {}): VideoTrack => ({ index: 0, codec: 'h264', pixelFormat: 'yuv420p', width: 1280, height: 720, rate: 25, keyframeGap: 2, still: false, ...change })
const probe = (change: Partial<Probe> = {}): Probe => ({ container: 'mp4', duration: 60, video: [video()], audio: [{ index: 0, codec: 'aac', channels: 1, sampleRate: 32000 }], ...change })

describe('refusing what is not a recording', () => {
  it('lets a whole recording through', () => {
    expect(refusalOf(1000, probe(), 0)).toBeUndefined()
    expect(refusalOf(1000, probe({ video: [] }), 0)).toBeUndefined()
  })

  it('says what is wrong', () => {
    expect(refusalOf(0, null, 0)?.code).toBe('empty')
    expect(refusalOf(10, null, 0)?.code).toBe('not-media')
    expect(refusalOf(10, probe(), 5_200_000)?.sentence).toContain('5 MB')
    expect(refusalOf(10, probe({ video: [video({ width: 16000, height: 16000 })] }), 0)?.code).toBe('too-large-picture')
    expect(refusalOf(10, probe({ video: [video({ width: 0, height: 0 })] }), 0)?.code).toBe('no-tracks')
    expect(refusalOf(10, probe({ video: [video({ still: true })], audio: [] }), 0)?.code).toBe('no-tracks')
  })
})

describe('boxes of a file', () => {
  const box = (type: string, length: number, real = length) => {
    const bytes = new Uint8Array(real)
    new DataView(bytes.buffer).setUint32(0, length)
    bytes.set([...type].map((c) => c.charCodeAt(0)), 4)
    return bytes
  }
  const walk = (...parts: Uint8Array[]) => {
    const file = Uint8Array.from(parts.flatMap((p) => [...p]))
    return readBoxes(async (at, length) => file.slice(at, at + length), file.length)
  }

  it('tell how much is missing at the end', async () => {
    expect(await walk(box('ftyp', 24), box('mdat', 100))).toEqual({ types: ['ftyp', 'mdat'], missing: 0 })
    expect(missingBytes((await walk(box('ftyp', 24), box('moov', 40), box('mdat', 100, 60)))!)).toBe(40)
  })

  it('forgive a last fragment that a power cut left half written', async () => {
    expect(missingBytes((await walk(box('ftyp', 24), box('moov', 40), box('moof', 30), box('mdat', 100, 20)))!)).toBe(0)
  })

  it('are not looked for in other files, and odd lengths end the walk', async () => {
    expect(await walk(new TextEncoder().encode('just some text, long enough'))).toBeUndefined()
    expect(await walk(box('ftyp', 4, 20))).toBeUndefined()
    expect((await walk(box('ftyp', 24), new Uint8Array(5)))?.missing).toBe(3)
  })

  it('never fail, whatever the bytes', async () => {
    await fc.assert(fc.asyncProperty(fc.uint8Array({ maxLength: 200 }), async (bytes) => {
      const found = await readBoxes(async (at, length) => bytes.slice(at, at + length), bytes.length)
      expect(found === undefined || found.missing >= 0).toBe(true)
    }))
  })
})

describe('the plan for streams', () => {
  it('copies what players show as it is', () => {
    expect(planStreams(probe())).toEqual([{ role: 'screen', video: 0, audio: 0, copyVideo: true, copyAudio: true, width: 1280, height: 720 }])
  })

  it.each([
    ['another codec', { codec: 'hevc' }], ['ten bits', { pixelFormat: 'yuv420p10le' }],
    ['too tall', { height: 1440 }], ['rare key frames', { keyframeGap: 12 }], ['unknown key frames', { keyframeGap: null }],
  ])('encodes anew for %s', (_, change) => {
    expect(mayCopyVideo(video(change))).toBe(false)
  })

  it('takes the larger of two pictures as the screen and keeps the camera silent', () => {
    const plan = planStreams(probe({ video: [video({ width: 640, height: 360 }), video({ index: 1 })] }))
    expect(plan.map((s) => [s.role, s.video, s.audio])).toEqual([['screen', 1, 0], ['camera', 0, null]])
  })

  it('never enlarges and keeps sizes even', () => {
    fc.assert(fc.property(fc.integer({ min: 16, max: 8000 }), fc.integer({ min: 16, max: 4000 }), (width, height) => {
      const [stream] = planStreams(probe({ video: [video({ width, height })] }))
      expect(stream!.width % 2 + stream!.height % 2).toBe(0)
      expect(stream!.width).toBeLessThanOrEqual(Math.max(2, Math.min(1280, width + 1)))
      expect(stream!.height).toBeLessThanOrEqual(Math.max(2, Math.min(720, height + 1)))
    }))
  })

  it('makes a sound stream when there is no picture', () => {
    expect(planStreams(probe({ video: [] }))).toMatchObject([{ role: 'screen', video: null, audio: 0 }])
  })
})

describe('forecasts', () => {
  it('take the middle and the slow end of the history', () => {
    const history = [1, 2, 3, 4, 10].map((seconds) => ({ size: 10, seconds }))
    expect(forecast(100, history)).toEqual({ median: 30, nineInTen: 100 })
    expect(forecast(100, [])).toBeUndefined()
  })

  it('move from the forecast to the pace of the work itself', () => {
    expect(secondsLeft(0, 0, 60)).toBe(60)
    expect(secondsLeft(0.5, 10)).toBe(10)
    expect(secondsLeft(0.5, 10, 60)).toBe(30)
    expect(secondsLeft(0, 5)).toBeUndefined()
    expect(secondsLeft(1, 5, 60)).toBe(0)
  })

  it('are said in words', () => {
    expect([20, 61, 250, 7200, null].map(leftWords)).toEqual(['under a minute left', 'about 1 min left', 'about 4 min left', 'about 2 h left', ''])
  })
})
