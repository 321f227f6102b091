import type { Page } from '@playwright/test'
import { addBlock, allFindings, chooseMove, classLines, classOf, commandsOf, expect, open, test } from './studio'

const clockOf = async (page: Page) => (await page.getByTestId('class-left').textContent()) ?? ''

/** Seconds of a clock such as 24:58. */
const seconds = (shown: string) => {
  const [minutes, rest] = shown.split(':').map(Number)
  return 60 * minutes! + rest!
}

test('a started class is shown in a second tab, and every tap follows within a moment', async ({
  page,
  context,
  demo,
}) => {
  const address = `${await classOf(demo, 'Full moon circuit')}/lead`
  await page.goto(address)
  await page.getByRole('button', { name: 'Start the class' }).click()
  const other = await context.newPage()
  await other.goto(address)
  await expect(other.getByRole('button', { name: 'Pause' })).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await expect(other.getByRole('heading', { name: 'Get ready' })).toBeVisible()
  await other.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Carry on' })).toBeVisible()
  expect(await clockOf(other)).toBe(await clockOf(page))

  // Who closed the screen finds the class again in the list.
  await other.goto(demo.address)
  const next = classLines(other).first()
  await expect(next).toContainText('in progress')
  await next.getByRole('link', { name: 'Full moon circuit' }).click()
  await expect(other.getByRole('button', { name: 'Carry on' })).toBeVisible()
})

test('a class started in one tab outlives a new version made in another', async ({ page, context, demo }) => {
  const address = await classOf(demo, 'Full moon circuit')
  await page.goto(`${address}/lead`)
  await expect(page.getByRole('button', { name: 'Start the class' })).toBeVisible()
  const other = await context.newPage()
  await other.goto(`${address}/brief`)
  await other.getByLabel('Your notes (only you see them)').fill('another version')
  await expect(other.getByText('Saved', { exact: true })).toBeVisible()
  await other.goto(`${address}/lead`)
  await expect(other.getByRole('button', { name: 'Start the class' })).toBeVisible()

  await page.getByRole('button', { name: 'Start the class' }).click()
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible()
  await expect(other.getByRole('button', { name: 'Pause' })).toBeVisible()
  for (const tab of [page, other]) {
    await tab.reload()
    await expect(tab.getByRole('button', { name: 'Pause' })).toBeVisible()
  }
})

test('a reload without the server brings the class back, taps and all', async ({ page, demo }) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/lead`)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('heading', { name: 'Get ready' })).toBeVisible()
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true)
  await expect.poll(() => commandsOf(page)).toEqual(['start', 'skip'])
  const port = await demo.kill()
  await page.keyboard.press('Space')
  await expect(page.getByText('1 action not sent yet')).toBeVisible()
  const left = await clockOf(page)

  await page.reload()
  await expect(page.getByRole('button', { name: 'Carry on' })).toBeVisible()
  await expect(page.getByText('Halterion is not answering. The class carries on; 1 action not sent yet')).toBeVisible()
  expect(await clockOf(page)).toBe(left)
  await demo.start(port)
  await expect(page.getByText('Halterion is not answering.')).toHaveCount(0, { timeout: 15_000 })
  await page.reload()
  await expect(page.getByRole('button', { name: 'Carry on' })).toBeVisible()
  expect(await clockOf(page)).toBe(left)
})

test('a clock set back ten minutes neither stops the class nor repeats it', async ({ page, demo }) => {
  // The wall clock of the page can be moved; the monotonic one cannot.
  await page.addInitScript(() => {
    const real = Date.now.bind(Date)
    Date.now = () => real() + Number(localStorage.getItem('shift') ?? 0)
  })
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/lead`)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible()
  const before = seconds(await clockOf(page))
  await page.evaluate(() => localStorage.setItem('shift', String(-600_000)))
  await expect.poll(async () => before - seconds(await clockOf(page)), { timeout: 15_000 }).toBeGreaterThan(2)
  await page.reload()
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible()
  const after = seconds(await clockOf(page))
  expect(after).toBeLessThanOrEqual(before - 2)
  await expect.poll(async () => after - seconds(await clockOf(page)), { timeout: 15_000 }).toBeGreaterThan(2)
  expect(seconds(await clockOf(page))).toBeGreaterThan(before - 60)
})

test('a waiver stays with its station when the one before it goes, and undo outlives the screen', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/classes/new`)
  await page.getByRole('button', { name: 'Create and build' }).click()
  await addBlock(page, 'Circuit')
  const add = page.getByRole('button', { name: 'Add a station to Circuit' })
  for (const move of ['Side lunge', 'Glute bridge']) await chooseMove(page, add, move)
  const findings = page.getByRole('region', { name: 'Checks' }).getByRole('listitem')
  const bridge = await open(page, 'station', 'Glute bridge')
  await bridge.getByRole('button', { name: 'Remove the easier option' }).click()
  await allFindings(page)
  const lacks = findings.filter({ hasText: 'Glute bridge has no easier option' })
  await lacks.getByRole('button', { name: 'Accept as is' }).click()
  await lacks.getByLabel('Reason').fill('nobody needs it tonight')
  await page.keyboard.press('Enter')
  await page.getByText('Accepted as is: 1').click()
  await expect(findings.filter({ hasText: 'nobody needs it tonight' })).toContainText('Glute bridge')

  await page.getByRole('button', { name: 'Remove station Side lunge' }).click()
  await page.getByRole('button', { name: 'Duplicate station Bodyweight squat' }).click()
  await expect(findings.filter({ hasText: 'nobody needs it tonight' })).toContainText('Glute bridge')

  await page.getByRole('link', { name: 'Brief' }).click()
  await expect(page.getByLabel('Title')).toBeVisible()
  await page.getByRole('link', { name: 'Build', exact: true }).click()
  const stations = page.getByRole('article', { name: /^Station \d/ })
  await expect(stations).toHaveCount(3)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(stations).toHaveCount(2)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(stations.nth(1)).toContainText('Side lunge')
  await page.getByText('Accepted as is: 1').click()
  await expect(findings.filter({ hasText: 'nobody needs it tonight' })).toContainText('Glute bridge')
})

test('one class is held many times, each with its own log', async ({ page, demo }) => {
  await page.goto(demo.address)
  const line = classLines(page).filter({ hasText: 'Six around the loft, first time' })
  const dates = page.getByRole('list', { name: 'Dates of Six around the loft, first time' }).getByRole('listitem')
  await line.getByText(/^\d+ dates?/).click()
  await expect(dates.first()).toBeVisible()
  const before = await dates.count()
  await page.goto(`${await classOf(demo, 'Six around the loft, first time')}/brief`)
  await page.getByRole('button', { name: 'Add a date' }).click()
  await expect(page).toHaveURL(/\/on\/.*\/brief/)
  await page.getByLabel('Day', { exact: true }).fill('2030-05-06')
  await expect(page.getByText('Mon 6 May, 18:00')).toBeVisible()
  await page.getByRole('link', { name: 'Log' }).click()
  await expect(page.getByText('Not led yet')).toBeVisible()
  await page.getByRole('link', { name: 'Classes' }).click()
  await expect(line).toContainText('Mon 6 May, 18:00')
  await line.getByText(/^\d+ dates?/).click()
  await expect(dates).toHaveCount(before + 1)
})
