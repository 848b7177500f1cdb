import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'

const folder = mkdtempSync(join(tmpdir(), 'karstland-clock-'))
let child: ChildProcess
let url: string

interface Setting { realAnchor: number, campusAnchor: number, rate: number }
const now = (c: Setting) => c.campusAnchor + (Date.now() - c.realAnchor) * c.rate
const get = async (path = '/') => await (await fetch(url + path)).json() as Setting
const put = (body: unknown, key = 'key') => fetch(url, { method: 'PUT', headers: { authorization: `Bearer ${key}` }, body: JSON.stringify(body) })

async function begin(port: number): Promise<void> {
  child = spawn(process.execPath, ['--import', 'tsx', 'stand-ins/clock/main.ts'], { env: { ...process.env, PORT: String(port), CLOCK_STATE: join(folder, 'state.json'), CLOCK_KEY: 'key' }, stdio: 'ignore' })
  for (let i = 0; i < 150; i++) {
    if (await fetch(`${url}/health`).then((r) => r.ok, () => false)) return
    await new Promise((r) => setTimeout(r, 100))
  }
  throw new Error('the clock does not answer')
}

beforeAll(async () => {
  writeFileSync(join(folder, 'state.json'), JSON.stringify({ campus: 5_000_000, rate: 1 }))
  const port = await new Promise<number>((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo
      server.close(() => done(port))
    })
  })
  url = `http://127.0.0.1:${port}`
  await begin(port)
}, 30_000)
afterAll(() => {
  child.kill('SIGKILL')
  rmSync(folder, { recursive: true, force: true })
})

describe('the campus clock service', () => {
  it('goes on from where it stood', async () => {
    const at = now(await get())
    expect(at).toBeGreaterThanOrEqual(5_000_000)
    expect(at).toBeLessThan(5_060_000)
  })

  it('is set and sped up by those with the key alone', async () => {
    expect((await put({ rate: 9 }, 'guess')).status).toBe(403)
    expect((await put({ at: 9_000_000, rate: 60 })).status).toBe(200)
    const clock = await get()
    expect(clock.rate).toBe(60)
    expect(now(clock)).toBeGreaterThanOrEqual(9_000_000)
  })

  it.each([[{ rate: -1 }], [{ rate: 1e9 }], [{ at: 'noon' }], [{ at: null, rate: 'x' }]])('refuses %j', async (body) => {
    expect((await put(body)).status).toBe(422)
  })

  it('tells those who wait the moment it is set', async () => {
    const before = await get()
    const waiting = get(`/next?after=${before.realAnchor}`)
    await put({ rate: 2 })
    expect((await waiting).rate).toBe(2)
    expect((await get('/next?after=1')).rate).toBe(2)
  })
})
