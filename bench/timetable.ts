/**
 * Figures of the timetable: each beside a reference measured in the same call. Run by
 * `npm run bench -- timetable`, which starts a house for it.
 */
import { randomUUID } from 'node:crypto'
import { chromium, type Page } from '@playwright/test'
import { addDays, instantOf, type Term } from '../core/term/calendar'
import { clashesOf, occurrencesOf, type Wanted } from '../core/timetable/wanted'
import { closeSql, origin, sql } from '../tests/support/house'
import { people, PersonClient } from '../tests/support/person'

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
const print = (name: string, value: number, reference: number, unit: string) =>
  console.log(JSON.stringify({ name, value: Number(value.toFixed(3)), reference: Number(reference.toFixed(3)), ratio: Number((value / reference).toFixed(3)), unit }))
function timed(work: () => unknown): number {
  const from = performance.now()
  work()
  return performance.now() - from
}

/** A long term: 45 weeks of teaching. */
const term: Term = { name: 'Bench', zone: 'Europe/London', teachingFrom: '2030-01-07', teachingTo: '2030-11-29', spans: [{ kind: 'reading', from: '2030-04-15', to: '2030-04-28', label: 'Spring break' }] }

/** Plans for one weekday each, spread over rooms and hours; some in one room at one time. */
function plans(count: number): Wanted[] {
  return Array.from({ length: count }, (_, i) => ({
    sectionId: `s${i}`, roomId: `r${i % 150}`, presenterId: `p${i % 900}`, title: '', inputs: ['sound'], exceptions: {}, weekdays: [1 + Math.floor(i / 150) % 5],
    start: `${String(8 + Math.floor(i / 750) % 12).padStart(2, '0')}:${i % 97 === 0 ? '30' : '00'}`, minutes: 50, weeks: { kind: 'every' as const }, from: null, until: { kind: 'teaching' as const }, leftOut: [],
  }))
}

/** Rules → dates → clashes in memory, against sorting as many intervals. */
function dryRun(): void {
  const turnaround = new Map(Array.from({ length: 150 }, (_, i) => [`r${i}`, 5]))
  const run = (list: Wanted[]) => clashesOf(occurrencesOf(list, term), [], turnaround).rooms.length
  const large = plans(5000)
  const small = plans(500)
  const made = occurrencesOf(large, term)
  const shuffled = made.map((o, i) => ({ start: o.start, end: o.end, order: (i * 7919) % made.length })).sort((a, b) => a.order - b.order)
  const sorting = () => [...shuffled].sort((a, b) => a.start - b.start || a.end - b.end)
  for (let i = 0; i < 3; i++) {
    run(large)
    sorting()
    run(small)
  }
  const [ours, reference, tenth] = [[], [], []] as number[][]
  for (let i = 0; i < 9; i++) {
    ours!.push(timed(() => run(large)))
    reference!.push(timed(sorting))
    tenth!.push(timed(() => run(small)))
  }
  console.error(`${made.length} captures, ${run(large)} clashes`)
  print('dry-run', median(ours!), median(reference!), 'ms')
  print('dry-run-growth', median(ours!), median(tenth!), 'ms')
}

/** A term's captures through Sequelize, against one bare statement a piece with the same rows; both are rolled back. */
async function writeTerm(): Promise<void> {
  const { database } = await import('../server/models/database')
  const { writeCaptures } = await import('../server/services/planning')
  const [{ section, presenter }] = await sql<{ section: string, presenter: string }>('SELECT section_id AS section, person_id AS presenter FROM class_list WHERE role = \'instructor\' LIMIT 1') as [{ section: string, presenter: string }]
  const rooms = (await sql<{ id: string }>('SELECT id FROM rooms WHERE inputs @> \'{sound}\'')).map((r) => r.id)
  const rows = Array.from({ length: 20_000 }, (_, i) => {
    const start = Date.UTC(2031, 0, 1) + Math.floor(i / rooms.length) * 7_200_000
    return { id: randomUUID(), sectionId: section, roomId: rooms[i % rooms.length]!, presenterId: presenter, topic: '', startsAt: new Date(start), endsAt: new Date(start + 3_000_000), inputs: ['sound'], plannedBy: null, planId: null, planDate: null, own: [] }
  })
  const rolledBack = async (work: (transaction: never) => Promise<unknown>): Promise<number> => {
    const transaction = await database.transaction()
    const from = performance.now()
    await work(transaction as never)
    const took = performance.now() - from
    await transaction.rollback()
    return took
  }
  const bare = (transaction: never) => (async () => {
    for (let i = 0; i < rows.length; i += 500) {
      const values = rows.slice(i, i + 500).map((r) => `('${r.id}','${r.sectionId}','${r.roomId}','${r.presenterId}','','${r.startsAt.toISOString()}','${r.endsAt.toISOString()}','{sound}','planned','{}')`).join(',')
      await database.query(`INSERT INTO captures (id, section_id, room_id, presenter_id, topic, starts_at, ends_at, inputs, state, own) VALUES ${values}`, { transaction })
    }
  })()
  const [ours, reference] = [[], []] as number[][]
  for (let i = 0; i < 3; i++) {
    ours!.push(await rolledBack((t) => writeCaptures(rows, t)))
    reference!.push(await rolledBack(bare))
  }
  print('write-term', median(ours!), median(reference!), 'ms')
}

