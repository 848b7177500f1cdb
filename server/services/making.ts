/** The state of making, as the worker moves it on and people see it. */
import { QueryTypes, type Transaction } from 'sequelize'
import { forecast, secondsLeft, type Done } from '~~/core/media/forecast'
import { mayFollow } from '~~/core/capture/states'
import type { UndertakingView } from '~~/shared/library/views'
import { campusDate } from '../adapters/clock'
import { database } from '../models/database'
import { Capture } from '../models/capture'
import { Recording } from '../models/recording'
import { Undertaking } from '../models/undertaking'
import { record } from './audit'
import { importsUnderWay } from './imports'
import { tellReady } from './notices'
import { releaseByDefault } from './sections'
import { nothingHere, Refusal } from './errors'
import { tell } from './live'
import { queueMaking } from './recordings'

const VIEW = `
  SELECT u.id, 'making' AS kind, u.recording_id AS "recordingId", '/recordings/' || r.id AS link, d.section_id AS "sectionId", r.name AS title, u.state, u.step, u.percent, u.left_s AS "leftS", u.sentence
  FROM undertakings u JOIN recordings r ON r.id = u.recording_id
    LEFT JOIN LATERAL (SELECT d.section_id FROM filings f JOIN folders d ON d.id = f.folder_id WHERE f.recording_id = r.id ORDER BY f.position LIMIT 1) d ON true`

/** What is under way, and what failed lately; newest first. @param sectionIds only these; null for all */
export async function underWay(sectionIds: string[] | null): Promise<UndertakingView[]> {
  const making = await database.query<UndertakingView>(`${VIEW}
    WHERE (u.state IN ('waiting', 'running') OR (u.state IN ('failed', 'cancelled', 'done') AND u.ended_at > $since))
      AND ($all OR d.section_id = ANY($sections::uuid[]))
    ORDER BY u.state = 'running' DESC, u.asked_at DESC LIMIT 60`,
  { bind: { since: new Date(Date.now() - 30 * 60_000), all: sectionIds === null, sections: sectionIds ?? [] }, type: QueryTypes.SELECT })
  return sectionIds === null ? [...await importsUnderWay(), ...making] : making
}

export async function undertakingOf(recordingId: string, transaction?: Transaction): Promise<UndertakingView | null> {
  const [view] = await database.query<UndertakingView>(`${VIEW} WHERE u.recording_id = $recordingId`, { bind: { recordingId }, type: QueryTypes.SELECT, transaction })
  return view ?? null
}

/** Progress of one making: writes and tells at most twice a second, with time left from history and pace. */
export class Progress {
  #began = Date.now()
  #written = 0
  #expected: number | undefined

  constructor(readonly undertaking: Undertaking, readonly lengthS: number) {}

  /** Begins, with the history of earlier makings as forecast. */
  static async begin(recordingId: string, lengthS: number): Promise<Progress | undefined> {
    const undertaking = await Undertaking.findOne({ where: { recordingId } })
    if (!undertaking || undertaking.state === 'cancelled') return undefined
    await undertaking.update({ state: 'running', beganAt: new Date(), attempts: undertaking.attempts + 1, sizeS: lengthS || null })
    const progress = new Progress(undertaking, lengthS)
    const history = await database.query<Done>(`
      SELECT size_s AS size, extract(epoch FROM ended_at - began_at)::float AS seconds FROM undertakings
      WHERE state = 'done' AND size_s > 0 ORDER BY ended_at DESC LIMIT 50`, { type: QueryTypes.SELECT })
    progress.#expected = forecast(lengthS, history)?.median
    return progress
  }

