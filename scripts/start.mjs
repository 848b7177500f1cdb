/**
 * `npm start`: from a bare machine to a running Karstland with its demo. Node built-ins alone: at its
 * first line nothing is installed yet.
 *
 *   npm start               start, keeping what is there
 *   npm start -- --fresh    throw the demo and its database away first
 *   PORT=3010 npm start     another port for Karstland (also COURSE_PORT, SIGN_IN_PORT, CLOCK_PORT)
 */
import { existsSync, readdirSync, rmSync } from 'node:fs'
import { ensureBuilt } from './lib/build.mjs'
import { openHouse } from './lib/house.mjs'
import { ensureDebian, ensureNodeModules, RUNNING } from './lib/packages.mjs'
import { freePort, mustBeFree } from './lib/ports.mjs'
import { startPostgres } from './lib/postgres.mjs'
import { runHouse } from './lib/run-house.mjs'
import { elapsed, orStop, say, Stop } from './lib/say.mjs'

const fresh = process.argv.includes('--fresh')
const [major, minor] = process.versions.node.split('.').map(Number)

async function main() {
  if (major < 20 || (major === 20 && minor < 19)) throw new Stop(`Karstland wants Node 20.19 or later; this is ${process.versions.node}.`)
  const port = (name, fallback) => Number(process.env[name] ?? fallback)
  const ports = {
    web: port('PORT', 3000), course: port('COURSE_PORT', 3100), signIn: port('SIGN_IN_PORT', 3200), clock: port('CLOCK_PORT', 3300),
    recorder: port('RECORDER_PORT', 3400), mail: port('MAILBOX_PORT', 3500), smtp: await freePort(), worker: await freePort(),
  }
  await mustBeFree(ports.web, 'Karstland', 'PORT')
  await mustBeFree(ports.course, 'the course site', 'COURSE_PORT')
  await mustBeFree(ports.signIn, 'the campus sign-in', 'SIGN_IN_PORT')
  await mustBeFree(ports.clock, 'the campus clock', 'CLOCK_PORT')
  await mustBeFree(ports.recorder, 'the recorders', 'RECORDER_PORT')
  await mustBeFree(ports.mail, 'the mailbox', 'MAILBOX_PORT')
  ensureDebian(RUNNING)
  ensureNodeModules()
  const house = openHouse('.karstland')
  if (fresh) await throwAway(house)
  await ensureBuilt()
  const running = await runHouse({ house, ports })
  running.programs.onLoss = (name, code) => say(`${name} has ended by itself (${code}); its log is ${running.programs.logOf(name)}. Ctrl-C ends the rest.`)
  tell(running)
  await new Promise((done) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.once(signal, done)
  })
  say('Stopping what was started')
  await running.stop()
  say('Stopped. The data is kept; npm start goes on from here.')
  process.exit(0)
}

/** Keeps the lectures, which take minutes to make and never change, and the secrets. */
async function throwAway(house) {
  say('Throwing the demo and its database away')
  const postgres = await startPostgres(house)
  postgres.ensureDatabase(true)
  postgres.stop()
  for (const part of ['demo', 'recorder', 'course-site.json', 'clock.json', 'mailbox.json', 'store/imports']) rmSync(house.place(part), { recursive: true, force: true })
  for (const part of ['incoming', 'originals']) rmSync(house.place('store', part), { recursive: true, force: true })
  const media = house.place('store', 'media')
  for (const name of existsSync(media) ? readdirSync(media) : []) if (!name.startsWith('demo-')) rmSync(house.place('store', 'media', name), { recursive: true, force: true })
}

function tell({ env, first }) {
  say(`Ready${first ? ', with the demo loaded' : ''}, after ${elapsed().toFixed(0)} s`)
  console.log(`
  Karstland       ${env.origin}
  Course site     ${env.courseOrigin}      somebody else’s plain software, for placements
  Campus sign-in  ${env.issuer}      asks who, but for no password
  Mailbox         ${env.mail}      the college’s mail, for everybody
  Campus clock    ${env.clock}

  Odile Vance       odile.vance@fennick.example       media services: plans, sees everything
  Tamsin Okoro      tamsin.okoro@fennick.example      instructor of HYD-210/01: releases and places
  Linnea Ashdown    linnea.ashdown@fennick.example    student of HYD-210/01: watches
  Ida Krall         ida.krall@fennick.example         has an account, but may not come in

  Ctrl-C stops all of it and nothing else.
`)
}

if (!await orStop(main)) process.exit(1)