/** Sixty rooms and a full week. @returns its Monday */
async function fillBoard(): Promise<string> {
  const monday = '2031-03-03'
  await sql(`INSERT INTO rooms (name, building, seats, inputs, turnaround_minutes) SELECT 'Bench room ' || i, 'Bench', 40, '{sound}', 5 FROM generate_series(1, 60 - (SELECT count(*)::int FROM rooms)) i ON CONFLICT DO NOTHING`)
  await sql(`INSERT INTO captures (section_id, room_id, presenter_id, starts_at, ends_at, inputs)
    SELECT l.section_id, r.id, l.person_id, ($1::date + d + make_interval(hours => 8 + h)) AT TIME ZONE 'Europe/London', ($1::date + d + make_interval(hours => 8 + h, mins => 50)) AT TIME ZONE 'Europe/London', '{sound}'
    FROM rooms r CROSS JOIN generate_series(0, 4) d CROSS JOIN generate_series(0, 9) h CROSS JOIN LATERAL (SELECT section_id, person_id FROM class_list WHERE role = 'instructor' OFFSET (d * 7 + h) % 30 LIMIT 1) l
    WHERE r.inputs @> '{sound}' AND NOT EXISTS (SELECT 1 FROM captures c WHERE c.room_id = r.id AND c.starts_at > $1::date AND c.starts_at < $1::date + 7)`, [monday])
  return monday
}

async function board(): Promise<void> {
  const monday = await fillBoard()
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-background-networking'] })
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  try {
    await page.goto(origin)
    await page.getByLabel('Your college address').fill(people.staff)
    await page.getByRole('button', { name: 'Continue' }).click()
    await page.getByRole('heading', { level: 1 }).waitFor()
    const paints: number[] = []
    for (let i = 0; i < 5; i++) paints.push(await paint(page, monday))
    print('board-paint', median(paints), 300, 'ms')
    print('board-drag', await dragged(page), 20, 'ms')
  } finally {
    await browser.close()
  }
  await route(monday)
}

/** From the last byte of the captures until the first frame that shows them. */
async function paint(page: Page, monday: string): Promise<number> {
  await page.goto(`${origin}/timetable?weeks=${addDays(monday, 14)}`)
  await page.getByRole('heading', { level: 1 }).waitFor()
  await page.goto(`${origin}/timetable?weeks=${monday}`)
  await page.locator('.board-block').nth(2000).waitFor()
  return page.evaluate(async () => {
    await new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)))
    const data = performance.getEntriesByType('resource').filter((e) => e.name.includes('/api/captures?')).at(-1) as PerformanceResourceTiming
    const drawn = performance.getEntriesByName('board-painted').find((m) => m.startTime > data.responseEnd)!
    return drawn.startTime - data.responseEnd
  })
}

/** 95th percentile of the time between frames while a capture is dragged over the board. */
async function dragged(page: Page): Promise<number> {
  const block = page.locator('.board-movable').nth(100)
  const box = (await block.boundingBox())!
  await page.mouse.move(box.x + 5, box.y + 10)
  await page.mouse.down()
  await page.evaluate(() => {
    const w = window as unknown as { frames: number[], stop: boolean }
    w.frames = []
    w.stop = false
    let last = performance.now()
    const tick = () => {
      const now = performance.now()
      w.frames.push(now - last)
      last = now
      if (!w.stop) requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
  })
  for (let i = 0; i < 240; i++) {
    await page.mouse.move(box.x + 5 + 300 * Math.sin(i / 20), box.y + 10 + 150 * Math.cos(i / 15))
    await page.waitForTimeout(4)
  }
  const frames = await page.evaluate(() => {
    const w = window as unknown as { frames: number[], stop: boolean }
    w.stop = true
    return w.frames.slice(2)
  })
  await page.keyboard.press('Escape')
  await page.mouse.up()
  return frames.sort((a, b) => a - b)[Math.floor(frames.length * 0.95)]!
}

/** The route behind the board against its own statement. */
async function route(monday: string): Promise<void> {
  const staff = await PersonClient.signIn(people.staff)
  const [from, to] = [instantOf('Europe/London', monday, '00:00'), instantOf('Europe/London', addDays(monday, 7), '00:00')]
  const { capturesIn } = await import('../server/services/captures')
  const [ours, reference] = [[], []] as number[][]
  for (let i = 0; i < 25; i++) {
    let at = performance.now()
    const answer = await staff.fetch(`/api/captures?from=${from}&to=${to}`)
    await answer.arrayBuffer()
    ours!.push(performance.now() - at)
    at = performance.now()
    await capturesIn({ from, to })
    reference!.push(performance.now() - at)
  }
  print('board-route', median(ours!), median(reference!), 'ms')
}

const only = process.argv[2]
try {
  if (!only || only.startsWith('dry')) dryRun()
  if (!only || only.startsWith('board')) await board()
  if (!only || only === 'write-term') await writeTerm()
} finally {
  await closeSql()
  const { database } = await import('../server/models/database')
  await database.close().catch(() => {})
}
