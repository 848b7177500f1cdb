/** Everyday work at the screen: planning by drag, undo, renaming, what is under way, narrow screens. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { lectures, sql } from '../support/house'
import { pastCapture, sendWhole, made } from '../support/capture'
import { people } from '../support/person'
import { signIn } from './people'

test('a time is dragged on the board, planned, and undone', async ({ page }) => {
  await signIn(page, people.staff)
  await page.goto('/timetable?room=Lock%20Studio')
  await page.getByRole('button', { name: 'The week after' }).click()
  await page.getByRole('button', { name: 'The week after' }).click()
  const column = page.locator('.cursor-cell').nth(1)
  await expect(column).toBeVisible()
  const box = (await column.boundingBox())!
  const y = (hour: number) => box.y + (hour - 8) / 11 * box.height
  await page.mouse.move(box.x + 60, y(17.02))
  await page.mouse.down()
  await page.mouse.move(box.x + 60, y(18), { steps: 6 })
  await page.mouse.up()
  await expect(page.getByLabel('Starts')).toHaveValue('17:00')
  await expect(page.getByLabel('Minutes')).toHaveValue('60')
  await page.getByLabel('Section').selectOption({ label: 'CAV-410/01 Speleogenesis' })
  await page.getByRole('button', { name: 'Plan this capture' }).click()
  const block = page.getByRole('button', { name: /^CAV-410\/01 .* 17:00 to 18:00/ })
  await expect(block).toBeVisible()
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
  await expect(block).toBeHidden()
  // What was typed wrong is said at its field, and nothing is lost.
  await page.getByLabel('Starts').fill('25:00')
  await page.getByRole('button', { name: 'Plan this capture' }).click()
  await expect(page.getByText('Give the start as hours and minutes, such as 11:00.')).toBeVisible()
  await expect(page.getByLabel('Section')).toHaveValue(/.+/)
})

test('a capture is dragged to another time on the board, looked over, changed and undone', async ({ page }) => {
  await signIn(page, people.staff)
  await page.goto('/timetable')
  await page.getByRole('button', { name: 'The week after' }).click()
  await page.getByRole('button', { name: 'The week after' }).click()
  const block = page.locator('.board-movable').first()
  await expect(block).toBeVisible()
  const name = (await block.getAttribute('aria-label'))!
  const box = (await block.boundingBox())!
  await page.mouse.move(box.x + 5, box.y + 12)
  await page.mouse.down()
  await page.mouse.move(box.x + 30, box.y + 12, { steps: 3 })
  await page.mouse.move(box.x + 190, box.y + 12, { steps: 8 })
  await page.mouse.up()
  await expect(page.getByRole('heading', { name: /^Change / })).toBeVisible()
  const time = / (\d\d:\d\d) to /.exec(name)![1]!
  await expect(page.getByRole('textbox', { name: 'Starts' })).not.toHaveValue(time)
  // Wherever it fell, a free hour is found for it in the late evening.
  await page.getByRole('textbox', { name: 'Starts' }).fill('20:30')
  await page.getByRole('spinbutton', { name: 'Minutes' }).fill('25')
  await expect(page.getByText(`${time} → 20:30`, { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'Change this capture' }).click()
  await expect(page.getByRole('button', { name: / 20:30 to 20:55/ })).toBeVisible()
  await page.getByRole('status').locator('div', { hasText: 'changed' }).getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name, exact: true })).toBeVisible()
})

test('a capture ahead is cancelled from its bench and put back', async ({ page }) => {
  await signIn(page, people.staff)
  const today = await page.getByRole('heading', { level: 1 }).textContent()
  await page.getByRole('button', { name: 'The day after' }).click()
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(today!)
  const block = page.getByRole('button', { name: /(planned|armed)$/ }).first()
  const name = (await block.getAttribute('aria-label'))!.replace(/, (planned|armed)$/, '')
  await block.click()
  await page.getByRole('button', { name: 'Cancel this capture' }).click()
  await expect(page.getByRole('button', { name })).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name })).toBeVisible()
})

test('a recording is renamed and released, and both are undone', async ({ page }) => {
  await signIn(page, people.instructor)
  await page.getByRole('button', { name: 'Slug tests' }).click()
  const bench = page.getByRole('complementary')
  const before = await bench.getByRole('button', { name: /Release to class list|Hold again/ }).textContent()
  await bench.getByRole('button', { name: /Release to class list|Hold again/ }).click()
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
  await expect(bench.getByRole('button', { name: before!.trim() })).toBeVisible()
  await bench.getByRole('button', { name: 'Rename' }).click()
  await bench.getByLabel('Name of the recording').fill('HYD-210/01, week 5 Wed: <em>Slug</em> tests, again')
  await bench.getByLabel('Name of the recording').press('Enter')
  await expect(page.getByRole('button', { name: '<em>Slug</em> tests, again' })).toBeVisible()
  await page.getByRole('status').locator('div', { hasText: 'Renamed' }).getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: 'Slug tests', exact: true })).toBeVisible()
  await page.keyboard.press('Escape')
})

test('what fails says why, under way and on its page, and is made again', async ({ page }) => {
  const capture = await pastCapture('Sluice House', 'HYD-330/01')
  const id = await sendWhole(capture, Buffer.from('no lecture at all '.repeat(100)))
  await made(id)
  await signIn(page, people.staff)
  await page.getByRole('button', { name: /^Under way/ }).click()
  const row = page.getByRole('row', { name: /HYD-330\/01/ })
  await expect(row).toContainText('This is not a video or sound file')
  await row.getByRole('link').click()
  await expect(page.getByRole('alert')).toContainText('not a video or sound file')
  // The recorder sends it anew, whole this time; the page turns into the player by itself.
  const [file] = await sql<{ store_key: string }>('SELECT store_key FROM source_files WHERE recording_id = $1', [id])
  expect(file).toBeDefined()
  await sendWhole(capture, readFileSync(join(lectures, 'stone.mp4')))
  await expect(page.locator('video').first()).toBeVisible({ timeout: 40_000 })
})

test('watching works on a phone, and the bench covers it', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 800 }, hasTouch: true, isMobile: true })
  const page = await context.newPage()
  await signIn(page, people.student)
  await page.getByRole('main').getByRole('link').first().click()
  const video = page.locator('video').first()
  await expect(video).toHaveJSProperty('readyState', 4)
  const wide = await page.evaluate(() => document.documentElement.scrollWidth)
  expect(wide).toBeLessThanOrEqual(390)
  await page.locator('media-play-button').click()
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(1)
})

test('a line that breaks is said, and mended by itself', async ({ page, context }) => {
  await signIn(page, people.staff)
  await context.setOffline(true)
  await page.getByRole('button', { name: 'The day after' }).click()
  await expect(page.getByRole('alert')).toContainText('cannot be reached just now')
  await context.setOffline(false)
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByText('Adit Theatre')).toBeVisible()
})
