/** Every main view is usable by everybody: axe finds nothing, in light and dark, and the keyboard gets everywhere. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { people } from '../support/person'
import { signIn } from './people'

async function check(page: Page, what: string) {
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']).analyze()
  expect(violations.map((v) => `${what}: ${v.id} at ${v.nodes.map((n) => n.target.join(' ')).slice(0, 4).join(' | ')} ${v.nodes[0]?.failureSummary?.slice(0, 200) ?? ''}`)).toEqual([])
}

for (const colorScheme of ['light', 'dark'] as const) {
  test(`the team’s views, ${colorScheme}`, async ({ browser }) => {
    const page = await (await browser.newContext({ colorScheme })).newPage()
    await signIn(page, people.staff)
    await expect(page.getByRole('button', { name: /^HYD-210\/01/ }).first()).toBeVisible()
    await check(page, 'today')
    await page.getByRole('button', { name: /^HYD-210\/01/ }).first().click()
    await check(page, 'capture bench')
    await page.goto('/timetable?plan=1')
    await expect(page.getByLabel('Section')).toBeVisible()
    await page.getByRole('button', { name: 'Plan this capture' }).click()
    await expect(page.getByText('Choose a section.')).toBeVisible()
    await check(page, 'plan form with errors')
    await page.goto('/library')
    await page.getByRole('row').filter({ hasText: 'held' }).first().getByRole('button').click()
    await expect(page.getByRole('heading', { name: 'Who can watch' })).toBeVisible()
    await check(page, 'library')
    await page.getByRole('link', { name: 'Full page' }).click()
    await expect(page.locator('video').first()).toBeVisible()
    await check(page, 'recording')
    await page.goto('/course-pages')
    await expect(page.getByRole('table')).toBeVisible()
    await check(page, 'course pages')
  })
}

for (const colorScheme of ['light', 'dark'] as const) {
  test(`planning’s views, ${colorScheme}`, async ({ browser }) => {
    test.setTimeout(300_000)
    const page = await (await browser.newContext({ colorScheme })).newPage()
    await signIn(page, people.staff)
    // A message, so that no view is judged empty.
    const written = await page.request.post('/api/messages', { data: { body: 'The sound is low.', path: '/timetable?by=sections' }, headers: { origin: new URL(page.url()).origin } })
    expect(written.status()).toBe(201)
    const views: [string, string][] = [
      ['/timetable', 'board'], ['/timetable?by=sections', 'board by section'], ['/timetable?calendar=1', 'calendar'], ['/timetable/requests', 'requests'], ['/timetable/history', 'history'],
      ['/bring-in?kind=timetable', 'bring in'], ['/set-up/terms?open=new', 'terms'], ['/set-up/rooms?open=new', 'rooms'], ['/set-up/rules', 'rules'], ['/notices', 'notices'], ['/help/timetable', 'help'], ['/messages', 'messages'],
    ]
    for (const [path, name] of views) {
      await page.goto(path)
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      await expect(page.locator('.waiting')).toHaveCount(0)
      await check(page, name)
    }
  })
}

test('a student’s views', async ({ page }) => {
  await signIn(page, people.student)
  await expect(page.getByRole('heading', { name: 'New in my classes' })).toBeVisible()
  await expect(page.getByRole('main').getByRole('link').first()).toBeVisible()
  await check(page, 'new')
  await page.getByRole('main').getByRole('link').first().click()
  await expect(page.locator('video').first()).toHaveJSProperty('readyState', 4)
  await check(page, 'watch')
  // The keyboard alone: space plays, arrow right jumps on.
  await page.locator('media-controller').focus()
  await page.keyboard.press('Space')
  await expect.poll(() => page.locator('video').first().evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(1)
  await page.keyboard.press('ArrowRight')
  await expect.poll(() => page.locator('video').first().evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(10)
  await page.locator('media-fullscreen-button').click()
  await expect.poll(() => page.evaluate(() => document.fullscreenElement?.classList.contains('player'))).toBe(true)
  await page.evaluate(() => document.exitFullscreen())
  // No staff word reaches a student.
  await page.goto('/today')
  await expect(page).toHaveURL(/\/new/)
})

test('weeks are chosen on the term band, by keys too, and live in the address', async ({ page }) => {
  await signIn(page, people.staff)
  await page.getByRole('link', { name: 'Library' }).click()
  await expect(page).toHaveURL(/\/library/)
  const band = page.getByRole('region', { name: 'Term' })
  await band.getByRole('button', { name: /^Wk 2,/ }).focus()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/weeks=\d{4}-\d\d-\d\d/)
  await expect(page.getByText('in the chosen weeks')).toBeVisible()
  await page.reload()
  await expect(band.getByRole('button', { name: /^Wk 2,/ })).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('link', { name: 'Timetable' }).click()
  await expect(page).toHaveURL(/\/timetable\?.*weeks=/)
  await page.goBack()
  await expect(page).toHaveURL(/\/library\?.*weeks=/)
})

test('somebody without a place here is told so', async ({ page }) => {
  await signIn(page, people.stranger)
  await expect(page.getByRole('heading', { name: 'You may not come in yet' })).toBeVisible()
  await check(page, 'no entry')
})
