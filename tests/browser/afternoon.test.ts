/** The coordinator's afternoon: class data in, a timetable in with its clashes resolved, a section moved, a roll-over looked at, a calendar taken along. */
import nodeIcal, { type VEvent } from 'node-ical'
import { expect, test, type Page } from '@playwright/test'
import { addDays, wallOf } from '../../core/term/calendar'
import { afternoonTerm, classDataFiles, CLASHES, csvOf, timetableRows, zipOf } from '../support/afternoon'
import { sql } from '../support/house'
import { people } from '../support/person'
import { signIn } from './people'

async function send(page: Page, name: string, buffer: Buffer) {
  await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/octet-stream', buffer })
  await page.getByRole('button', { name: 'Look it over' }).click()
}

test('a whole term is planned in an afternoon', async ({ page }) => {
  test.setTimeout(240_000)
  const [{ last }] = await sql<{ last: string }>(`SELECT to_char(max(teaching_to), 'YYYY-MM-DD') AS last FROM terms`) as [{ last: string }]
  const term = afternoonTerm(last, 'Coordinator term')
  const files = Object.fromEntries(Object.entries(classDataFiles(term)).map(([name, text]) => [name, text.replaceAll('term-aft', 'term-co').replaceAll('cls-', 'co-').replace(/\nen-/g, '\nco-en-')]))
  await signIn(page, people.staff)

  // Class data in, difference first.
  await page.goto('/bring-in?kind=class+data')
  await send(page, 'export.zip', await zipOf(files))
  await expect(page.getByRole('row', { name: /^Sections/ })).toContainText('100')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('Class data taken in', { exact: false })).toBeVisible()

  // The timetable in: three hundred rows, nine clashes, one settled by hand, the others as a set.
  await page.goto('/bring-in?kind=timetable')
  await page.locator('form').getByLabel('Term', { exact: true }).selectOption({ label: 'Coordinator term' })
  await send(page, 'timetable.csv', Buffer.from(csvOf(timetableRows())))
  await expect(page.getByRole('button', { name: `▲ clash ${CLASHES}` })).toBeVisible()
  const first = page.getByRole('group', { name: /^Clash of/ }).first()
  await expect(first).toContainText('is taken: AFT-')
  await first.getByRole('button').first().click()
  await expect(page.getByRole('button', { name: `▲ clash ${CLASHES - 1}` })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Take it in' })).toBeDisabled()
  await page.getByRole('button', { name: 'Resolve all…' }).click()
  await expect(page.getByRole('heading', { name: `A way out for ${CLASHES - 1} plans` })).toBeVisible()
  await page.getByRole('button', { name: 'Take all of these' }).click()
  await expect(page.getByRole('button', { name: /^\+ new 300/ })).toBeVisible()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('300 plans new', { exact: false })).toBeVisible()

  // One section, from week 8 on, an hour at which its room is free.
  const week8 = addDays(term.from, 49)
  await page.goto(`/timetable?by=sections&course=AFT-142&weeks=${week8}`)
  await page.getByRole('combobox', { name: 'Term', exact: true }).selectOption({ label: 'Coordinator term' })
  await expect(page).toHaveURL(/term=/)
  await page.goto(`${page.url().split('?')[0]}?term=${new URL(page.url()).searchParams.get('term')}&by=sections&course=AFT-142&weeks=${week8}`)
  const block = page.getByRole('button', { name: /^AFT-142\/01 / }).first()
  const name = (await block.getAttribute('aria-label'))!
  await block.click()
  await page.getByRole('button', { name: 'Change…' }).click()
  await page.getByLabel('This and later ones').check()
  await page.getByRole('textbox', { name: 'Starts' }).fill('18:30')
  await expect(page.getByRole('heading', { name: '3 captures will change' })).toBeVisible()
  await page.getByRole('button', { name: 'Change 3 captures' }).click()
  await expect(page.getByRole('status').filter({ hasText: '3 captures of AFT-142/01' })).toBeVisible()
  await expect(page.getByRole('button', { name: /^AFT-142\/01 .* 18:30 to 19:20/ })).toBeVisible()

  // By keys: picked up, carried to the next day, given up; nothing moves.
  await page.getByRole('button', { name: /^AFT-142\/01 .* 18:30 to 19:20/ }).focus()
  await page.keyboard.press('m')
  await page.keyboard.press('Shift+ArrowRight')
  await expect(page.getByText('Enter puts it down', { exact: false })).toHaveCount(1)
  await page.keyboard.press('Escape')
  await expect(page.getByText('Given up; nothing was moved.')).toHaveCount(1)

  // A roll-over, only looked at.
  await page.goto('/bring-in?kind=roll-over')
  await page.getByLabel('Plans of').selectOption({ label: 'Coordinator term' })
  const other = await page.getByLabel('onto').locator('option').first().textContent()
  await page.getByLabel('onto').selectOption({ label: other === 'Coordinator term' ? (await page.getByLabel('onto').locator('option').nth(1).textContent())! : other! })
  await page.getByRole('button', { name: 'Look it over' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Coordinator term onto')
  await expect(page.getByRole('button', { name: /(not understood|new) \d+/ }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Drop it' }).click()

  // A calendar to take along, read by another library: the same moments as in the timetable.
  await page.goto(`/timetable?calendar=1&term=${(await sql<{ id: string }>('SELECT id FROM terms WHERE name = $1', ['Coordinator term']))[0]!.id}`)
  await page.getByLabel('Section', { exact: true }).selectOption({ label: 'AFT-142/01 Afternoon study 42' })
  await page.getByRole('button', { name: 'Make a private address' }).click()
  const address = await page.getByLabel(/^Address for AFT-142\/01/).inputValue()
  const events = Object.values(nodeIcal.sync.parseICS(await (await fetch(address)).text())).filter((e): e is VEvent => e?.type === 'VEVENT')
  const read = events.flatMap((e) => {
    const exceptions = new Set(Object.values(e.exdate ?? {}).map((d) => new Date(d as Date).getTime()))
    return e.rrule ? e.rrule.between(new Date(0), new Date(4e12)).map((d) => d.getTime()).filter((t) => !exceptions.has(t)) : [new Date(e.start).getTime()]
  })
  const held = await sql<{ at: Date }>(`SELECT c.starts_at AS at FROM captures c JOIN sections s ON s.id = c.section_id JOIN courses k ON k.id = s.course_id JOIN terms t ON t.id = s.term_id WHERE k.code = 'AFT-142' AND t.name = 'Coordinator term' AND c.state <> 'cancelled'`)
  const inTerm = read.filter((t) => wallOf('Europe/London', t).date >= term.from)
  expect(inTerm.sort()).toEqual(held.map((c) => c.at.getTime()).sort())
  expect(held).toHaveLength(30)
  expect(name).toContain('AFT-142/01')
})
