/** The recorder of one room: holds its plan, records by the campus clock, sends what it recorded. */
import { appendFileSync, existsSync, mkdirSync, readFileSync, rmSync, statfsSync, statSync, truncateSync, writeFileSync, renameSync, createReadStream } from 'node:fs'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import type { Logger } from 'pino'
import { Upload } from 'tus-js-client'
import type { CampusClock } from '../common/clock'
import { wholeFragments } from './fragments'
import { showFor, type Show } from './lectures'
import { Plan, type PlannedEvent } from './plan'

export interface RoomSettings { room: string, key: string }
export interface Places { server: string, lectures: string, data: string }

/** What is known about an event that has begun; kept on disk. */
interface Note extends PlannedEvent {
  state: 'recording' | 'complete' | 'sent'
  /** campus time that fragment 0 stands for; moves when the recorder itself was off */
  began: number
  uploadUrl?: string
}

/** A start noticed within this many real seconds counts as on time. */
const PUNCTUAL_S = 3

export class Room {
  readonly plan: Plan
  #notes = new Map<string, Note>()
  #written = new Map<string, number>()
  #folder: string
  #sending = false
  reachable = false

  constructor(private readonly settings: RoomSettings, private readonly places: Places, private readonly clock: CampusClock, private readonly log: Logger) {
    this.#folder = join(places.data, settings.room.toLowerCase().replace(/[^a-z0-9]+/g, '-'))
    mkdirSync(this.#folder, { recursive: true })
    this.plan = new Plan(join(this.#folder, 'plan.ics'), `${places.server}/recorders/plan.ics`, settings.key)
    this.#takeUpAgain()
  }

  /** After a kill: the torn end of a running file is cut off, and what was missed stays missed. */
  #takeUpAgain(): void {
    const file = join(this.#folder, 'notes.json')
    if (!existsSync(file)) return
    for (const note of JSON.parse(readFileSync(file, 'utf8')) as Note[]) {
      this.#notes.set(note.uid, note)
      if (note.state !== 'recording' || !existsSync(this.#fileOf(note))) continue
      const { bytes, count } = wholeFragments(readFileSync(this.#fileOf(note)))
      truncateSync(this.#fileOf(note), bytes)
      this.#written.set(note.uid, count)
      const { lecture } = this.#show(note)
      note.began = Math.max(note.began, Math.min(this.clock.now(), note.end) - Math.round(lecture.startOf(count) * 1000))
    }
    this.#keep()
  }

  #keep(): void {
    const file = join(this.#folder, 'notes.json')
    const notes = [...this.#notes.values()].filter((n) => n.state !== 'sent' || n.end > this.clock.now() - 7 * 24 * 3600_000)
    writeFileSync(`${file}.new`, JSON.stringify(notes))
    renameSync(`${file}.new`, file)
  }

  #fileOf = (note: Note) => join(this.#folder, `${note.uid.replace(/[^\w.-]/g, '_')}.mp4`)
  #show = (note: PlannedEvent): Show => showFor(this.places.lectures, join(this.places.data, 'pieces'), note.summary, note.inputs)

  /** One look at the clock: begin what is due, write what is due, end what is over. */
  tick(): void {
    const now = this.clock.now()
    for (const event of this.plan.events) {
      if (this.#notes.has(event.uid) || now < event.start || now >= event.end) continue
      const late = (now - event.start) / Math.max(this.clock.rate, 0.001) / 1000
      const note: Note = { ...event, state: 'recording', began: late <= PUNCTUAL_S ? event.start : now }
      this.#notes.set(event.uid, note)
      this.#written.set(event.uid, 0)
      writeFileSync(this.#fileOf(note), this.#show(note).lecture.head)
      this.#keep()
      this.log.info({ room: this.settings.room, uid: event.uid }, 'recording begins')
    }
    for (const note of this.#notes.values()) if (note.state === 'recording') this.#write(note, now)
  }

  #write(note: Note, now: number): void {
    const { lecture } = this.#show(note)
    const due = (Math.min(now, note.end) - note.began) / 1000
    let n = this.#written.get(note.uid) ?? 0
    const pieces: Buffer[] = []
    // A fragment is written when it is over, as a real encoder would.
    while (lecture.startOf(n + 1) <= due + 0.05 && pieces.length < 4000) pieces.push(lecture.fragment(n++))
    if (pieces.length) appendFileSync(this.#fileOf(note), Buffer.concat(pieces))
    this.#written.set(note.uid, n)
    if (now < note.end || lecture.startOf(n + 1) <= due + 0.05) return
    note.state = 'complete'
    this.#keep()
    this.log.info({ room: this.settings.room, uid: note.uid, bytes: statSync(this.#fileOf(note)).size }, 'recording is whole')
  }

  /** Tells the server how things are. @returns whether it answered */
  async report(): Promise<boolean> {
    const running = [...this.#notes.values()].find((n) => n.state === 'recording')
    const sending = [...this.#notes.values()].filter((n) => n.state === 'complete')
    const { bavail, bsize } = statfsSync(this.#folder)
    const body = {
      state: running ? 'recording' : sending.length ? 'sending' : 'idle',
      holding: this.plan.events.map((e) => e.uid), sending: sending.map((n) => n.uid),
      ...(running ? { recording: running.uid, bytes: statSync(this.#fileOf(running)).size, ...this.#level(running) } : {}),
      freeBytes: Number(bavail) * Number(bsize),
    }
    try {
      const answer = await fetch(`${this.places.server}/recorders/report`, {
        method: 'POST', body: JSON.stringify(body), signal: AbortSignal.timeout(5000),
        headers: { 'authorization': `Bearer ${this.settings.key}`, 'content-type': 'application/json', 'x-request-id': randomUUID() },
      })
      return this.reachable = answer.ok
    } catch {
      return this.reachable = false
    }
  }

  #level(note: Note): { levelDb?: number } {
    const { lecture, levels } = this.#show(note)
    if (!levels.length) return {}
    const second = Math.floor((this.clock.now() - note.began) / 1000 % lecture.seconds)
    return { levelDb: levels[Math.max(0, second) % levels.length]! }
  }

  /** Sends the oldest whole recording, going on where an earlier try stopped. */
  async send(): Promise<void> {
    if (this.#sending) return
    const note = [...this.#notes.values()].filter((n) => n.state === 'complete').sort((a, b) => a.start - b.start)[0]
    if (!note) return
    this.#sending = true
    try {
      await this.#upload(note)
      note.state = 'sent'
      rmSync(this.#fileOf(note), { force: true })
      this.#keep()
      this.log.info({ room: this.settings.room, uid: note.uid }, 'sent')
    } catch (error) {
      this.log.warn({ room: this.settings.room, uid: note.uid, err: String(error).slice(0, 300) }, 'could not send; trying again')
      if (/response code: 4(03|04|10)/.test(String(error))) delete note.uploadUrl
    } finally {
      this.#sending = false
    }
  }

  #upload(note: Note): Promise<void> {
    const file = this.#fileOf(note)
    const requestId = randomUUID()
    this.log.info({ room: this.settings.room, uid: note.uid, requestId, goingOn: note.uploadUrl !== undefined }, 'sending')
    return new Promise((resolve, reject) => {
      const upload: Upload = new Upload(createReadStream(file), {
        endpoint: `${this.places.server}/recorders/uploads`,
        uploadUrl: note.uploadUrl ?? null,
        uploadSize: statSync(file).size,
        chunkSize: 8 * 1024 * 1024,
        retryDelays: [300, 1000, 2000],
        headers: { 'authorization': `Bearer ${this.settings.key}`, 'x-request-id': requestId },
        metadata: { uid: note.uid, filename: `${note.summary}.mp4`, filetype: 'video/mp4' },
        onUploadUrlAvailable: () => {
          note.uploadUrl = upload.url ?? undefined
          this.#keep()
        },
        onError: reject,
        onSuccess: () => resolve(),
      })
      upload.start()
    })
  }

  /** For the recorder's own page of states. */
  state = () => ({ room: this.settings.room, reachable: this.reachable, events: this.plan.events.length, notes: [...this.#notes.values()].map(({ uid, state }) => ({ uid, state })) })
}
