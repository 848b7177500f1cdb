/**
 * `npm run bench -- road`: prints one JSON line a figure, `{"name","value","reference","ratio","unit"}`,
 * each measured beside its reference in the same call. Sets up what it needs by itself.
 */
import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { project } from './lib/house.mjs'
import { ensureDebian, ensureNodeModules, TESTING } from './lib/packages.mjs'
import { freePort } from './lib/ports.mjs'
import { orStop, Stop } from './lib/say.mjs'
import { startTestHouse } from './lib/test-house.mjs'

const passed = await orStop(async () => {
  const name = process.argv[2] ?? 'road'
  if (!/^[a-z-]+$/.test(name) || !existsSync(join(project, 'bench', `${name}.ts`))) throw new Stop(`there is no benchmark called “${name}”; there are: road, timetable.`)
  ensureDebian([...TESTING, 'nginx-light', 'wrk'])
  ensureNodeModules()
  const port = await freePort()
  const { env, stop } = await startTestHouse()
  try {
    const code = await new Promise((done) => spawn(process.execPath, ['--import', 'tsx', `bench/${name}.ts`, ...process.argv.slice(3)], {
      cwd: project, stdio: 'inherit', env: { ...process.env, ...env, TSX_TSCONFIG_PATH: join(project, 'tsconfig.run.json'), BENCH_NGINX_PORT: String(port) },
    }).once('close', done))
    if (code !== 0) throw new Stop(`the benchmark “${name}” ended with ${code}.`)
  } finally {
    await stop()
  }
})
process.exit(passed ? 0 : 1)
