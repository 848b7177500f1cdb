/**
 * Live events between all processes through PostgreSQL: told inside a transaction, delivered when it
 * commits, heard by every web process and worker.
 */
import pg from 'pg'
import { QueryTypes, type Transaction } from 'sequelize'
import type { LiveEvent } from '~~/shared/live/events'
import { database, databaseUrl } from '../models/database'
import { log } from './log'

const CHANNEL = 'karstland_live'
const listeners = new Set<(event: LiveEvent) => void>()
let client: pg.Client | undefined
let closing = false

/** Tells everybody, once `transaction` commits (at once without one). */
export async function tell(event: LiveEvent, transaction?: Transaction): Promise<void> {
  await database.query('SELECT pg_notify($channel, $body)', { bind: { channel: CHANNEL, body: JSON.stringify(event) }, type: QueryTypes.SELECT, transaction })
}

/** Hands an event to the listeners of this process alone. */
export function tellHere(event: LiveEvent): void {
  for (const listener of listeners) listener(event)
}

/** @returns a way to stop listening */
export function listen(listener: (event: LiveEvent) => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export const listenerCount = (): number => listeners.size

/** Connects and stays connected; after a gap everybody is told to look again. */
export async function openLive(): Promise<void> {
  closing = false
  const mine = new pg.Client({ connectionString: databaseUrl(), keepAlive: true })
  client = mine
  mine.on('notification', (message) => {
    if (message.payload) tellHere(JSON.parse(message.payload) as LiveEvent)
  })
  const again = (error?: Error) => {
    if (closing || client !== mine) return
    client = undefined
    log.warn({ err: error && String(error) }, 'live connection lost, connecting again')
    setTimeout(() => openLive().then(() => tellHere({ topic: 'again' }), again), 1000)
  }
  mine.on('error', again)
  mine.on('end', () => again())
  await mine.connect()
  await mine.query(`LISTEN ${CHANNEL}`)
}

export async function closeLive(): Promise<void> {
  closing = true
  await client?.end()
}
