/** The test house: its addresses, its clock, its database, and a way to kill its programs. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'

const setting = (name: string): string => {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set: run these tests by npm test`)
  return value
}
export const origin = setting('TEST_ORIGIN')
/** a second web process over the same database; tests start it themselves */
export const secondOrigin = setting('TEST_ORIGIN_2')
export const courseOrigin = setting('TEST_COURSE')
export const lectures = setting('TEST_LECTURES')

interface Clock { realAnchor: number, campusAnchor: number, rate: number }

/** Campus time now, ms. */
export async function campusNow(): Promise<number> {
  const clock = await (await fetch(setting('TEST_CLOCK'))).json() as Clock
  return clock.campusAnchor + (Date.now() - clock.realAnchor) * clock.rate
}

export async function setClock(body: { at?: number, rate?: number }): Promise<void> {
  const answer = await fetch(setting('TEST_CLOCK'), { method: 'PUT', headers: { authorization: `Bearer ${setting('TEST_CLOCK_KEY')}` }, body: JSON.stringify(body) })
  if (!answer.ok) throw new Error(`the clock would not be set: ${answer.status}`)
}

export const kill = (name: 'web' | 'web2' | 'worker' | 'recorder') => control(name, 'kill')
export const start = (name: 'web' | 'web2' | 'worker' | 'recorder') => control(name, 'start')
async function control(name: string, verb: string): Promise<void> {
  const answer = await fetch(`${setting('TEST_CONTROL')}/${name}/${verb}`, { method: 'POST' })
  if (!answer.ok) throw new Error(await answer.text())
}

const pool = new pg.Pool({ connectionString: setting('DATABASE_URL'), max: 3, allowExitOnIdle: true })
pool.on('error', () => {})
export async function sql<T extends pg.QueryResultRow>(text: string, values: unknown[] = []): Promise<T[]> {
  return (await pool.query<T>(text, values)).rows
}
export const closeSql = () => pool.end()

export const recorderKey = (room: string): string =>
  (JSON.parse(readFileSync(join(setting('TEST_DEMO_DIR'), 'recorders.json'), 'utf8')) as { room: string, key: string }[]).find((r) => r.room === room)!.key

export interface Mail { id: number, to: string[], subject: string, text: string }

/** The mail that somebody has got, newest first. */
export async function mailsOf(address: string): Promise<Mail[]> {
  return await (await fetch(`${setting('TEST_MAILBOX')}/mails.json?who=${address}`)).json() as Mail[]
}

/** Asks until `ask` gives something. @throws Error with `what` when it never does */
export async function until<T>(what: string, ask: () => Promise<T | undefined | null | false>, seconds = 40): Promise<T> {
  const end = Date.now() + seconds * 1000
  while (Date.now() < end) {
    const found = await ask()
    if (found) return found
    await new Promise((r) => setTimeout(r, 150))
  }
  throw new Error(`waited ${seconds} s in vain for ${what}`)
}
