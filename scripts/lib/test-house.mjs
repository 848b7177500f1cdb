/** A house of its own for tests and benchmarks: another folder, database and ports than a running `npm start`. */
import { createServer } from 'node:http'
import { rmSync } from 'node:fs'
import { ensureBuilt } from './build.mjs'
import { openHouse } from './house.mjs'
import { freePort } from './ports.mjs'
import { startPostgres } from './postgres.mjs'
import { runHouse } from './run-house.mjs'

/** Programs of the house may be killed and started: `POST /web/kill`, `POST /worker/start`. */
function control(running) {
  return new Promise((listening) => {
    const server = createServer(async (request, response) => {
      const [, name, verb] = request.url.split('/')
      try {
        if (verb === 'kill') await running.programs.end(name, 'SIGKILL')
        else if (verb === 'start') {
          running.start[name]()
          const url = name === 'recorder' ? `http://127.0.0.1:${running.ports.recorder}/health` : `http://localhost:${running.ports[name]}/ready`
          await running.programs.answers(name, url)
        }
        response.end('done')
      } catch (error) {
        response.writeHead(500).end(String(error))
      }
    }).listen(0, '127.0.0.1', () => listening(server))
  })
}

/** Starts it anew with the demo loaded. @returns the environment for what runs against it, and a way to stop */
export async function startTestHouse() {
  const house = openHouse('.karstland-test')
  house.fast = true
  house.noticeWaitMs = 3000
  house.demo = { DEMO_LECTURE_SECONDS: '240' }
  await ensureBuilt()
  const ports = {}
  for (const name of ['web', 'course', 'signIn', 'clock', 'recorder', 'worker', 'mail', 'smtp', 'web2']) ports[name] = await freePort()
  const postgres = await startPostgres(house)
  postgres.ensureDatabase(true)
  postgres.stop()
  for (const part of ['demo', 'recorder', 'course-site.json', 'clock.json', 'mailbox.json', 'store/imports', 'store/incoming', 'store/originals']) rmSync(house.place(part), { recursive: true, force: true })
  const running = await runHouse({ house, ports, quickMorning: false })
  running.ports = ports
  const controller = await control(running)
  return {
    env: {
      TEST_ORIGIN: running.env.origin, TEST_ORIGIN_2: `http://localhost:${ports.web2}`, TEST_COURSE: running.env.courseOrigin, TEST_CLOCK: running.env.clock, TEST_CLOCK_KEY: house.settings.clockKey, TEST_MAILBOX: running.env.mail,
      TEST_CONTROL: `http://127.0.0.1:${controller.address().port}`, TEST_DEMO_DIR: house.place('demo'), TEST_LECTURES: house.place('lectures'), TEST_LOGS: house.place('logs'),
      DATABASE_URL: running.postgres.url, STORE_DIR: house.place('store'),
    },
    stop: async () => {
      controller.close()
      await running.stop()
    },
  }
}
