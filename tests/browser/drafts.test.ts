import type { Page } from '@playwright/test'
import { expect, test } from './studio'

const drafts = (page: Page) => page.getByRole('region', { name: 'Drafts' })
const takes = (page: Page) => drafts(page).getByRole('button', { name: 'Take this one' })

/** The names of the main moves as the bench shows them. */
const rows = (page: Page) => page.getByRole('article', { name: /^Station \d/ })

test('from a brief to a class that is ready to be led, in under 15 clicks', async ({ page, demo }) => {
  const troubles: string[] = []
  page.on('pageerror', (error) => troubles.push(error.message))
  let clicks = 0
  const click = async (role: 'button' | 'link', name: string, at = page.locator('body')) => {
    clicks++
    await at.getByRole(role, { name, exact: true }).first().click()
  }
  await page.goto(demo.address)
  await click('link', 'New class')
  await click('button', 'Draft it')
  await expect(takes(page)).toHaveCount(3, { timeout: 60_000 })
  const shapes = await drafts(page).getByRole('heading', { level: 3 }).allInnerTexts()
  expect(new Set(shapes.map((s) => s.split('\n')[0])).size).toBe(3)
  await click('button', 'Take this one', drafts(page))
  await page.waitForURL(/\/build/)
  await expect(page.getByTestId('verdict')).toHaveText('on time')
  await click('link', 'Check if it is ready')
  await page.waitForURL(/\/ready/)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page.getByText('Not ready')).toHaveCount(0)
  expect(clicks).toBeLessThan(15)
  expect(troubles).toEqual([])
})

test('another version is shown with what it changes, is taken as one step and undone', async ({ page, sharedDemo }) => {
  await page.goto(`${sharedDemo.address}/classes/new`)
  await page.getByLabel('Shape').selectOption('circuit')
  await page.getByRole('button', { name: 'Draft it' }).click()
  await expect(takes(page).first()).toBeVisible({ timeout: 60_000 })
  await takes(page).first().click()
  await page.waitForURL(/\/build/)
  await expect(page.getByText('of 45 min booked')).toBeVisible()
  const before = await rows(page).count()

  await page.getByRole('button', { name: 'Vary' }).click()
  const dialog = page.getByRole('dialog', { name: 'Another version of this class' })
  await dialog.getByRole('button', { name: 'Ten minutes shorter' }).click()
  await expect(takes(page).first()).toBeVisible({ timeout: 60_000 })
  await dialog.getByText('What changes').first().click()
  await expect(dialog.getByText(/45.*35|35 min/).first()).toBeVisible()
  // Looking changes nothing; taking does, in one step.
  await takes(page).first().click()
  await expect(dialog).toBeHidden()
  await expect(page.getByText('of 35 min booked')).toBeVisible()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByText('of 45 min booked')).toBeVisible()
  await expect(rows(page)).toHaveCount(before)
})

test('what is selected stays, the rest is drafted anew; a search can be stopped and a lost one says so', async ({
  page,
  sharedDemo,
}) => {
  await page.goto(`${sharedDemo.address}/classes/new`)
  await page.getByLabel('Shape').selectOption('circuit')
  // An answer that never comes is given up, and the form is as it was.
  await page.route('**/api/drafts', () => {})
  await page.getByRole('button', { name: 'Draft it' }).click()
  await drafts(page).getByRole('button', { name: 'Stop' }).click()
  await expect(drafts(page).getByRole('status')).toHaveCount(0)
  await page.unroute('**/api/drafts')
  await page.route('**/api/drafts', (route) => route.abort())
  await page.getByRole('button', { name: 'Draft it' }).click()
  await expect(drafts(page).getByRole('alert')).toContainText('nothing was changed')
  await page.unroute('**/api/drafts')
  await page.getByRole('button', { name: 'Draft it' }).click()
  await expect(takes(page).first()).toBeVisible({ timeout: 60_000 })
  await takes(page).first().click()
  await page.waitForURL(/\/build/)

  const circuit = page.getByRole('article', { name: /^Station \d/ })
  const kept = circuit.filter({ has: page.getByRole('checkbox') }).nth(6)
  const name = (await kept.getAttribute('aria-label')) ?? ''
  await kept.getByRole('checkbox').check()
  await page.getByRole('button', { name: 'Keep it, draft the rest' }).click()
  await expect(takes(page).first()).toBeVisible({ timeout: 60_000 })
  await expect(drafts(page).getByText('kept as it is').first()).toBeVisible()
  await takes(page).first().click()
  const move = name.replace(/^Station \d+[^:]*: ?/, '')
  await expect(page.getByRole('article', { name: new RegExp(move) }).first()).toBeVisible()
})
