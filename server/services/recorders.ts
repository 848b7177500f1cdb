/** Recorders: who is calling, their plan as iCalendar, and what their reports change. */
import { Op } from 'sequelize'
import { mayFollow, type CaptureState } from '~~/core/capture/states'
import type { RecorderReport } from '~~/shared/capture/report'
import { calendarText } from '../adapters/calendar'
import { campusNow } from '../adapters/clock'
import { database } from '../models/database'
import { Capture } from '../models/capture'
import { Recorder } from '../models/recorder'
import { startRecording } from './recordings'
import { capturesIn } from './captures'
import { hashOf } from './secrets'
import { tell } from './live'
import { Refusal } from './errors'

const AHEAD_MS = 7 * 24 * 3600_000
/** Captures that should have ended stay in the plan a while, so that a late recorder still knows them. */
const BEHIND_MS = 6 * 3600_000

export const uidOf = (captureId: string): string => `${captureId}@capture.karstland`
export const captureIdOf = (uid: string): string | undefined => /^([0-9a-f-]{36})@capture\.karstland$/.exec(uid)?.[1]

/** @throws Refusal 401 for an unknown key */
export async function recorderOf(key: string | undefined): Promise<Recorder> {
  const recorder = key ? await Recorder.findOne({ where: { keyHash: hashOf(key) } }) : null
  if (!recorder) throw new Refusal(401, 'This recorder key is not known here.')
  return recorder
}

/** The recorder's plan. @returns iCalendar text, the same to the letter while nothing changes */
export async function recorderPlan(recorder: Recorder): Promise<string> {
  const now = campusNow()
  const captures = await capturesIn({ from: now - BEHIND_MS, to: now + AHEAD_MS, roomId: recorder.roomId })
  const wanted = captures.filter((c) => ['planned', 'armed', 'recording', 'missed'].includes(c.state))
  const revisions = new Map((await Capture.findAll({ where: { id: wanted.map((c) => c.id) }, attributes: ['id', 'revision'], raw: true })).map((c) => [c.id, c.revision]))
  return calendarText(recorder.name, wanted.map((c) => ({
    uid: uidOf(c.id), start: c.start, end: c.end, sequence: revisions.get(c.id) ?? 0,
    summary: c.topic ? `${c.section} ${c.course}: ${c.topic}` : `${c.section} ${c.course}`, location: c.room, categories: c.inputs,
  })), 0)
}

/** Takes a report in: arms what the recorder holds, begins what it records, notes what is on its way. */
export async function takeReport(recorder: Recorder, report: RecorderReport): Promise<void> {
  const now = campusNow()
  const before = recorder.report as RecorderReport | null
  await recorder.update({ lastReportAt: new Date(now), report })
  await arm(recorder, report, now)
  const running = report.recording && captureIdOf(report.recording)
  if (running) await startRecording(running, recorder.roomId)
  for (const uid of report.sending) {
    const id = captureIdOf(uid)
    if (id) await moveOn(id, recorder.roomId, 'coming_in')
  }
  if (before?.state !== report.state || before?.trouble !== report.trouble) await tell({ topic: 'recorder', id: recorder.id })
}

/** planned ⇄ armed, by what the recorder says it holds. */
async function arm(recorder: Recorder, report: RecorderReport, now: number): Promise<void> {
  const holding = new Set(report.holding.flatMap((uid) => captureIdOf(uid) ?? []))
  const ahead = await Capture.findAll({
    where: { roomId: recorder.roomId, state: ['planned', 'armed'], startsAt: { [Op.gt]: new Date(now - 60_000), [Op.lt]: new Date(now + AHEAD_MS) } },
    attributes: ['id', 'state', 'sectionId'], raw: true,
  })
  for (const capture of ahead) {
    const state = holding.has(capture.id) ? 'armed' : 'planned'
    if (state !== capture.state) await moveOn(capture.id, recorder.roomId, state)
  }
}

/** Moves a capture to a state, when that may follow its own; anything else is left as it is. */
export async function moveOn(captureId: string, roomId: string | null, to: CaptureState): Promise<boolean> {
  return database.transaction(async (transaction) => {
    const capture = await Capture.findByPk(captureId, { transaction, lock: true })
    if (!capture || (roomId && capture.roomId !== roomId) || !mayFollow(capture.state, to)) return false
    await capture.update({ state: to }, { transaction })
    await tell({ topic: 'capture', id: capture.id, sectionId: capture.sectionId }, transaction)
    return true
  })
}

/** How long after its end a capture nobody heard of counts as missed. */
const SILENCE_MS = 10 * 60_000

/** Marks captures as missed whose time has gone by without a word from their recorder. @returns how many */
export async function findMissed(): Promise<number> {
  const late = await Capture.findAll({
    where: { state: ['planned', 'armed'], endsAt: { [Op.lt]: new Date(campusNow() - SILENCE_MS) } }, attributes: ['id'], raw: true, limit: 500,
  })
  for (const { id } of late) await moveOn(id, null, 'missed')
  return late.length
}
