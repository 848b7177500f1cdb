/** The whole road, through both interfaces, with a real recorder file. */
import { expect, test, type Page } from '@playwright/test'
import { wallOf } from '../../core/term/calendar'
import { campusNow, courseOrigin, origin, setClock } from '../support/house'
import { people } from '../support/person'
import { signIn } from './people'

const topic = '<b>Wells</b> & "yield"'

/** The campus clock in words, from the strip at the bottom. */
const clockOf = (page: Page) => page.getByRole('region', { name: 'Under way' })

test('a capture is planned, recorded, made, filed, released, placed and seen', async ({ browser }) => {
  const staff = await (await browser.newContext()).newPage()
  await signIn(staff, people.staff)

  // Soon, while the room of the ten o'clock lecture is still taken.
  const begin = Math.ceil(await campusNow() / 300_000) * 300_000 + 300_000
  const [from, to] = [begin, begin + 6 * 60_000].map((t) => wallOf('Europe/London', t).time)

  // Plan: a clash is named and its way out taken.
  await staff.getByRole('link', { name: 'Timetable' }).click()
  await expect(clockOf(staff)).toContainText('Campus clock')
  await staff.getByRole('button', { name: 'New capture plan' }).click()
  await staff.getByLabel('Section').selectOption({ label: 'HYD-210/01 Groundwater Hydrology' })
  await expect(staff.getByLabel('Presenter')).toHaveValue(/.+/)
  await staff.getByLabel('Starts').fill(from!)
  await staff.getByLabel('Minutes').fill('6')
  await staff.getByLabel('Topic').fill(topic)
  await expect(staff.getByRole('group', { name: 'Clash' })).toContainText('Adit Theatre is taken: HYD-210/01 with Tamsin Okoro')
  await expect(staff.getByRole('button', { name: 'Plan this capture' })).toBeDisabled()
  await staff.locator('form').getByLabel('Room', { exact: true }).selectOption({ label: 'Weir Lab 2 (48)' })
  await staff.getByRole('button', { name: 'Plan this capture' }).click()
  await expect(staff.getByRole('status').filter({ hasText: 'HYD-210/01 planned' })).toBeVisible()

  // The recorder takes it up by itself, and the clock runs fast through it.
  const block = staff.getByRole('button', { name: new RegExp(`^HYD-210/01.*${from} to ${to}`) })
  await expect(block).toHaveAccessibleName(/armed/)
  await setClock({ rate: 40 })
  await expect(block).toHaveAccessibleName(/recording/, { timeout: 60_000 })
  await block.click()
  await staff.getByRole('link', { name: 'Open the recording' }).click()
  await expect(staff.getByRole('heading', { level: 1 })).toHaveText(`HYD-210/01, week 6 Wed: ${topic}`)
  await expect(staff.getByRole('heading', { name: 'Being recorded' })).toBeVisible()
  const address = staff.url()
  // The page turns into the player by itself.
  await expect(staff.locator('video').first()).toBeVisible({ timeout: 90_000 })
  await setClock({ rate: 1 })
  expect(staff.url()).toBe(address)
  await expect(staff.locator('video').first()).toHaveJSProperty('readyState', 4)
  const length = await staff.locator('video').first().evaluate((v: HTMLVideoElement) => v.duration)
  expect(Math.abs(length - 360)).toBeLessThan(4)

  // Release and place, as the instructor.
  const teacher = await (await browser.newContext({ permissions: ['clipboard-read', 'clipboard-write'] })).newPage()
  await signIn(teacher, people.instructor)
  await expect(teacher).toHaveURL(/\/library/)
  await teacher.getByRole('button', { name: topic }).click()
  const bench = teacher.getByRole('complementary', { name: topic })
  await expect(bench.getByText('held: release it to the class list')).toBeVisible()
  await bench.getByRole('button', { name: 'Release to class list' }).click()
  await expect(bench.getByText('not placed yet: place it on a course page')).toBeVisible()
  await bench.getByRole('button', { name: 'Copy player code' }).click()
  await expect(teacher.getByRole('status').filter({ hasText: 'Player code copied' })).toBeVisible()
  const player = await teacher.evaluate(() => navigator.clipboard.readText())
  await bench.getByRole('button', { name: 'Copy link' }).click()
  await expect(teacher.getByLabel('Link for the page')).toHaveValue(/Watch the recording/)
  const link = await teacher.getByLabel('Link for the page').inputValue()

  const site = await teacher.context().newPage()
  await site.goto(courseOrigin)
  await site.getByRole('link', { name: 'HYD-210/01 Groundwater Hydrology' }).click()
  await site.getByLabel('New page').fill('Week 6: wells')
  await site.getByRole('button', { name: 'Make page' }).click()
  await site.getByLabel('Content (HTML)').fill(`<p>Please watch.</p>${player}<p>${link}</p>`)
  await site.getByRole('button', { name: 'Save' }).click()
  await site.getByRole('button', { name: 'Publish' }).click()
  await expect(site.getByText('Published')).toBeVisible()
  // A title with markup stays text here too.
  await expect(site.locator('iframe')).toHaveAttribute('title', `HYD-210/01, week 6 Wed: ${topic}`)
  await expect(site.getByRole('link', { name: `Watch the recording: HYD-210/01, week 6 Wed: ${topic}` })).toBeVisible()
  expect(await site.locator('article b').count()).toBe(0)
  await expect(bench.getByText(/not seen yet/)).toBeVisible()
  await expect(bench.getByRole('link', { name: /127\.0\.0\.1.*\/p\// })).toBeVisible()
  const pageAddress = site.url()

  // A student watches there; the frame's own site knows no cookie of hers.
  const student = await (await browser.newContext()).newPage()
  await student.goto(pageAddress)
  await student.getByLabel('Your college address').fill(people.student)
  await student.getByRole('button', { name: 'Continue' }).click()
  await expect(student.getByRole('heading', { name: 'Week 6: wells' })).toBeVisible()
  const frame = student.frameLocator('iframe')
  await expect(frame.getByRole('heading', { name: 'Sign in to watch' })).toBeVisible()
  const popup = student.waitForEvent('popup')
  await frame.getByRole('button', { name: 'Sign in to watch' }).click()
  await (await popup).waitForEvent('close')
  const video = frame.locator('video').first()
  await expect(video).toHaveJSProperty('readyState', 4)
  await frame.locator('media-play-button').click()
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(8)
  // The camera keeps in step.
  const [screen, camera] = await Promise.all([0, 1].map((i) => frame.locator('video').nth(i).evaluate((v: HTMLVideoElement) => v.currentTime)))
  expect(Math.abs(screen! - camera!)).toBeLessThan(1)
  await frame.locator('media-play-button').click()

  // The staff side reads it without a reload, and a reload goes on where she was.
  await expect(bench.getByText('seen by 1', { exact: true })).toBeVisible()
  await expect(staff.getByText('seen by 1', { exact: true })).toBeVisible()
  await student.reload()
  // The browser keeps nothing for a frame of another site: one press, without a form, and on from the same place.
  const second = student.waitForEvent('popup')
  await frame.getByRole('button', { name: 'Sign in to watch' }).click()
  await (await second).waitForEvent('close')
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(3)

  // By the link she comes to the page of its own, signed in from before; outside the frame.
  await student.getByRole('link', { name: /Watch the recording/ }).click()
  await expect(student).toHaveURL(new RegExp(`^${origin}/watch/`))
  await student.getByRole('link', { name: 'Sign in' }).or(student.locator('video').first()).first().waitFor()
})

test('someone not on the class list is told so in plain words', async ({ page, browser }) => {
  await signIn(page, people.instructor)
  await page.getByRole('button', { name: 'Porosity and storage' }).first().click()
  await page.getByRole('button', { name: 'Copy player code' }).click()
  const code = await page.getByLabel('Player code for the page’s HTML').inputValue()
  const address = /src="([^"]+)"/.exec(code)![1]!
  const other = await (await browser.newContext()).newPage()
  await signIn(other, 'anselm.achterberg@fennick.example')
  await other.goto(address)
  await expect(other.getByRole('heading', { name: 'You are not on this class list' })).toBeVisible()
  await expect(other.getByText('HYD-210/01 Groundwater Hydrology')).toBeVisible()
})
