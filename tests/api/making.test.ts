import { execFileSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { wallOf } from '~~/core/term/calendar'
import type { PlanChoices } from '~~/shared/timetable/views'
import { campusNow, closeSql, kill, lectures, origin, recorderKey, setClock, sql, start, until } from '../support/house'
import { beginUpload, made, pastCapture, sendBytes, sendWhole } from '../support/capture'
import { people, PersonClient } from '../support/person'

const folder = mkdtempSync(join(tmpdir(), 'karstland-api-'))
const lecture = () => readFileSync(join(lectures, 'wells.mp4'))
let heavy: Uint8Array
let staff: PersonClient

beforeAll(async () => {
  staff = await PersonClient.signIn(people.staff)
  // An old codec, so that it has to be encoded anew: long enough to be killed on the way.
  execFileSync('ffmpeg', ['-loglevel', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=1280x720:r=25', '-f', 'lavfi', '-i', 'sine=330', '-t', '50', '-c:v', 'mpeg4', '-q:v', '6', '-c:a', 'aac', '-shortest', join(folder, 'old.mp4')])
  heavy = readFileSync(join(folder, 'old.mp4'))
})
afterAll(async () => {
  rmSync(folder, { recursive: true })
  await closeSql()
})

describe('files that are no recordings', () => {
  const secret = join(folder, 'secret.mp4')
  const bad: [string, () => Uint8Array, RegExp][] = [
    ['a text file', () => Buffer.from('Minutes of the meeting\n'.repeat(400)), /not a video or sound file/],
    ['an empty file', () => new Uint8Array(), /empty/],
    ['a truncated file', () => {
      execFileSync('ffmpeg', ['-loglevel', 'error', '-y', '-i', join(folder, 'old.mp4'), '-c', 'copy', '-movflags', '+faststart', join(folder, 'fast.mp4')])
      const whole = readFileSync(join(folder, 'fast.mp4'))
      return whole.subarray(0, Math.floor(whole.length / 3))
    }, /stops early: \d+ (MB|kB)/],
    ['a playlist that points at local files', () => {
      execFileSync('ffmpeg', ['-loglevel', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=d=2', secret])
      return Buffer.from(`#EXTM3U\n#EXT-X-TARGETDURATION:2\n#EXTINF:2,\nfile://${secret}\n#EXT-X-ENDLIST\n`)
    }, /not a video or sound file/],
    ['a concat list', () => Buffer.from(`ffconcat version 1.0\nfile '${secret}'\n`), /not a video or sound file/],
  ]

  it.each(bad)('%s is refused with a sentence, and nothing is stuck', async (_name, bytes, sentence) => {
    const capture = await pastCapture('Kiln Room')
    const id = await sendWhole(capture, bytes(), 'lecture.mp4')
    const result = await made(id)
    expect(result).toMatchObject({ state: 'failed', undertaking: 'failed' })
    expect(result.trouble).toMatch(sentence)
    const [row] = await sql<{ state: string }>('SELECT state FROM captures WHERE id = $1', [capture.id])
    expect(row!.state).toBe('failed')
    expect(existsSync(join(process.env.STORE_DIR!, 'media', id))).toBe(false)
    expect((await sql('SELECT 1 FROM graphile_worker.jobs WHERE key = $1', [`make ${id}`]))).toHaveLength(0)
  })
})

describe('making', () => {
  it('copies a recorder’s two pictures and sound, and names it by section, week and topic', async () => {
    const capture = await pastCapture('Adit Theatre', 'HYD-210/01', 'A <b>bold</b> "topic" & more')
    const id = await sendWhole(capture, lecture())
    const result = await made(id)
    expect(result).toMatchObject({ state: 'ready', undertaking: 'done', attempts: 1 })
    const [row] = await sql<{ name: string, has_camera: boolean, level: { heard: number }, capture: string, folder: string }>(`
      SELECT r.name, r.has_camera, r.level, c.state AS capture, d.name AS folder FROM recordings r JOIN captures c ON c.id = r.capture_id JOIN filings f ON f.recording_id = r.id JOIN folders d ON d.id = f.folder_id WHERE r.id = $1`, [id])
    expect(row!.name).toMatch(/^HYD-210\/01, week \d+ \w{3}: A <b>bold<\/b> "topic" & more$/)
    expect(row).toMatchObject({ has_camera: true, capture: 'filed', folder: 'HYD-210/01 Groundwater Hydrology' })
    expect(row!.level.heard).toBeGreaterThan(0.5)
    const index = readFileSync(join(process.env.STORE_DIR!, 'media', id, 'screen', 'index.m3u8'), 'utf8')
    expect(index).toContain('#EXT-X-ENDLIST')
    const probe = execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'stream=codec_name,width', '-of', 'csv=p=0', join(process.env.STORE_DIR!, 'media', id, 'screen', 'index.m4s')], { encoding: 'utf8' })
    expect(probe).toContain('h264,1280')
  })

  it('is finished after the worker was killed in the middle, and nothing is there twice', async () => {
    const capture = await pastCapture('Weir Lab 2', 'SOI-205/01')
    const id = await sendWhole(capture, heavy)
    await until('the making to be on its way', async () => (await sql('SELECT 1 FROM undertakings WHERE recording_id = $1 AND state = $2 AND percent > 5', [id, 'running'])).length > 0)
    await kill('worker')
    const [torn] = await sql<{ state: string }>('SELECT state FROM recordings WHERE id = $1', [id])
    expect(torn!.state).toBe('being_made')
    await start('worker')
    const result = await made(id, 90)
    expect(result).toMatchObject({ state: 'ready', undertaking: 'done', attempts: 2 })
    expect(result.duration_s).toBeCloseTo(50, 0)
    expect(await sql('SELECT 1 FROM filings WHERE recording_id = $1', [id])).toHaveLength(1)
    expect(readdirSync(join(process.env.STORE_DIR!, 'media', id)).sort()).toEqual(['level.json', 'poster.jpg', 'screen'])
  }, 150_000)

  it('can be cancelled on the way and asked for again', async () => {
    const capture = await pastCapture('Weir Lab 2', 'SOI-205/01')
    const id = await sendWhole(capture, heavy)
    const work = await until('the making to run', async () => (await sql<{ id: string }>('SELECT id FROM undertakings WHERE recording_id = $1 AND state = $2', [id, 'running']))[0])
    expect((await staff.api('POST', `/api/under-way/${work.id}/cancel`)).status).toBe(200)
    expect(await made(id)).toMatchObject({ state: 'failed', undertaking: 'cancelled' })
    expect((await staff.api('POST', `/api/under-way/${work.id}/cancel`)).status).toBe(409)
    expect((await staff.api('POST', `/api/under-way/${work.id}/again`)).status).toBe(200)
    expect(await made(id, 90)).toMatchObject({ state: 'ready', undertaking: 'done' })
  }, 150_000)
})

describe('an upload', () => {
  it('goes on where it was when the web was killed on the way', async () => {
    const capture = await pastCapture('Ferry Annexe', 'FLD-120/01')
    const bytes = lecture()
    const half = Math.floor(bytes.length / 2)
    const { url } = await beginUpload(capture, bytes.length)
    expect(await sendBytes(url, capture.room, 0, bytes.subarray(0, half))).toBe(204)
    const broken = sendBytes(url, capture.room, half, bytes.subarray(half, half + 1000)).catch(() => 0)
    await kill('web')
    await broken
    await start('web')
    const head = await fetch(url, { method: 'HEAD', headers: { 'tus-resumable': '1.0.0', 'authorization': `Bearer ${recorderKey(capture.room)}` } })
    const offset = Number(head.headers.get('upload-offset'))
    expect(offset).toBeGreaterThanOrEqual(half)
    expect(await sendBytes(url, capture.room, offset, bytes.subarray(offset))).toBe(204)
    const id = await until('the recording', async () => (await sql<{ id: string }>('SELECT id FROM recordings WHERE capture_id = $1', [capture.id]))[0]?.id)
    expect((await made(id)).state).toBe('ready')
    expect(await sql('SELECT 1 FROM source_files WHERE recording_id = $1', [id])).toHaveLength(1)
  })

  it('is for recorders with a key, for their own room and a capture that is there', async () => {
    const capture = await pastCapture('Ferry Annexe', 'FLD-120/01')
    expect((await beginUpload(capture, 10, 'x.mp4', 'not-a-key-of-ours')).status).toBe(401)
    expect((await beginUpload({ uid: 'somebody@elsewhere', room: capture.room }, 10)).status).toBe(400)
    const { url } = await beginUpload(capture, 10)
    expect(await sendBytes(url, 'Adit Theatre', 0, new Uint8Array(10))).toBe(404)
  })
})

describe('a recorder', () => {
  it('keeps its plan and records on its own while the server is away, is killed once itself, and sends all of it later', async () => {
    const { data: choices } = await staff.api<PlanChoices>('GET', '/api/plans/choices')
    const section = choices.sections.find((s) => s.code === 'MIL-180/01')!
    const begin = wallOf('Europe/London', Math.ceil(await campusNow() / 60_000) * 60_000 + 3 * 60_000)
    const room = choices.rooms.find((r) => r.name === 'Lock Studio')!
    const { status, data } = await staff.api<{ captureId: string }>('POST', '/api/plans', {
      sectionId: section.id, roomId: room.id, date: begin.date, start: begin.time, minutes: 8, presenterId: section.presenterIds[0], inputs: ['sound', 'lectern screen'], title: 'Alone',
    })
    expect(status).toBe(201)
    const stateOf = async () => (await sql<{ state: string }>('SELECT state FROM captures WHERE id = $1', [data.captureId]))[0]!.state
    await until('the recorder to hold it', async () => await stateOf() === 'armed')
    await kill('web')
    try {
      await setClock({ rate: 40 })
      await new Promise((r) => setTimeout(r, 8000))
      await kill('recorder')
      await start('recorder')
      await new Promise((r) => setTimeout(r, 11_000))
    } finally {
      await setClock({ rate: 1 })
      await start('web')
    }
    const id = await until('the recording', async () => (await sql<{ id: string }>('SELECT r.id FROM recordings r JOIN source_files f ON f.recording_id = r.id WHERE capture_id = $1', [data.captureId]))[0]?.id, 60)
    const result = await made(id)
    expect(result.state).toBe('ready')
    expect(await stateOf()).toBe('filed')
    // What passed while the recorder itself was down is lost, and nothing else.
    expect(result.duration_s).toBeGreaterThan(240)
    expect(result.duration_s).toBeLessThanOrEqual(481)
    const [row] = await sql<{ has_camera: boolean }>('SELECT has_camera FROM recordings WHERE id = $1', [id])
    expect(row!.has_camera).toBe(false)
  }, 150_000)

  it('gets its plan as iCalendar, unchanged while nothing changes', async () => {
    const headers = { authorization: `Bearer ${recorderKey('Adit Theatre')}` }
    const answer = await fetch(`${origin}/recorders/plan.ics`, { headers })
    const text = await answer.text()
    expect(answer.headers.get('content-type')).toContain('text/calendar')
    expect(text).toMatch(/BEGIN:VEVENT[\s\S]*DTSTART:\d{8}T\d{6}Z[\s\S]*CATEGORIES:sound,lectern screen,room camera/)
    expect((await fetch(`${origin}/recorders/plan.ics`, { headers: { ...headers, 'if-none-match': answer.headers.get('etag')! } })).status).toBe(304)
    expect((await fetch(`${origin}/recorders/plan.ics`)).status).toBe(401)
  })

  it('cannot move captures of another room, nor send nonsense', async () => {
    const report = (key: string, body: object) => fetch(`${origin}/recorders/report`, { method: 'POST', body: JSON.stringify(body), headers: { 'authorization': `Bearer ${key}`, 'content-type': 'application/json' } })
    const capture = await pastCapture('Tithe Room')
    const key = recorderKey('Sluice House')
    expect((await report(key, { state: 'recording', holding: [], sending: [], recording: capture.uid })).status).toBe(200)
    const [row] = await sql<{ state: string }>('SELECT state FROM captures WHERE id = $1', [capture.id])
    expect(row!.state).toMatch(/planned|missed/)
    expect((await report(key, { state: 'dancing', holding: 'all' })).status).toBe(422)
  })
})
