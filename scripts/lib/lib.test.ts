import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
// @ts-expect-error plain scripts, written for a machine where nothing is installed
import { openHouse, project } from './house.mjs'
// @ts-expect-error plain scripts, as above
import { freePort, mustBeFree } from './ports.mjs'
// @ts-expect-error plain scripts, as above
import { Programs } from './processes.mjs'

const folder = mkdtempSync(join(tmpdir(), 'karstland-scripts-'))
const name = `.karstland-unit-${process.pid}`
afterAll(() => {
  rmSync(folder, { recursive: true, force: true })
  rmSync(join(project, name), { recursive: true, force: true })
})

describe('ports', () => {
  it('that are free may be had, and a taken one is said in one sentence with the way out', async () => {
    const port = await freePort()
    await expect(mustBeFree(port, 'Karstland', 'PORT')).resolves.toBeUndefined()
    const server = createServer()
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
    const taken = (server.address() as AddressInfo).port
    await expect(mustBeFree(taken, 'Karstland', 'PORT')).rejects.toThrow(`port ${taken}, where Karstland should answer, is taken by another program; end that program or choose another port with PORT=${taken + 10} npm start.`)
    server.close()
  })
})

describe('a house', () => {
  it('makes its secrets once and keeps them to itself', () => {
    const first = openHouse(name)
    const second = openHouse(name)
    expect(second.settings).toEqual(first.settings)
    expect(new Set(Object.values(first.settings)).size).toBe(Object.keys(first.settings).length)
    expect(statSync(first.place('settings.json')).mode & 0o077).toBe(0)
  })
})

describe('programs', () => {
  it('are started with their log, waited for, and ended; one that fails says why', async () => {
    const programs = new Programs(folder)
    const port = await freePort()
    programs.start('good', ['-e', `console.log('hello'); require('http').createServer((q, r) => r.end('ok')).listen(${port}, '127.0.0.1')`], {})
    await programs.answers('good', `http://127.0.0.1:${port}/`)
    const pid = programs.pidOf('good')
    expect(readFileSync(programs.logOf('good'), 'utf8')).toContain('hello')
    programs.start('bad', ['-e', 'throw new Error("the disk is full of sand")'], {})
    await expect(programs.answers('bad', 'http://127.0.0.1:1/', 10)).rejects.toThrow('full of sand')
    await programs.stop()
    expect(() => process.kill(pid, 0)).toThrow()
  })

  it('that end by themselves are told of', async () => {
    const programs = new Programs(folder)
    const lost = new Promise((done) => (programs.onLoss = (who: string, code: number) => done([who, code])))
    programs.start('brief', ['-e', 'process.exit(7)'], {})
    expect(await lost).toEqual(['brief', 7])
  })
})
