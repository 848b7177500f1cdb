/**
 * `npm test`: sets up like `npm start` beside a running one, with a database, store and ports of its
 * own, then runs lint, types, unit, API and browser tests.
 *
 *   npm test                 everything
 *   npm test -- unit api     only these (lint, types, unit, api, browser)
 */
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { project } from './lib/house.mjs'
import { ensureDebian, ensureNodeModules, TESTING } from './lib/packages.mjs'
import { elapsed, orStop, say, Stop } from './lib/say.mjs'
import { startTestHouse } from './lib/test-house.mjs'

const steps = ['lint', 'types', 'unit', 'api', 'browser']
const wanted = process.argv.slice(2).filter((a) => steps.includes(a))
const runs = (step) => !wanted.length || wanted.includes(step)
/** Further words go to the test runner, such as a file's name. */
const rest = process.argv.slice(2).filter((a) => !steps.includes(a))

/** Runs a program to its end with its output shown. @throws {Stop} when it fails */
async function step(name, command, args, env = {}) {
  say(`${name}…`)
  const code = await new Promise((done) => spawn(command, args, { cwd: project, stdio: 'inherit', env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', ...env } }).once('close', done))
  if (code !== 0) throw new Stop(`${name} failed`)
  say(`${name} passed`)
}
const bin = (name) => join(project, 'node_modules/.bin', name)

async function main() {
  ensureDebian(TESTING)
  ensureNodeModules()
  if (runs('lint') || runs('types')) await step('Preparing types', bin('nuxt'), ['prepare'])
  if (runs('lint')) await step('Lint', bin('eslint'), ['.'])
  if (runs('types')) {
    await step('Types of the application', bin('vue-tsc'), ['-b', '--noEmit'])
    await step('Types of core, stand-ins, demo and tests', bin('tsc'), ['-p', 'tsconfig.outside.json'])
  }
  if (runs('unit')) await step('Unit tests', bin('vitest'), ['run', '--project', 'unit', ...rest])
  if (!runs('api') && !runs('browser')) return
  const { env, stop } = await startTestHouse()
  try {
    if (runs('api')) await step('API tests', bin('vitest'), ['run', '--project', 'api', ...rest], env)
    if (runs('browser')) await step('Browser tests', bin('playwright'), ['test', ...rest], env)
  } finally {
    await stop()
  }
}

let interrupted = false
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => (interrupted = true))
const passed = await orStop(main)
if (passed && !interrupted) say(`All passed, after ${Math.round(elapsed())} s`)
process.exit(passed && !interrupted ? 0 : 1)
