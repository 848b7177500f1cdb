/** Everything that makes one Karstland run: database, demo, clock, sign-in, course site, web, worker, recorders. */
import { spawn } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { project } from './house.mjs'
import { startPostgres } from './postgres.mjs'
import { Programs } from './processes.mjs'
import { say, Stop } from './say.mjs'

const WEB = ['--enable-source-maps', '.output/server/index.mjs']
const standIn = (name) => ['--import', 'tsx', `stand-ins/${name}/main.ts`]
const tsx = { TSX_TSCONFIG_PATH: join(project, 'tsconfig.run.json') }

/**
 * @typedef {{ web: number, course: number, signIn: number, clock: number, recorder: number, worker: number, mail: number, smtp: number }} Ports
 */

/** The environment of each program. */
function environments(house, ports, databaseUrl) {
  const { settings, place } = house
  const origin = `http://localhost:${ports.web}`
  const courseOrigin = `http://127.0.0.1:${ports.course}`
  const issuer = `http://127.0.0.1:${ports.signIn}`
  const clock = `http://127.0.0.1:${ports.clock}`
  const demo = place('demo')
  const base = {
    DATABASE_URL: databaseUrl, STORE_DIR: place('store'), SESSION_SECRET: settings.sessionSecret, MEDIA_SECRET: settings.mediaSecret, CAMPUS_CLOCK_URL: clock,
    OIDC_ISSUER: issuer, OIDC_CLIENT_ID: 'karstland', OIDC_CLIENT_SECRET: settings.oidcSecret, PUBLIC_ORIGIN: origin, HOST: '127.0.0.1', NITRO_HOST: '127.0.0.1',
    NITRO_SHUTDOWN_TIMEOUT: '2000', NODE_ENV: 'production', COLLEGE: 'Fennick College of Land, Water and Stone',
    SMTP_URL: `smtp://127.0.0.1:${ports.smtp}?ignoreTLS=true`, MAIL_FROM: 'Karstland <karstland@fennick.example>', ...(house.noticeWaitMs ? { NOTICE_WAIT_MS: String(house.noticeWaitMs) } : {}),
  }
  return {
    origin, courseOrigin, issuer, clock, mail: `http://127.0.0.1:${ports.mail}`,
    web: { ...base, KARSTLAND_ROLE: 'web', PORT: String(ports.web), NITRO_PORT: String(ports.web) },
    worker: { ...base, KARSTLAND_ROLE: 'worker', PORT: String(ports.worker), NITRO_PORT: String(ports.worker), DATABASE_POOL: '6' },
    demo: { ...base, ...tsx, DEMO_DIR: demo, LECTURES_DIR: place('lectures'), COURSE_ORIGIN: courseOrigin },
    clockService: { ...tsx, PORT: String(ports.clock), CLOCK_STATE: place('clock.json'), CLOCK_KEY: settings.clockKey },
    signIn: {
      ...tsx, PORT: String(ports.signIn), PEOPLE_FILE: join(demo, 'people.json'), KEYS_FILE: place('sign-in-keys.json'), KARSTLAND_SECRET: settings.oidcSecret,
      COURSE_SECRET: settings.courseSecret, KARSTLAND_ORIGIN: origin, COURSE_ORIGIN: courseOrigin,
    },
    course: { ...tsx, PORT: String(ports.course), DATA_FILE: place('course-site.json'), COURSES_FILE: join(demo, 'courses.json'), OIDC_ISSUER: issuer, COURSE_SECRET: settings.courseSecret },
    mailbox: { ...tsx, PORT: String(ports.mail), SMTP_PORT: String(ports.smtp), MAIL_FILE: place('mailbox.json') },
    recorder: {
      ...tsx, PORT: String(ports.recorder), CAMPUS_CLOCK_URL: clock, SERVER_URL: `http://localhost:${ports.web}`, LECTURES_DIR: place('lectures'), DATA_DIR: place('recorder'),
      ROOMS_FILE: join(demo, 'recorders.json'),
    },
  }
}

