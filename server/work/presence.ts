/**
 * Which workers are alive. A worker that is killed leaves its jobs locked for hours; so each holds an
 * advisory lock on a connection of its own, which PostgreSQL lets go of the moment the process dies,
 * and any other worker that can take the lock frees the jobs.
 */
import { randomInt } from 'node:crypto'
import pg from 'pg'
import type { WorkerUtils } from 'graphile-worker'
import { databaseUrl } from '../models/database'
import { log } from '../services/log'

export class Presence {
  #client = new pg.Client({ connectionString: databaseUrl(), keepAlive: true })
  #key = randomInt(2 ** 31, 2 ** 47)
  #poolId = `${process.pid}-${this.#key}`

  async begin(workerIds: string[]): Promise<void> {
    await this.#client.connect()
    await this.#client.query('SELECT pg_advisory_lock($1)', [this.#key])
    await this.#client.query('INSERT INTO worker_presence (pool_id, lock_key, worker_ids) VALUES ($1, $2, $3)', [this.#poolId, this.#key, workerIds])
  }

  /** Frees the jobs of workers that are no more. @returns how many workers were found dead */
  async buryTheDead(utils: WorkerUtils): Promise<number> {
    const { rows } = await this.#client.query<{ pool_id: string, lock_key: string, worker_ids: string[] }>('SELECT * FROM worker_presence WHERE pool_id <> $1', [this.#poolId])
    let dead = 0
    for (const row of rows) {
      const taken = await this.#client.query<{ got: boolean }>('SELECT pg_try_advisory_lock($1) AS got', [row.lock_key])
      if (!taken.rows[0]?.got) continue
      const held = await this.#client.query<{ id: string }>('SELECT id FROM graphile_worker.jobs WHERE locked_by = ANY($1)', [row.worker_ids])
      await utils.forceUnlockWorkers(row.worker_ids)
      // Unlocking alone would let them wait five minutes more.
      if (held.rows.length) await utils.rescheduleJobs(held.rows.map((job) => String(job.id)), { runAt: new Date() })
      await this.#client.query('DELETE FROM worker_presence WHERE pool_id = $1', [row.pool_id])
      await this.#client.query('SELECT pg_advisory_unlock($1)', [row.lock_key])
      log.warn({ workers: row.worker_ids }, 'a worker had died; its jobs are free again')
      dead++
    }
    return dead
  }

  async end(): Promise<void> {
    await this.#client.query('DELETE FROM worker_presence WHERE pool_id = $1', [this.#poolId])
    await this.#client.end()
  }
}
