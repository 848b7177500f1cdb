/** Signing in through the campus sign-in, by hand. */
import { expect, type Page } from '@playwright/test'
import { origin } from '../support/house'

export async function signIn(page: Page, email: string): Promise<void> {
  await page.goto(`${origin}/`)
  await page.getByLabel('Your college address').fill(email)
  await page.getByRole('button', { name: 'Continue' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
}
