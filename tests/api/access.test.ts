import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FilingView, PlacementCode, RecordingView } from '~~/shared/library/views'
import type { WatchView } from '~~/shared/watch/watch'
import { closeSql, origin, sql } from '../support/house'
import { people, PersonClient } from '../support/person'

let teacher: PersonClient
let student: PersonClient
let id: string
let filingId: string

beforeAll(async () => {
  [teacher, student] = await Promise.all([people.instructor, people.student].map(PersonClient.signIn)) as [PersonClient, PersonClient]
  const [row] = await sql<{ id: string, filing: string }>(`
    SELECT r.id, f.id AS filing FROM recordings r JOIN filings f ON f.recording_id = r.id JOIN folders d ON d.id = f.folder_id JOIN sections s ON s.id = d.section_id JOIN courses c ON c.id = s.course_id
    WHERE c.code = 'HYD-210' AND s.number = '01' AND r.state = 'ready' AND r.store_prefix LIKE 'media/demo%' ORDER BY f.position LIMIT 1`)
  id = row!.id
  filingId = row!.filing
  await teacher.api('POST', `/api/recordings/${id}/hold`, { filingId })
})
afterAll(closeSql)

const watch = async (who: PersonClient) => (await who.api<WatchView & { say?: string }>('GET', `/api/recordings/${id}/watch`)).data
const release = () => teacher.api<RecordingView>('POST', `/api/recordings/${id}/release`, { filingId })

describe('a held recording', () => {
  it('is not there for a student, by any address', async () => {
    expect((await student.api('GET', `/api/recordings/${id}`)).status).toBe(404)
    const poster = await student.fetch(`/api/recordings/${id}/poster`)
    expect(poster.status).toBe(404)
    expect(poster.headers.get('content-type')).not.toContain('image')
    expect(await watch(student)).toMatchObject({ say: 'hidden' })
    expect((await student.api('POST', `/api/recordings/${id}/progress`, { positionS: 1, spans: [[0, 1]] })).status).toBe(404)
    const list = (await student.api<FilingView[]>('GET', '/api/filings')).data
    expect(list.map((f) => f.recordingId)).not.toContain(id)
    expect(list.every((f) => f.released)).toBe(true)
  })

  it('answers a student just as an address that leads nowhere', async () => {
    const nowhere = await student.fetch('/api/recordings/7d444840-9dc0-41d1-9b2f-5ae3c5d0a001')
    const held = await student.fetch(`/api/recordings/${id}`)
    expect([held.status, await held.text()]).toEqual([nowhere.status, await nowhere.text()])
  })

  it('gives no bytes of its stream, even to an address that was right a moment ago', async () => {
    await release()
    const { grant } = await watch(student)
    const stream = `${grant!.base}/screen/index.m4s`
    expect((await fetch(origin + stream, { headers: { range: 'bytes=0-9' } })).status).toBe(206)
    await teacher.api('POST', `/api/recordings/${id}/hold`, { filingId })
    await new Promise((r) => setTimeout(r, 300))
    for (const file of ['screen/index.m4s', 'screen/index.m3u8', 'camera/index.m4s', 'poster.jpg']) {
      const answer = await fetch(`${origin}${grant!.base}/${file}`)
      expect(answer.status).toBe(403)
      expect(await answer.json()).toHaveProperty('sentence')
    }
  })
})

describe('media addresses', () => {
  it('are signed: changed, cut or made up they open nothing, and nothing else of the store is reachable', async () => {
    await release()
    const { grant } = await watch(student)
    const [head, body] = grant!.base.split('.') as [string, string]
    for (const base of [`${head}x.${body}`, `${head}.${body}x`, head, '/media/abc', `/media/${Buffer.from('{"r":"x","expires":9e15}').toString('base64url')}.AAAA`]) {
      expect((await fetch(`${origin}${base}/screen/index.m3u8`)).status, base).toBe(403)
    }
    for (const file of ['..%2f..%2foriginals', '..%2f..%2f..%2fsettings.json', 'screen/index.m4s.part', 'level.json%00', 'screen', 'screen%2f..%2f..%2f..%2fincoming']) {
      expect((await fetch(`${origin}${grant!.base}/${file}`)).status, file).toBe(403)
    }
  })

  it('end with the session they came from', async () => {
    const leaver = await PersonClient.signIn(people.student)
    const { grant } = await watch(leaver)
    expect((await fetch(`${origin}${grant!.base}/poster.jpg`)).status).toBe(200)
    await leaver.api('POST', '/api/auth/sign-out')
    await new Promise((r) => setTimeout(r, 2200))
    expect((await fetch(`${origin}${grant!.base}/poster.jpg`)).status).toBe(403)
  })

  it('answer ranges byte for byte', async () => {
    const { grant } = await watch(student)
    const address = `${origin}${grant!.base}/screen/index.m4s`
    const whole = new Uint8Array(await (await fetch(address)).arrayBuffer())
    for (const [header, from, to] of [['bytes=0-99', 0, 100], [`bytes=${whole.length - 50}-`, whole.length - 50, whole.length], ['bytes=-10', whole.length - 10, whole.length]] as const) {
      const answer = await fetch(address, { headers: { range: header } })
      expect(answer.status).toBe(206)
      expect(answer.headers.get('content-range')).toBe(`bytes ${from}-${to - 1}/${whole.length}`)
      expect(Buffer.compare(Buffer.from(await answer.arrayBuffer()), Buffer.from(whole.subarray(from, to)))).toBe(0)
    }
    expect((await fetch(address, { headers: { range: `bytes=${whole.length}-` } })).status).toBe(416)
    const head = await fetch(address, { method: 'HEAD' })
    expect(Number(head.headers.get('content-length'))).toBe(whole.length)
  })
})

