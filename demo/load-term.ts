/** The term of the demo: captures in every state, and what became of those that are over. */
import { randomBytes, randomUUID } from 'node:crypto'
import type { CreationAttributes, Transaction } from 'sequelize'
import { recordingName } from '~~/core/capture/name'
import type { CaptureState } from '~~/core/capture/states'
import { linkCode, playerCode } from '~~/core/placement/embed'
import { wallOf, type Term } from '~~/core/term/calendar'
import { Capture } from '../server/models/capture'
import { CapturePlan } from '../server/models/capture-plan'
import { Filing } from '../server/models/filing'
import { Placement } from '../server/models/placement'
import { Recording } from '../server/models/recording'
import { Release } from '../server/models/release'
import { Viewing } from '../server/models/viewing'
import { Chance } from './chance'
import { topics } from './college'
import type { Campus, LoadedSection } from './load-campus'
import { decks } from './media/decks'
import type { PreparedRecording } from './media/make'
import { datesOf, slotsFor, type DemoDate, type Slot } from './timetable'

interface SitePage { id: string, course: string, title: string, html: string, published: boolean }
interface Site { courses: { id: string, title: string, teachers: string[], students: string[] }[], pages: SitePage[] }
export interface LoadedTerm { captures: number, recordings: number, placements: number, viewings: number, courseSite: Site }

const DAY = 24 * 3600_000

/** Everything that is written, gathered first. */
interface Rows {
  plans: CreationAttributes<CapturePlan>[]
  captures: CreationAttributes<Capture>[]
  recordings: CreationAttributes<Recording>[]
  filings: CreationAttributes<Filing>[]
  releases: CreationAttributes<Release>[]
  placements: CreationAttributes<Placement>[]
  viewings: CreationAttributes<Viewing>[]
}

export async function loadTerm(campus: Campus, term: Term, now: number, media: PreparedRecording[], origin: string, courseOrigin: string, transaction: Transaction): Promise<LoadedTerm> {
  const chance = new Chance(99)
  const rows: Rows = { plans: [], captures: [], recordings: [], filings: [], releases: [], placements: [], viewings: [] }
  const site: Site = { courses: [], pages: [] }
  const slots = slotsFor(campus.sections)
  for (const section of campus.sections) {
    const courseId = section.code.toLowerCase().replace('/', '-')
    site.courses.push({ id: courseId, title: `${section.code} ${section.title}`, teachers: [section.teacher.email], students: section.students.map((s) => s.email) })
    let number = 0
    const planOf = plansOf(rows, campus, section, slots.get(section.code)!)
    datesOf(term, slots.get(section.code)!).filter((date) => !date.off).forEach((date, i) => {
      const state = stateOf(date, section, now, chance)
      if (state !== 'cancelled') number++
      const known = topics[section.course]
      const topic = known && section.number === '01' ? known[i % known.length]! : ''
      const capture = {
        id: randomUUID(), sectionId: section.id, roomId: campus.roomIds.get(date.slot.room.name)!, presenterId: section.teacher.id, topic,
        startsAt: new Date(date.start), endsAt: new Date(date.end), inputs: date.slot.room.inputs.filter((x) => x !== 'document camera'), state,
        lectureNumber: date.start < now ? number : null, plannedBy: campus.coordinator.id, planId: planOf.get(date.slot)!, planDate: date.date, own: [],
      }
      rows.captures.push(capture)
      if (state === 'filed' || state === 'failed') recordingOf(rows, site, { section, date, capture, number, term, now, media, origin, courseOrigin, courseId, chance })
    })
  }
  await CapturePlan.bulkCreate(rows.plans, { transaction, returning: false })
  // The exclusion constraint looks at each row: in pieces the statement stays small.
  for (let i = 0; i < rows.captures.length; i += 500) await Capture.bulkCreate(rows.captures.slice(i, i + 500), { transaction, returning: false })
  await Recording.bulkCreate(rows.recordings, { transaction, returning: false })
  await Filing.bulkCreate(rows.filings, { transaction, returning: false })
  await Release.bulkCreate(rows.releases, { transaction, returning: false })
  await Placement.bulkCreate(rows.placements, { transaction, returning: false })
  for (let i = 0; i < rows.viewings.length; i += 2000) await Viewing.bulkCreate(rows.viewings.slice(i, i + 2000), { transaction, returning: false })
  return { captures: rows.captures.length, recordings: rows.recordings.length, placements: rows.placements.length, viewings: rows.viewings.length, courseSite: site }
}

/** A plan for each weekly slot. @returns slot → plan */
function plansOf(rows: Rows, campus: Campus, section: LoadedSection, slots: Slot[]): Map<Slot, string> {
  return new Map(slots.map((slot) => {
    const id = randomUUID()
    rows.plans.push({
      id, termId: campus.termId, sectionId: section.id, roomId: campus.roomIds.get(slot.room.name)!, presenterId: section.teacher.id, title: '', inputs: slot.room.inputs.filter((x) => x !== 'document camera'),
      told: [], weekdays: [slot.weekday], start: slot.start, minutes: slot.minutes, weeks: { kind: 'every' }, fromDay: null, until: { kind: 'teaching' }, leftOut: [], plannedBy: campus.coordinator.id, ended: false,
    })
    return [slot, id]
  }))
}

