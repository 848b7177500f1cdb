/** The worker role: runs jobs from the queue, and the rounds that look after what nobody asked for. */
import { EventEmitter } from 'node:events'
import { makeWorkerUtils, run, type Runner } from 'graphile-worker'
import { databaseUrl } from '../models/database'
import { listen } from '../services/live'
import { log } from '../services/log'
import { findMissed } from '../services/recorders'
import { bookStrays } from '../services/arrivals'
import { sendDueMail } from '../services/notices'
import { clearPractice, keepPracticeSections } from '../services/practice'
import type { JobPayloads } from '../adapters/queue'
import { giveUp, makeRecording } from './make-recording'
import { readImport, takeImport } from './bring-in'
import { Presence } from './presence'

const ROUND_MS = 2000
const SLOW_ROUND_MS = 30_000

/** @returns a way to stop: running jobs are told to end and given back to the queue */
export async function startWorker(): Promise<() => Promise<void>> {
  const events = new EventEmitter()
  const workerIds: string[] = []
  // Jobs are locked in the name of the pool or of its worker.
  events.on('pool:create', ({ workerPool }: { workerPool: { id: string } }) => workerIds.push(workerPool.id))
  events.on('worker:create', ({ worker }: { worker: { workerId: string } }) => workerIds.push(worker.workerId))
  const stopping = new AbortController()
  const running = new Map<string, AbortController>()
  const stopListening = listen((event) => {
    if (event.topic === 'work' && event.work.state === 'cancelled' && event.work.recordingId) running.get(event.work.recordingId)?.abort()
  })
  const utils = await makeWorkerUtils({ connectionString: databaseUrl() })
  const runner: Runner = await run({
    connectionString: databaseUrl(),
    concurrency: Number(process.env.WORKER_CONCURRENCY ?? 1),
    noHandleSignals: true,
    pollInterval: 1000,
    events: events as never,
    taskList: {
      read_import: (payload) => readImport((payload as JobPayloads['read_import']).importId),
      take_import: (payload) => takeImport((payload as JobPayloads['take_import']).importId),
      make_recording: async (payload, helpers) => {
        const { recordingId } = payload as JobPayloads['make_recording']
        const own = new AbortController()
        running.set(recordingId, own)
        try {
          await makeRecording(payload as JobPayloads['make_recording'], AbortSignal.any([own.signal, stopping.signal]))
        } catch (error) {
          if (own.signal.aborted) return
          log.error({ err: error, recordingId, attempt: helpers.job.attempts }, 'making stopped')
          if (!stopping.signal.aborted && helpers.job.attempts >= helpers.job.max_attempts) await giveUp(recordingId)
          throw error
        } finally {
          running.delete(recordingId)
        }
      },
    },
  })
  const presence = new Presence()
  await presence.begin(workerIds)
  let looked = 0
  const round = async () => {
    // Once in a while is often enough for what nobody waits for.
    if (Date.now() - looked > SLOW_ROUND_MS) {
      looked = Date.now()
      await keepPracticeSections()
      await clearPractice()
    }
    await presence.buryTheDead(utils)
    await findMissed()
    await bookStrays()
    await sendDueMail()
  }
  let rounds: Promise<unknown> = Promise.resolve()
  const timer = setInterval(() => {
    rounds = rounds.then(round).catch((error: unknown) => log.error({ err: error }, 'a round of the worker failed'))
  }, ROUND_MS)
  await round()
  log.info({ workerIds }, 'worker runs')
  return async () => {
    clearInterval(timer)
    stopListening()
    stopping.abort()
    await rounds
    await runner.stop()
    await presence.end()
    await utils.release()
  }
}
