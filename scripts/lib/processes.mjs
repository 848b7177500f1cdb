/** Starting programs, waiting until they answer, and ending exactly those again. */
import { spawn } from 'node:child_process'
import { closeSync, openSync, readFileSync } from 'node:fs'
import { project } from './house.mjs'
import { Stop } from './say.mjs'

/** A set of programs that is started and ended together. */
export class Programs {
  #running = new Map()
  #ending = false
  /** Called with (name, code) when a program ends on its own. */
  onLoss = () => {}

  constructor(logFolder) {
    this.logFolder = logFolder
  }

  /**
   * Starts a program with its output in `<logs>/<name>.log`.
   * @param {string} name
   * @param {string[]} args for node
   * @param {Record<string,string>} env added to the environment
   */
  start(name, args, env) {
    const log = this.logOf(name)
    const out = openSync(log, 'a')
    const child = spawn(process.execPath, args, {
      cwd: project,
      env: { ...process.env, ...env },
      stdio: ['ignore', out, out],
      // A group of its own: Ctrl-C reaches this script alone, which then ends each in order.
      detached: true,
    })
    closeSync(out)
    this.#running.set(name, child)
    child.once('exit', (code) => {
      if (this.#running.get(name) !== child) return
      this.#running.delete(name)
      if (!this.#ending) this.onLoss(name, code)
    })
    return child
  }

  logOf(name) {
    return `${this.logFolder}/${name}.log`
  }

  pidOf(name) {
    return this.#running.get(name)?.pid
  }

  /** Waits until `url` answers 2xx. @throws {Stop} with the end of the program's log */
  async answers(name, url, seconds = 60) {
    const until = Date.now() + seconds * 1000
    while (Date.now() < until) {
      if (!this.#running.has(name)) break
      const ok = await fetch(url, { signal: AbortSignal.timeout(2000) }).then((r) => r.ok, () => false)
      if (ok) return
      await new Promise((r) => setTimeout(r, 100))
    }
    const tail = readFileSync(this.logOf(name), 'utf8').trim().split('\n').slice(-12).join('\n    ')
    throw new Stop(`${name} did not answer at ${url}. The end of its log (${this.logOf(name)}):\n    ${tail}`)
  }

  /** Ends all programs, the last started first: SIGTERM, then SIGKILL after 8 s. */
  async stop() {
    this.#ending = true
    await Promise.all([...this.#running.values()].reverse().map(endOne))
    this.#running.clear()
  }

  /** Ends one program, with the given signal. */
  async end(name, signal = 'SIGTERM') {
    const child = this.#running.get(name)
    if (!child) return
    this.#running.delete(name)
    const gone = new Promise((done) => child.once('exit', done))
    process.kill(-child.pid, signal)
    await gone
  }
}

async function endOne(child) {
  const gone = new Promise((done) => child.once('exit', done))
  if (child.exitCode !== null) return
  const signal = (name) => {
    try {
      process.kill(-child.pid, name)
    } catch { /* already gone */ }
  }
  signal('SIGTERM')
  const hard = setTimeout(() => signal('SIGKILL'), 8000)
  await gone
  clearTimeout(hard)
}
