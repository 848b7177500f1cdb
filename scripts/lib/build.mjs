/** Builds the application when its sources changed since the last build. */
import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { project } from './house.mjs'
import { say, Stop } from './say.mjs'

const SOURCES = ['app', 'core', 'server', 'shared', 'public', 'nuxt.config.ts', 'package-lock.json', 'tsconfig.json']

function* filesOf(path) {
  const full = join(project, path)
  if (!existsSync(full)) return
  if (!/\.\w+$/.test(path)) {
    for (const entry of readdirSync(full, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (entry.isDirectory()) yield* filesOf(join(path, entry.name))
      else yield join(path, entry.name)
    }
  } else yield path
}

function sourceHash() {
  const hash = createHash('sha256')
  for (const source of SOURCES) {
    for (const file of filesOf(source)) {
      if (file.endsWith('.test.ts')) continue
      hash.update(file).update(readFileSync(join(project, file)))
    }
  }
  return hash.digest('hex')
}

/** @returns whether it built */
export async function ensureBuilt() {
  const stamp = join(project, '.output', '.built-from')
  const wanted = sourceHash()
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return false
  say('Building the application (about a minute)')
  let output = ''
  const code = await new Promise((done) => {
    const child = spawn(process.execPath, [join(project, 'node_modules/nuxt/bin/nuxt.mjs'), 'build'], {
      cwd: project, env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1' }, stdio: ['ignore', 'pipe', 'pipe'],
    })
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (output = (output + text).slice(-8000)))
    child.once('close', done)
  })
  if (code !== 0) throw new Stop(`the build failed:\n${output}`)
  writeFileSync(stamp, wanted)
  return true
}
