/** Where everything of one running Karstland lies, and the settings its programs share. */
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, statfsSync, writeFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { Stop } from './say.mjs'

export const project = resolve(dirname(fileURLToPath(import.meta.url)), '../..')

/** Smallest free space to begin with: demo media, database and some captures. */
const LEAST_FREE_BYTES = 2 * 1024 ** 3

/**
 * Opens (or makes) a house: the ignored folder that holds database, store, logs and secrets.
 * @param {string} name folder name inside the project, `.karstland` or `.karstland-test`
 * @throws {Stop} when the disk is too full to begin
 */
export function openHouse(name) {
  const root = join(project, name)
  const place = (...parts) => join(root, ...parts)
  mkdirSync(place('logs'), { recursive: true })
  mkdirSync(place('store'), { recursive: true })
  const { bavail, bsize } = statfsSync(root)
  const free = Number(bavail) * Number(bsize)
  if (free < LEAST_FREE_BYTES) {
    throw new Stop(`the disk has ${(free / 1e9).toFixed(1)} GB free and Karstland wants at least 2 GB to begin with; make room and start again (nothing was changed).`)
  }
  return { root, place, settings: secretsOf(place('settings.json')) }
}

/** Reads the secrets of this house, making them the first time. */
function secretsOf(file) {
  const kept = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {}
  const secret = () => randomBytes(32).toString('base64url')
  const settings = {
    sessionSecret: secret(),
    mediaSecret: secret(),
    clockKey: secret(),
    oidcSecret: secret(),
    courseSecret: secret(),
    databasePassword: secret(),
    ...kept,
  }
  if (JSON.stringify(settings) !== JSON.stringify(kept)) {
    writeFileSync(`${file}.new`, JSON.stringify(settings, null, 2), { mode: 0o600 })
    renameSync(`${file}.new`, file)
  }
  return settings
}
