/**
 * Figures of the road: each beside a reference measured in the same call. Run by `npm run bench -- road`,
 * which starts a house for it.
 */
import { execFileSync, spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { copyFileSync, mkdirSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { people, PersonClient } from '../tests/support/person'
import { closeSql, lectures, origin, sql, until } from '../tests/support/house'
import { pastCapture } from '../tests/support/capture'

const folder = mkdtempSync(join(tmpdir(), 'karstland-bench-'))
const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!
const print = (name: string, value: number, reference: number, unit: string) =>
  console.log(JSON.stringify({ name, value: Number(value.toFixed(3)), reference: Number(reference.toFixed(3)), ratio: Number((value / reference).toFixed(3)), unit }))

/** An hour of H.264 and AAC, one picture, as a room recorder would send it. */
function source(): string {
  const file = join(folder, 'hour.mp4')
  execFileSync('ffmpeg', ['-loglevel', 'error', '-stream_loop', '-1', '-i', join(lectures, 'wells.mp4'), '-map', '0:v:1', '-map', '0:a:0', '-c', 'copy', '-t', '3600', file])
  return file
}

/** From the moment a whole file is booked until its page would play, through queue, worker and database. */
async function firstPlayable(file: string): Promise<void> {
  const ours: number[] = []
  const bare: number[] = []
  for (let i = 0; i < 5; i++) {
    const out = join(folder, `bare${i}`)
    mkdirSync(out)
    const from = performance.now()
    execFileSync('ffmpeg', ['-loglevel', 'error', '-nostdin', '-i', file, '-map', '0:v:0', '-map', '0:a:0', '-c', 'copy', '-f', 'hls', '-hls_time', '4', '-hls_playlist_type', 'vod', '-hls_segment_type', 'fmp4', join(out, 'index.m3u8')])
    bare.push((performance.now() - from) / 1000)
    ours.push(await once(file))
  }
  print('first-playable', median(ours), median(bare), 's')
}

async function once(file: string): Promise<number> {
  const { bookArrival } = await import('../server/services/recordings')
  const capture = await pastCapture('Orchard Seminar', 'CAV-410/01')
  const [room] = await sql<{ room_id: string }>('SELECT room_id FROM captures WHERE id = $1', [capture.id])
  const uploadId = randomUUID()
  const incoming = join(process.env.STORE_DIR!, 'incoming')
  mkdirSync(incoming, { recursive: true })
  copyFileSync(file, join(incoming, uploadId))
  const from = performance.now()
  const booked = await bookArrival({ uploadId, captureId: capture.id, roomId: room!.room_id, name: 'hour.mp4', bytes: statSync(file).size, requestId: 'bench' })
  for (;;) {
    const [row] = await sql<{ state: string }>('SELECT state FROM recordings WHERE id = $1', [booked!.recordingId])
    if (row!.state === 'ready') break
    if (row!.state === 'failed') throw new Error('the making failed')
    await new Promise((r) => setTimeout(r, 5))
  }
  const seconds = (performance.now() - from) / 1000
  await until('the rest to be made', async () => (await sql('SELECT 1 FROM undertakings WHERE recording_id = $1 AND state = $2', [booked!.recordingId, 'done'])).length > 0, 120)
  return seconds
}

/**
 * Megabytes a second at 64 connections, each asking for one MiB after another all over the file. The
 * asking is done by wrk: a client in Node would be the slower side and hide the server.
 */
function throughput(url: string, size: number): number {
  const script = join(folder, 'ranges.lua')
  writeFileSync(script, `local n = 0
function request()
  n = (n + 7) % 16
  local from = math.floor(n / 16 * ${Math.max(0, size - 1024 ** 2)})
  return wrk.format("GET", nil, { ["Range"] = string.format("bytes=%d-%d", from, from + 1048575) })
end
function done(summary) print(string.format("BYTES %d %d %d", summary.bytes, summary.duration, summary.errors.status + summary.errors.read + summary.errors.connect + summary.errors.timeout)) end
`)
  const run = (seconds: number) => execFileSync('wrk', ['-t', '1', '-c', '64', '-d', `${seconds}s`, '--timeout', '20s', '-s', script, url], { encoding: 'utf8' })
  run(2)
  const [, bytes, microseconds, errors] = /BYTES (\d+) (\d+) (\d+)/.exec(run(6))!.map(Number)
  if (errors) throw new Error(`${url}: ${errors} requests failed`)
  return bytes! / microseconds!
}

async function range64(): Promise<void> {
  const student = await PersonClient.signIn(people.student)
  const [row] = await sql<{ id: string, prefix: string }>(`
    SELECT r.id, r.store_prefix AS prefix FROM recordings r JOIN filings f ON f.recording_id = r.id JOIN releases l ON l.filing_id = f.id AND l.opens_at IS NULL JOIN folders d ON d.id = f.folder_id
      JOIN class_list m ON m.section_id = d.section_id JOIN people p ON p.id = m.person_id WHERE p.email = $1 AND r.state = 'ready' LIMIT 1`, [people.student])
  const path = join(process.env.STORE_DIR!, row!.prefix, 'screen', 'index.m4s')
  const { data } = await student.api<{ grant: { base: string } }>('GET', `/api/recordings/${row!.id}/watch`)
  const size = statSync(path).size
  const port = Number(process.env.BENCH_NGINX_PORT)
  const conf = join(folder, 'nginx.conf')
  writeFileSync(conf, `worker_processes 1; daemon off; pid ${folder}/nginx.pid; error_log ${folder}/error.log; ${process.getuid!() === 0 ? 'user root;' : ''}
events { worker_connections 512; } http { access_log off; sendfile on; tcp_nopush on; keepalive_requests 1000000; client_body_temp_path ${folder}/b; proxy_temp_path ${folder}/p; fastcgi_temp_path ${folder}/f; uwsgi_temp_path ${folder}/u; scgi_temp_path ${folder}/s;
server { listen 127.0.0.1:${port}; location / { root ${join(process.env.STORE_DIR!, row!.prefix)}; } } }`)
  const nginx = spawn('nginx', ['-c', conf, '-p', folder], { stdio: 'ignore' })
  try {
    await until('nginx', () => fetch(`http://127.0.0.1:${port}/screen/index.m4s`, { method: 'HEAD' }).then((r) => r.ok, () => false))
    const reference = throughput(`http://127.0.0.1:${port}/screen/index.m4s`, size)
    // Grants last five minutes; this takes seconds.
    print('range-64', throughput(`${origin}${data.grant.base}/screen/index.m4s`, size), reference, 'MB/s')
  } finally {
    nginx.kill()
  }
}

/** Bytes of script on the wire, gzipped, until a page shows what it is for. */
async function scripts(): Promise<void> {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-background-networking'] })
  const load = async (signIn: string | null, path: string, shows: string): Promise<number> => {
    const context = await browser.newContext()
    const page = await context.newPage()
    if (signIn) {
      await page.goto(origin)
      await page.getByLabel('Your college address').fill(signIn)
      await page.getByRole('button', { name: 'Continue' }).click()
      await page.getByRole('heading', { level: 1 }).waitFor()
    }
    const fresh = await context.newPage()
    const cdp = await context.newCDPSession(fresh)
    await cdp.send('Network.enable')
    await cdp.send('Network.setCacheDisabled', { cacheDisabled: true })
    const kinds = new Map<string, string>()
    let bytes = 0
    cdp.on('Network.responseReceived', (e) => kinds.set(e.requestId, e.type))
    cdp.on('Network.loadingFinished', (e) => (bytes += kinds.get(e.requestId) === 'Script' ? e.encodedDataLength : 0))
    await fresh.goto(origin + path)
    await fresh.getByText(shows).first().waitFor()
    await fresh.waitForLoadState('load')
    const counted = bytes
    await context.close()
    return counted / 1000
  }
  try {
    // Nobody is signed in: all of the page but the player.
    print('viewer-js', await load(null, `/watch/${randomUUID()}`, 'Sign in'), 150, 'kB')
    print('staff-js', await load(people.staff, '/today', 'Adit Theatre'), 260, 'kB')
  } finally {
    await browser.close()
  }
}

/** `npm run bench -- road range-64` measures that figure alone. */
const only = process.argv[2]
try {
  if (!only || only === 'first-playable') await firstPlayable(source())
  if (!only || only === 'range-64') await range64()
  if (!only || only.endsWith('-js')) await scripts()
} finally {
  rmSync(folder, { recursive: true, force: true })
  await closeSql()
  const { database } = await import('../server/models/database')
  await database.close()
}
