/** Puts work into the queue, inside the transaction that decided on it. */
import { QueryTypes, type Transaction } from 'sequelize'
import { database } from '../models/database'

export interface JobPayloads {
  make_recording: { recordingId: string, requestId: string }
  read_import: { importId: string }
  take_import: { importId: string }
}

/** Adds a job; one with the same key that has not run yet is replaced, not doubled. */
export async function enqueue<K extends keyof JobPayloads>(transaction: Transaction, task: K, payload: JobPayloads[K], key: string): Promise<void> {
  await database.query(
    'SELECT graphile_worker.add_job($task, payload := $payload::json, job_key := $key, max_attempts := 5)',
    { bind: { task, payload: JSON.stringify(payload), key }, type: QueryTypes.SELECT, transaction },
  )
}
