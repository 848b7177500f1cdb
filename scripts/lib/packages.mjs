/** Debian's packages and npm's: what is missing is installed, or the exact line to do so is printed. */
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { project } from './house.mjs'
import { say, Stop } from './say.mjs'

/** What running Karstland needs; the tests add Chromium. */
export const RUNNING = ['postgresql', 'ffmpeg', 'librsvg2-bin', 'fonts-dejavu-core']
export const TESTING = [...RUNNING, 'chromium']

const isInstalled = (name) =>
  spawnSync('dpkg-query', ['-W', '-f=${Status}', name], { encoding: 'utf8' }).stdout?.includes('install ok installed')

/**
 * Installs the Debian packages that are missing.
 * @param {string[]} names
 * @throws {Stop} as an ordinary user, with the line that root has to run; or when apt fails
 */
export function ensureDebian(names) {
  const missing = names.filter((name) => !isInstalled(name))
  if (!missing.length) return
  const line = `apt-get install -y --no-install-recommends ${missing.join(' ')}`
  if (process.getuid() !== 0) {
    throw new Stop(`these Debian packages are missing: ${missing.join(', ')}. Run this once, then start again:\n  sudo ${line}`)
  }
  say(`Installing from Debian: ${missing.join(', ')} (a few minutes the first time)`)
  withoutServices(() => withoutMainCluster(() => {
    apt(['update'])
    apt(line.split(' ').slice(1))
  }))
}

function apt(args) {
  const run = spawnSync('apt-get', ['-q', ...args], {
    encoding: 'utf8',
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    maxBuffer: 64 * 1024 ** 2,
  })
  if (run.status !== 0) {
    const why = (run.stderr || run.stdout || String(run.error)).trim().split('\n').slice(-3).join(' ')
    throw new Stop(`apt-get ${args[0]} failed: ${why}`)
  }
}

/** Debian's packages start what they bring; a file says for the time of the install that nothing is started here. */
function withoutServices(install) {
  const file = '/usr/sbin/policy-rc.d'
  if (existsSync(file)) return install()
  writeFileSync(file, '#!/bin/sh\nexit 101\n', { mode: 0o755 })
  try {
    install()
  } finally {
    rmSync(file, { force: true })
  }
}

/** Debian's postgresql makes and starts a cluster of its own; Karstland wants only the programs. */
function withoutMainCluster(install) {
  const folder = '/etc/postgresql-common/createcluster.d'
  const file = join(folder, 'karstland.conf')
  const fresh = !isInstalled('postgresql-common')
  if (fresh) {
    mkdirSync(folder, { recursive: true })
    writeFileSync(file, 'create_main_cluster = false\n')
  }
  try {
    install()
  } finally {
    if (fresh) rmSync(file, { force: true })
  }
}

/** Runs `npm ci` unless node_modules was made from this very lock file. */
export function ensureNodeModules() {
  const lock = createHash('sha256').update(readFileSync(join(project, 'package-lock.json'))).digest('hex')
  const stamp = join(project, 'node_modules', '.made-from')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  say('Installing the npm packages of the lock file')
  const run = spawnSync('npm', ['ci', '--no-audit', '--no-fund'], {
    cwd: project,
    encoding: 'utf8',
    env: { ...process.env, PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1', NUXT_TELEMETRY_DISABLED: '1' },
    maxBuffer: 64 * 1024 ** 2,
  })
  if (run.status !== 0) throw new Stop(`npm ci failed: ${(run.stderr || run.stdout).trim().split('\n').slice(-6).join('\n  ')}`)
  writeFileSync(stamp, lock)
}
