/** Begins this process in its role: database up to date, clock followed, live connection open. */
import { followClock, leaveClock } from '../adapters/clock'
import { closeMail } from '../adapters/mail'
import { database } from '../models/database'
import { migrate } from '../models/migrate'
import { closeLive, openLive } from '../services/live'
import { log } from '../services/log'
import { nowReady } from '../services/readiness'
import { startWorker } from '../work/worker'

export default defineNitroPlugin((nitro) => {
  let stopWorker: (() => Promise<void>) | undefined
  const begin = async () => {
    const ran = await migrate()
    if (ran.length) log.info({ ran }, 'database brought up to date')
    await followClock()
    await openLive()
    if (process.env.KARSTLAND_ROLE === 'worker') stopWorker = await startWorker()
    nowReady()
    log.info('ready')
  }
  begin().catch((error: unknown) => {
    log.fatal({ err: error }, 'could not begin')
    process.exit(1)
  })
  nitro.hooks.hook('close', async () => {
    await stopWorker?.()
    leaveClock()
    closeMail()
    await closeLive()
    await database.close()
  })
  nitro.hooks.hook('error', (error, { event }) => {
    log.error({ err: error, requestId: event?.context.requestId }, 'a request failed')
  })
})
