import { createServer, get, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { randomBytes } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { release, take } from './open-files'
import { pour } from './pour'

const folder = mkdtempSync(join(tmpdir(), 'karstland-pour-'))
const file = join(folder, 'film')
const bytes = randomBytes(5_000_000)
let server: Server
let results: Promise<boolean>[]

beforeAll(async () => {
  writeFileSync(file, bytes)
  results = []
  server = createServer((request, response) => {
    const [start, end] = request.url!.slice(1).split('-').map(Number) as [number, number]
    results.push(take(file).then(({ handle }) => pour(handle, start, end, response)).finally(() => release(file)))
  })
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
})
afterAll(() => {
  server.close()
  rmSync(folder, { recursive: true })
})
const url = (range: string) => `http://127.0.0.1:${(server.address() as AddressInfo).port}/${range}`
const openFiles = () => readdirSync('/proc/self/fd').length

it('says that a file is not there, and finds it when it comes', async () => {
  const late = join(folder, 'late')
  await expect(take(late)).rejects.toThrow('ENOENT')
  writeFileSync(late, 'here')
  const [one, two] = await Promise.all([take(late), take(late)])
  expect(one.size).toBe(4)
  expect(two.handle).toBe(one.handle)
  release(late)
  release(late)
})

describe('pouring a file', () => {
  it('sends exactly the bytes asked for, to many at once', async () => {
    const ranges = Array.from({ length: 40 }, (_, i) => [i * 1000, Math.min(bytes.length - 1, i * 1000 + i * 120_000)] as const)
    await Promise.all(ranges.map(async ([start, end]) => {
      const got = Buffer.from(await (await fetch(url(`${start}-${end}`))).arrayBuffer())
      expect(Buffer.compare(got, bytes.subarray(start, end + 1))).toBe(0)
    }))
  })

  it('stops when the reader goes, keeps no file open, and mixes nothing into the next answer', async () => {
    await (await fetch(url('0-10'))).arrayBuffer()
    const before = openFiles()
    results = []
    await Promise.all(Array.from({ length: 20 }, () => new Promise<void>((done) => {
      const request = get(url(`0-${bytes.length - 1}`), (response) => response.once('data', () => {
        request.destroy()
        done()
      }))
      request.on('error', () => {})
    })))
    expect(await Promise.all(results)).toContain(false)
    expect(openFiles()).toBeLessThanOrEqual(before + 3)
    const after = Buffer.from(await (await fetch(url(`7-${bytes.length - 1}`))).arrayBuffer())
    expect(Buffer.compare(after, bytes.subarray(7))).toBe(0)
  })
})
