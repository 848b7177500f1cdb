/** Captures of the past and files sent for them, as a recorder would send them. */
import { randomUUID } from 'node:crypto'
import { origin, recorderKey, sql, until } from './house'

let night = 0

/** A capture that is over, in the small hours of a past week, at the next hour at which its room is free. */
export async function pastCapture(room: string, section = 'HYD-210/01', topic = ''): Promise<{ id: string, uid: string, room: string }> {
  const id = randomUUID()
  const [code, number] = section.split('/')
  for (let tries = 0; tries < 60; tries++) {
    const hour = night++
    try {
      await sql(`INSERT INTO captures (id, section_id, room_id, presenter_id, topic, starts_at, ends_at, inputs)
        SELECT $1, s.id, r.id, l.person_id, $2, t.teaching_from + make_interval(hours => 1 + $6 % 4, days => $6 / 4), t.teaching_from + make_interval(hours => 1 + $6 % 4, mins => 50, days => $6 / 4), '{sound}'
        FROM sections s JOIN courses c ON c.id = s.course_id JOIN terms t ON t.id = s.term_id JOIN class_list l ON l.section_id = s.id AND l.role = 'instructor', rooms r
        WHERE c.code = $3 AND s.number = $4 AND r.name = $5 LIMIT 1`, [id, topic, code, number, room, hour])
      return { id, uid: `${id}@capture.karstland`, room }
    } catch (error) {
      if (!String(error).includes('one_capture_a_room')) throw error
    }
  }
  throw new Error(`${room} is taken all night`)
}

const tus = { 'tus-resumable': '1.0.0' }
const encode = (text: string) => Buffer.from(text).toString('base64')

/** Begins an upload. @returns its address */
export async function beginUpload(capture: { uid: string, room: string }, size: number, name = 'lecture.mp4', key = recorderKey(capture.room)): Promise<{ status: number, url: string }> {
  const answer = await fetch(`${origin}/recorders/uploads`, {
    method: 'POST',
    headers: { ...tus, 'authorization': `Bearer ${key}`, 'upload-length': String(size), 'upload-metadata': `uid ${encode(capture.uid)},filename ${encode(name)}`, 'x-request-id': `test-${randomUUID()}` },
  })
  return { status: answer.status, url: answer.headers.get('location') ? new URL(answer.headers.get('location')!, origin).href : '' }
}

export async function sendBytes(url: string, room: string, offset: number, bytes: Uint8Array): Promise<number> {
  const answer = await fetch(url, {
    method: 'PATCH', body: bytes as unknown as BodyInit,
    headers: { ...tus, 'authorization': `Bearer ${recorderKey(room)}`, 'upload-offset': String(offset), 'content-type': 'application/offset+octet-stream' },
  })
  return answer.status
}

/** Sends a whole file for a past capture. @returns the recording's id */
export async function sendWhole(capture: { id: string, uid: string, room: string }, bytes: Uint8Array, name?: string): Promise<string> {
  const { url } = await beginUpload(capture, bytes.length, name)
  if (bytes.length) await sendBytes(url, capture.room, 0, bytes)
  return until('the file to be booked', async () => (await sql<{ id: string }>('SELECT r.id FROM recordings r JOIN source_files f ON f.recording_id = r.id WHERE r.capture_id = $1', [capture.id]))[0]?.id)
}

/** Waits until the making of a recording has ended. */
export async function made(recordingId: string, seconds = 60): Promise<{ state: string, trouble: string, undertaking: string, attempts: number, duration_s: number | null }> {
  return until(`the making of ${recordingId}`, async () => (await sql<{ state: string, trouble: string, undertaking: string, attempts: number, duration_s: number | null }>(`
    SELECT r.state, r.trouble, u.state AS undertaking, u.attempts, r.duration_s FROM recordings r JOIN undertakings u ON u.recording_id = r.id
    WHERE r.id = $1 AND u.state IN ('done', 'failed', 'cancelled')`, [recordingId]))[0], seconds)
}