/** Runs the demo loader, passing on what it says. @throws {Stop} with the end of its output */
function loadDemo(env) {
  return new Promise((done, fail) => {
    const child = spawn(process.execPath, ['--import', 'tsx', 'demo/load.ts'], { cwd: project, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] })
    let tail = ''
    child.stdout.setEncoding('utf8').on('data', (text) => text.trim().split('\n').forEach((line) => say(line)))
    child.stderr.setEncoding('utf8').on('data', (text) => (tail = (tail + text).slice(-3000)))
    child.once('close', (code) => (code === 0 ? done() : fail(new Stop(`the demo could not be loaded: ${tail}`))))
  })
}

/**
 * Starts a whole house and waits until all of it answers.
 * @param {{ house: object, ports: Ports, quickMorning?: boolean }} options `quickMorning`: on the very first start the minutes before ten run by in seconds, so that the captures in progress are really being recorded
 */
export async function runHouse({ house, ports, quickMorning = true }) {
  const postgres = await startPostgres(house)
  const programs = new Programs(house.place('logs'))
  const stop = async () => {
    await programs.stop()
    postgres.stop()
  }
  try {
    postgres.ensureDatabase()
    const env = environments(house, ports, postgres.url)
    await loadDemo({ ...env.demo, ...(house.demo ?? {}) })
    const first = !existsSync(house.place('clock.json'))
    const { instant } = JSON.parse(readFileSync(house.place('demo', 'opening.json'), 'utf8'))
    if (first) writeFileSync(house.place('clock.json'), JSON.stringify({ campus: instant, rate: 1 }))
    say('Starting clock, sign-in, course site, mailbox, web and worker')
    const start = {
      clock: () => programs.start('clock', standIn('clock'), env.clockService),
      signIn: () => programs.start('sign-in', standIn('sign-in'), env.signIn),
      course: () => programs.start('course-site', standIn('course-site'), env.course),
      mailbox: () => programs.start('mailbox', standIn('mailbox'), env.mailbox),
      web: () => programs.start('web', WEB, env.web),
      // A second web over the same database, for tests of how several stay in step.
      web2: () => programs.start('web2', WEB, { ...env.web, PORT: String(ports.web2), NITRO_PORT: String(ports.web2) }),
      worker: () => programs.start('worker', WEB, env.worker),
      recorder: () => programs.start('recorder', standIn('recorder'), env.recorder),
    }
    for (const [name, begin] of Object.entries(start)) if (name !== 'web2') begin()
    await Promise.all([
      programs.answers('clock', `${env.clock}/health`), programs.answers('sign-in', `${env.issuer}/health`), programs.answers('course-site', `${env.courseOrigin}/health`),
      programs.answers('web', `${env.origin}/ready`), programs.answers('worker', `http://localhost:${ports.worker}/ready`), programs.answers('recorder', `http://127.0.0.1:${ports.recorder}/health`), programs.answers('mailbox', `${env.mail}/health`),
    ])
    const running = { programs, postgres, env, stop, start, first }
    if (first && quickMorning) await morning(env.clock, house.settings.clockKey, instant)
    return running
  } catch (error) {
    await stop()
    throw error
  }
}

/** From three minutes to ten until 10:24 in about twelve seconds. */
async function morning(clock, key, from) {
  say('The campus morning runs by until 10:24: the ten o’clock captures begin')
  const set = (body) => fetch(clock, { method: 'PUT', headers: { authorization: `Bearer ${key}` }, body: JSON.stringify(body) })
  // Recorders fetch their plans first.
  await new Promise((r) => setTimeout(r, 4000))
  await set({ rate: 180 })
  const until = from + 27 * 60_000
  for (;;) {
    const c = await (await fetch(clock)).json()
    if (c.campusAnchor + (Date.now() - c.realAnchor) * c.rate >= until) break
    await new Promise((r) => setTimeout(r, 100))
  }
  await set({ at: until, rate: 1 })
}