describe('release and placement', () => {
  it('is for the section’s own instructors, and leaves a record', async () => {
    const other = await PersonClient.signIn(people.otherInstructor)
    expect((await other.api('POST', `/api/recordings/${id}/release`, { filingId })).status).toBe(404)
    expect((await student.api('POST', `/api/recordings/${id}/release`, { filingId })).status).toBe(404)
    const { data } = await release()
    expect(data.road.beads).toMatchObject({ filed: 'done', released: 'done' })
    const [entry] = await sql<{ action: string, name: string }>('SELECT a.action, p.name FROM audit a JOIN people p ON p.id = a.actor_id WHERE subject_id = $1 ORDER BY a.id DESC LIMIT 1', [id])
    expect(entry).toEqual({ action: 'released', name: 'Tamsin Okoro' })
  })

  it('refuses a window that closes before it opens, and a filing of another recording', async () => {
    expect((await teacher.api('POST', `/api/recordings/${id}/release`, { filingId, opensAt: '2026-12-02T10:00:00Z', closesAt: '2026-12-01T10:00:00Z' })).status).toBe(422)
    const [foreign] = await sql<{ id: string }>('SELECT id FROM filings WHERE id <> $1 LIMIT 1', [filingId])
    expect((await teacher.api('POST', `/api/recordings/${id}/release`, { filingId: foreign!.id })).status).toBe(404)
  })

  it('hands out one code until it is met on a page; the page is noted once', async () => {
    const place = async () => (await teacher.api<PlacementCode>('POST', `/api/recordings/${id}/place`, { filingId, kind: 'player' })).data
    const first = await place()
    expect((await place()).id).toBe(first.id)
    expect(first.html).toMatch(/^<iframe src="http:\/\/localhost:\d+\/embed\/[\w-]{12}" title="HYD-210\/01, week 1 \w{3}: /)
    await fetch(first.address, { headers: { referer: `${origin}/recordings/x` } })
    await fetch(first.address, { headers: { referer: 'http://127.0.0.1:1234/p/abc?token=secret#x' } })
    await fetch(first.address, { headers: { referer: 'http://127.0.0.1:1234/p/other' } })
    const [row] = await sql<{ page_url: string }>('SELECT page_url FROM placements WHERE id = $1', [first.id])
    expect(row!.page_url).toBe('http://127.0.0.1:1234/p/abc')
    expect((await place()).id).not.toBe(first.id)
  })

  it('tells who follows a placement why not, and says nothing of one that never was', async () => {
    const { data } = await teacher.api<PlacementCode>('POST', `/api/recordings/${id}/place`, { filingId, kind: 'player' })
    const slug = data.address.split('/').at(-1)
    const outsider = await PersonClient.signIn('marisol.keane@fennick.example')
    expect((await outsider.api<{ say?: string }>('GET', `/api/embed/${slug}`)).data.say).toBeUndefined()
    const [other] = await sql<{ email: string }>(`SELECT email FROM people p WHERE role = 'student' AND NOT EXISTS (SELECT 1 FROM class_list l JOIN folders d ON d.section_id = l.section_id JOIN filings f ON f.folder_id = d.id WHERE f.id = $1 AND l.person_id = p.id) LIMIT 1`, [filingId])
    const notListed = await PersonClient.signIn(other!.email)
    expect((await notListed.api<object>('GET', `/api/embed/${slug}`)).data).toMatchObject({ say: 'told', title: 'You are not on this class list' })
    expect((await (await fetch(`${origin}/api/embed/${slug}`)).json())).toMatchObject({ say: 'sign-in' })
    expect((await student.api('GET', '/api/embed/AAAAAAAAAAAA')).data).toMatchObject({ title: 'This placement is gone' })
  })

  it('gives a frame a ticket for its own placement, which ends with the session', async () => {
    const { data } = await teacher.api<PlacementCode>('POST', `/api/recordings/${id}/place`, { filingId, kind: 'player' })
    const slug = data.address.split('/').at(-1)!
    const visitor = await PersonClient.signIn(people.student)
    const { data: issued } = await visitor.api<{ ticket: string }>('POST', `/api/embed/${slug}/ticket`)
    const ask = (path: string) => fetch(`${origin}${path}`, { headers: { authorization: `Bearer ${issued.ticket}` } })
    expect(await (await ask(`/api/embed/${slug}`)).json()).toHaveProperty('grant.base')
    // It opens nothing else.
    const [other] = await sql<{ slug: string }>('SELECT slug FROM placements WHERE slug <> $1 LIMIT 1', [slug])
    expect(await (await ask(`/api/embed/${other!.slug}`)).json()).toMatchObject({ say: 'sign-in' })
    expect((await ask(`/api/recordings/${id}`)).status).toBe(401)
    await visitor.api('POST', '/api/auth/sign-out')
    expect(await (await ask(`/api/embed/${slug}`)).json()).toMatchObject({ say: 'sign-in' })
  })

  it('counts watched spans once, however often they are sent', async () => {
    await release()
    const send = (spans: [number, number][]) => student.api('POST', `/api/recordings/${id}/progress`, { positionS: 30, spans })
    await Promise.all([send([[0, 20]]), send([[10, 30]]), send([[0, 20]])])
    const [row] = await sql<{ spans: unknown }>('SELECT v.spans FROM viewings v JOIN people p ON p.id = v.person_id WHERE p.email = $1 AND v.recording_id = $2', [people.student, id])
    expect(row!.spans).toEqual([[0, 30]])
    expect((await watch(student)).resumeAt).toBe(30)
    expect((await send([[5, 'x' as unknown as number]])).status).toBe(422)
  })
})
