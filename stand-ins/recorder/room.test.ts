import { execFileSync } from 'node:child_process'
import { appendFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pino from 'pino'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { CampusClock } from '../common/clock'
import { wholeFragments } from './fragments'
import { Room } from './room'

const folder = mkdtempSync(join(tmpdir(), 'karstland-room-'))
const lectures = join(folder, 'lectures')
const START = Date.UTC(2026, 10, 25, 10)
const MINUTE = 60_000
const clock = { at: START - MINUTE, rate: 1, now: () => clock.at }
const log = pino({ level: 'silent' })
let data: string
let n = 0

const stamp = (t: number) => new Date(t).toISOString().replace(/[-:]|\.\d+/g, '')
const event = (uid: string, from: number, minutes: number, inputs = 'sound,lectern screen,room camera') => ['BEGIN:VEVENT', `UID:${uid}`, `DTSTART:${stamp(from)}`, `DTEND:${stamp(from + minutes * MINUTE)}`, 'SUMMARY:HYD-210/01 Wells', `CATEGORIES:${inputs}`, 'END:VEVENT'].join('\r\n')

/** A recorder whose kept plan has these events; its server is away for good. */
function roomWith(...events: string[]): Room {
  mkdirSync(join(data, 'adit-theatre'), { recursive: true })
  writeFileSync(join(data, 'adit-theatre', 'plan.ics'), `BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${events.join('\r\n')}\r\nEND:VCALENDAR\r\n`)
  return again()
}
const again = () => new Room({ room: 'Adit Theatre', key: 'k' }, { server: 'http://127.0.0.1:9', lectures, data }, clock as unknown as CampusClock, log)
const file = (uid: string) => join(data, 'adit-theatre', `${uid.replace('@', '_')}.mp4`)
const secondsOf = (path: string) => Number(execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', path], { encoding: 'utf8' }))

/** Lets campus time pass, looking at the clock every `step` milliseconds. */
function pass(room: Room, until: number, step = 2000): void {
  for (; clock.at < until; clock.at = Math.min(until, clock.at + step)) room.tick()
  room.tick()
}

beforeAll(() => {
  mkdirSync(lectures)
  execFileSync('ffmpeg', ['-loglevel', 'error', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=5', '-f', 'lavfi', '-i', 'testsrc=s=160x90:r=10', '-f', 'lavfi', '-i', 'sine=300:r=32000', '-map', '0', '-map', '1', '-map', '2', '-t', '12',
    '-c:v', 'libx264', '-preset', 'ultrafast', '-g:v:0', '10', '-g:v:1', '20', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-movflags', 'empty_moov+default_base_moof', '-frag_duration', '1000000', join(lectures, 'wells.mp4')])
  writeFileSync(join(lectures, 'index.json'), JSON.stringify([{ file: 'wells.mp4', match: ['HYD'], levels: [-20] }]))
})
beforeEach(() => {
  data = join(folder, `data${n++}`)
  clock.at = START - MINUTE
  clock.rate = 1
})
afterAll(() => rmSync(folder, { recursive: true }))

describe('a room’s recorder', () => {
  it('starts and stops by the clock, and its file is as long as the capture', () => {
    const room = roomWith(event('a@x', START, 3))
    pass(room, START - 1000)
    expect(existsSync(file('a@x'))).toBe(false)
    pass(room, START + 4 * MINUTE)
    expect(secondsOf(file('a@x'))).toBeCloseTo(180, -0.5)
    expect(room.state().notes).toEqual([{ uid: 'a@x', state: 'complete' }])
  })

  it('is as long on a fast clock', () => {
    clock.rate = 60
    const room = roomWith(event('a@x', START, 3))
    pass(room, START + 4 * MINUTE, 12_000)
    expect(Math.abs(secondsOf(file('a@x')) - 180)).toBeLessThan(2.5)
  })

  it('records what is left when it learns of a capture late, and nothing of one that is over', () => {
    clock.at = START + 2 * MINUTE
    const room = roomWith(event('late@x', START, 3), event('over@x', START - 10 * MINUTE, 5))
    pass(room, START + 4 * MINUTE)
    expect(Math.abs(secondsOf(file('late@x')) - 60)).toBeLessThan(2.5)
    expect(existsSync(file('over@x'))).toBe(false)
  })

  it('takes in only what was asked for', () => {
    const room = roomWith(event('s@x', START, 1, 'sound,room camera'))
    pass(room, START + 2 * MINUTE)
    const tracks = execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'stream=codec_type,width', '-of', 'csv=p=0', file('s@x')], { encoding: 'utf8' })
    expect(tracks).toContain('video,160')
    expect(tracks).not.toContain('320')
    expect(tracks).toContain('audio')
  })

  it('loses only what it was off for when it is killed: the torn end is cut, the rest goes on', () => {
    pass(roomWith(event('a@x', START, 4)), START + 2 * MINUTE)
    appendFileSync(file('a@x'), Buffer.from('a fragment that was torn in the middle'))
    const before = statSync(file('a@x')).size
    clock.at = START + 3 * MINUTE
    const room = again()
    expect(statSync(file('a@x')).size).toBeLessThan(before)
    pass(room, START + 5 * MINUTE)
    expect(Math.abs(secondsOf(file('a@x')) - 180)).toBeLessThan(3)
    expect(wholeFragments(readFileSync(file('a@x'))).bytes).toBe(statSync(file('a@x')).size)
  })

  it('keeps a whole file for as long as the server is away', async () => {
    const room = roomWith(event('a@x', START, 1))
    pass(room, START + 2 * MINUTE)
    expect(await room.report()).toBe(false)
    expect(room.reachable).toBe(false)
    expect(await room.plan.refresh()).toBe(false)
    expect(again().state().notes).toEqual([{ uid: 'a@x', state: 'complete' }])
    expect(readdirSync(join(data, 'adit-theatre'))).toContain('a_x.mp4')
  })

  it('begins nothing twice', () => {
    const room = roomWith(event('a@x', START, 1))
    pass(room, START + 2 * MINUTE)
    const size = statSync(file('a@x')).size
    clock.at = START + 30_000
    room.tick()
    again().tick()
    expect(statSync(file('a@x')).size).toBe(size)
  })
})