function stateOf(date: DemoDate, section: LoadedSection, now: number, chance: Chance): CaptureState {
  const fate = chance.next()
  if (date.end > now) return fate < 0.012 ? 'cancelled' : 'planned'
  if (section.code === 'HYD-210/01') return 'filed'
  return fate < 0.012 ? 'missed' : fate < 0.02 ? 'failed' : 'filed'
}

interface Past {
  section: LoadedSection, date: DemoDate, number: number, term: Term, now: number, media: PreparedRecording[], origin: string, courseOrigin: string, courseId: string, chance: Chance
  capture: { id: string, topic: string }
}

/** The recording of a capture that is over: the older, the farther along the road to its students. */
function recordingOf(rows: Rows, site: Site, past: Past): void {
  const { section, date, capture, chance, now } = past
  const deck = decks.find((d) => d.match.some((m) => section.code.startsWith(m))) ?? decks[rows.recordings.length % decks.length]!
  const prepared = past.media.find((m) => m.deck === deck.name)!
  const failed = rows.captures.at(-1)!.state === 'failed'
  const recording = {
    id: randomUUID(), captureId: capture.id, ownerId: section.teacher.id, createdAt: new Date(date.start),
    name: recordingName({ section: section.code, week: date.week, otherwise: '', weekday: wallOf(past.term.zone, date.start).weekday, topic: capture.topic, lectureNumber: past.number }),
    ...(failed
      ? { state: 'failed' as const, hasCamera: false, trouble: 'The file stops early: 41 MB of it are missing, so its end cannot be played. Send it again; the copy it came from is probably whole.' }
      : { state: 'ready' as const, trouble: '', durationS: prepared.seconds, storePrefix: prepared.prefix, hasCamera: true, level: prepared.level }),
  }
  rows.recordings.push(recording)
  const filing = { id: randomUUID(), folderId: section.folderId, recordingId: recording.id, position: date.start / 1000 }
  rows.filings.push(filing)
  const age = (now - date.end) / DAY
  if (failed || age < 1 || chance.next() > (age > 7 ? 0.92 : 0.6)) return
  const releasedAt = date.end + Math.min(age * 0.5, 1) * DAY
  const later = age < 6 && chance.next() < 0.2
  rows.releases.push({ filingId: filing.id, releasedBy: section.teacher.id, releasedAt: new Date(releasedAt), opensAt: later ? new Date(now + 5 * DAY) : null })
  if (chance.next() < 0.25) return
  placeOn(rows, site, past, filing.id, recording)
  if (later) return
  viewingsOf(rows, section, recording.id, prepared.seconds, date.end, age, chance, now)
}

function placeOn(rows: Rows, site: Site, past: Past, filingId: string, recording: { id: string, name: string }): void {
  const { date, courseId, section, chance } = past
  const page = site.pages.find((p) => p.course === courseId && p.title === `Week ${date.week}`) ?? { id: randomBytes(4).toString('hex'), course: courseId, title: `Week ${date.week}`, html: '<p>Watch before the tutorial and bring your questions.</p>', published: true }
  if (!site.pages.includes(page)) site.pages.push(page)
  const kind = chance.next() < 0.7 ? 'player' as const : 'link' as const
  const slug = randomBytes(9).toString('base64url')
  const address = `${past.origin}/${kind === 'player' ? 'embed' : 'to'}/${slug}`
  page.html += `\n<h2>${kind === 'player' ? 'Lecture' : 'Also'}</h2>\n<p>${kind === 'player' ? playerCode(address, recording.name) : linkCode(address, recording.name, 2900)}</p>`
  const at = new Date(date.end + DAY)
  rows.placements.push({ id: randomUUID(), slug, filingId, kind, placedBy: section.teacher.id, copiedAt: at, metAt: at, pageUrl: `${past.courseOrigin}/p/${page.id}` })
}

function viewingsOf(rows: Rows, section: LoadedSection, recordingId: string, seconds: number, from: number, age: number, chance: Chance, now: number): void {
  const share = Math.min(0.9, 0.15 + age * 0.04)
  for (const student of section.students.slice(1)) {
    if (chance.next() > share || rows.viewings.length > 24_000) continue
    const begin = chance.next() < 0.7 ? 0 : chance.below(seconds / 2)
    const end = chance.next() < 0.5 ? seconds : Math.min(seconds, begin + 60 + chance.below(seconds))
    rows.viewings.push({ recordingId, personId: student.id, positionS: end, spans: [[begin, end]], seenAt: new Date(from + chance.next() * (now - from)) })
  }
}
