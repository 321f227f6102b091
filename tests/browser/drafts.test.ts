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

  // A dialog that is left gives the focus back, also when what was touched last in it was no control.
  const dialog = page.getByRole('dialog', { name: 'Another version of this class' })
  for (const [opener, window] of [
    ['Versions', 'Versions of this class'],
    ['Vary', 'Another version of this class'],
  ] as const) {
    await page.getByRole('button', { name: opener, exact: true }).focus()
    await page.keyboard.press('Enter')
    await page.getByRole('dialog', { name: window }).getByText(window).click()
    await page.keyboard.press('Escape')
    await expect(page.getByRole('button', { name: opener, exact: true })).toBeFocused()
  }
  await page.keyboard.press('Enter')
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

test('a draft is taken as it was drafted, and once: after a lost answer, and whatever was typed since', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/classes/new`)
  await page.getByLabel('Title').fill('Thursday loft')
  await page.getByRole('button', { name: 'Draft it' }).click()
  await expect(takes(page).first()).toBeVisible({ timeout: 60_000 })
  // Typed after the drafts stand there: they are still of 45 minutes.
  await page.getByLabel('Room booked for').fill('60')
  await page.getByLabel('Room booked for').press('Tab')

  let sent = 0
  await page.route('**/api/classes', async (route) => {
    if (route.request().method() !== 'POST' || ++sent > 1) return route.continue()
    await route.fetch()
    await route.abort()
  })
  await takes(page).first().click()
  await expect(page.getByRole('alert')).toContainText('was not created')
  await takes(page).first().click()
  await page.waitForURL(/\/build/)
  await expect(page.getByText('of 45 min booked')).toBeVisible()
  const { classes } = (await (await fetch(`${studio.address}/api/classes`)).json()) as { classes: { title: string }[] }
  expect(classes.filter((c) => c.title === 'Thursday loft')).toHaveLength(1)
})

test('wishes that cannot be say so beside the field, or with the way out; a server that is gone is told', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/classes/new`)
  const from = page.getByLabel('Stations, from')
  await from.fill('99')
  await from.press('Tab')
  await expect(page.getByText('99 is too high. Enter 1 to 16.')).toBeVisible()
  await from.fill('10')
  await from.press('Tab')
  // No fewer than that is asked for.
  await expect(page.getByLabel('Stations, up to')).toHaveValue(/10/)

  await page.getByLabel('Room booked for').fill('5')
  await page.getByLabel('Room booked for').press('Tab')
  await page.getByLabel('Shape').selectOption('dropSets')
  await page.getByRole('button', { name: 'Draft it' }).click()
  await expect(drafts(page).getByRole('alert')).toContainText('No class can keep to all of this', { timeout: 60_000 })
  await expect(drafts(page).getByRole('alert')).toContainText('book more time')

  await studio.kill()
  await page.getByRole('button', { name: 'Draft it' }).click()
  await expect(drafts(page).getByText('nothing was changed')).toBeVisible()
  await expect(page.getByLabel('Title')).toHaveValue('New class')
})