  /** @param share done of the whole, 0 to 1 */
  async at(share: number, step: string): Promise<void> {
    const now = Date.now()
    if (now - this.#written < 500 && step === this.undertaking.step) return
    this.#written = now
    const left = secondsLeft(share, (now - this.#began) / 1000, this.#expected)
    await this.undertaking.update({ percent: Math.round(share * 100), step, leftS: left ?? null })
    await tellWork(this.undertaking.recordingId)
  }
}

async function tellWork(recordingId: string, transaction?: Transaction): Promise<void> {
  const work = await undertakingOf(recordingId, transaction)
  if (work) await tell({ topic: 'work', sectionId: work.sectionId, work }, transaction)
}

/** Moves the capture of a recording on and tells everybody about both. */
async function tellBoth(recording: Recording, to: 'filed' | 'failed' | null, transaction: Transaction): Promise<void> {
  const capture = recording.captureId ? await Capture.findByPk(recording.captureId, { transaction, lock: true }) : null
  if (capture && to && mayFollow(capture.state, to)) await capture.update({ state: to }, { transaction })
  const work = await undertakingOf(recording.id, transaction)
  const sectionId = work?.sectionId ?? capture?.sectionId
  if (sectionId) await tell({ topic: 'recording', id: recording.id, sectionId }, transaction)
  if (capture) await tell({ topic: 'capture', id: capture.id, sectionId: capture.sectionId }, transaction)
  if (work) await tell({ topic: 'work', sectionId: work.sectionId, work }, transaction)
}

/** The streams are there: from now on it plays. */
export async function becamePlayable(recordingId: string, made: { storePrefix: string, durationS: number, hasCamera: boolean, hasPicture: boolean }): Promise<void> {
  await database.transaction(async (transaction) => {
    const recording = (await Recording.findByPk(recordingId, { transaction, lock: true }))!
    const first = recording.state !== 'ready'
    await recording.update({ ...made, state: 'ready', trouble: '' }, { transaction })
    const capture = recording.captureId ? await Capture.findByPk(recording.captureId, { transaction }) : null
    if (first && capture) {
      await releaseByDefault(recording.id, capture, transaction)
      await tellReady(recording, capture.id, transaction)
    }
    await tellBoth(recording, 'filed', transaction)
  })
}

/** All is made. */
export async function madeWhole(recordingId: string, level: object | null): Promise<void> {
  await database.transaction(async (transaction) => {
    const recording = (await Recording.findByPk(recordingId, { transaction, lock: true }))!
    await recording.update({ level }, { transaction })
    await Undertaking.update({ state: 'done', percent: 100, leftS: 0, step: 'made', endedAt: new Date() }, { where: { recordingId }, transaction })
    await tellBoth(recording, null, transaction)
  })
}

/** It will not become a recording, with the sentence that says why. What already plays stays playable. */
export async function couldNotMake(recordingId: string, sentence: string, state: 'failed' | 'cancelled' = 'failed'): Promise<void> {
  await database.transaction(async (transaction) => {
    const recording = (await Recording.findByPk(recordingId, { transaction, lock: true }))!
    if (recording.state !== 'ready') await recording.update({ state: 'failed', trouble: sentence }, { transaction })
    await Undertaking.update({ state, sentence, leftS: null, endedAt: new Date() }, { where: { recordingId }, transaction })
    await tellBoth(recording, recording.state === 'ready' ? null : 'failed', transaction)
  })
}

/** Stops a making that waits or runs. The worker hears of it through the live event. @throws Refusal 409 when there is nothing to stop */
export async function cancelMaking(id: string, actorId: string): Promise<void> {
  const undertaking = await Undertaking.findByPk(id)
  if (!undertaking) throw nothingHere()
  const stopped = await Undertaking.update({ state: 'cancelled' }, { where: { id, state: ['waiting', 'running'] } })
  if (!stopped[0]) throw new Refusal(409, 'It has ended already; there is nothing to cancel.')
  await database.transaction((transaction) => record(transaction, actorId, 'making cancelled', undertaking.recordingId))
  await couldNotMake(undertaking.recordingId, 'Making was cancelled. The file that arrived is kept; “make again” begins anew.', 'cancelled')
}

/** Makes again what failed or was cancelled. @throws Refusal 409 when it runs already or no file is there */
export async function makeAgain(id: string, actorId: string, requestId: string): Promise<void> {
  await database.transaction(async (transaction) => {
    const undertaking = await Undertaking.findByPk(id, { transaction, lock: true })
    if (!undertaking) throw nothingHere()
    if (undertaking.state === 'waiting' || undertaking.state === 'running') throw new Refusal(409, 'It is being made already.')
    const recording = (await Recording.findByPk(undertaking.recordingId, { transaction, lock: true }))!
    const view = await undertakingOf(recording.id, transaction)
    if (recording.state === 'failed') await recording.update({ state: 'being_made', trouble: '' }, { transaction })
    if (recording.captureId) await Capture.update({ state: 'being_made' }, { where: { id: recording.captureId, state: ['failed', 'filed'] }, transaction })
    await record(transaction, actorId, 'making asked again', recording.id, { at: campusDate() })
    await queueMaking(recording, view!.sectionId!, requestId, transaction)
  })
}
