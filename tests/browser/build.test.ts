import { readFileSync } from 'node:fs'
import { allFindings, chooseMove, classLines, classOf, enter, expect, more, open, test } from './studio'

test('undo and redo, and swapping a move brings its options', async ({ page, demo }) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/build`)
  await expect(page.getByTestId('verdict')).toHaveText('1 min 18 s over')
  const squat = await open(page, 'station', 'Bodyweight squat')
  await chooseMove(page, squat.getByRole('button', { name: 'main option: Bodyweight squat' }), 'Glute bridge')
  const bridge = page.getByRole('article', { name: 'Station 1: Glute bridge' }).last()
  await expect(bridge.getByRole('button', { name: 'harder option: Glute bridge' })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(squat.getByRole('button', { name: 'harder option: Goblet squat' })).toBeVisible()

  await allFindings(page)
  await page.getByRole('button', { name: 'Make it fit 25 min' }).click()
  await expect(page.getByTestId('verdict')).toContainText('to spare')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByTestId('verdict')).toHaveText('1 min 18 s over')
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(page.getByTestId('verdict')).toContainText('to spare')

  // A tempo that cannot be read says so beside the station, and the figures stay the last good ones.
  const lunge = await open(page, 'station', 'Split squat')
  await lunge.getByRole('button', { name: 'More settings for' }).click()
  await enter(lunge.getByLabel('Tempo', { exact: true }).first(), '2-0')
  await expect(page.getByText('“2-0” is not a tempo.').first()).toBeVisible()
  await enter(lunge.getByLabel('Tempo', { exact: true }).first(), '2-0-1-0')
  await expect(page.getByText('“2-0” is not a tempo.')).toHaveCount(0)
})

test('two tabs on one class: a clear choice, and nothing is lost', async ({ page, context, demo }) => {
  const address = `${await classOf(demo, 'Full moon circuit')}/brief`
  const other = await context.newPage()
  await page.goto(address)
  await other.goto(address)
  await page.getByLabel('Title').fill('Mine')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await other.getByLabel('Title').fill('Other')
  await expect(other.getByRole('dialog')).toContainText('changed in another tab')
  await other.getByRole('button', { name: 'See both side by side' }).click()
  await expect(other.getByRole('dialog').getByRole('listitem').first()).toContainText('Mine')
  await other.getByRole('button', { name: 'Keep both' }).click()
  await expect(other.getByRole('heading', { name: 'Other (mine)' })).toBeVisible()
  await other.getByRole('link', { name: 'Classes' }).click()
  await expect(other.getByRole('link', { name: 'Mine', exact: true }).first()).toBeVisible()
  await expect(other.getByRole('link', { name: 'Other (mine)', exact: true }).first()).toBeVisible()
})

test('what was typed while the server was down is saved when it is back', async ({ page, demo }) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/brief`)
  await page.getByLabel('Title').fill('Before the storm')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  const port = await demo.kill()
  await page.getByLabel('Title').fill('After the storm')
  await expect(page.getByText('Not saved yet: Halterion is not answering')).toBeVisible()
  await demo.start(port)
  await expect(page.getByText('Saved', { exact: true })).toBeVisible({ timeout: 15_000 })
  await page.reload()
  await expect(page.getByLabel('Title')).toHaveValue('After the storm')
})

test('a file comes back to the byte, and a broken one names every fault and changes nothing', async ({
  page,
  studio,
}) => {
  const file = new URL('../../demo/six-around-the-loft.halterion.json', import.meta.url)
  await page.goto(studio.address)
  await page.locator('input[type=file]').setInputFiles(file.pathname)
  await expect(page.getByRole('heading', { name: 'Six around the loft' })).toBeVisible()
  await page.goto(studio.address)
  const waiting = page.waitForEvent('download')
  await more(page, 'Six around the loft', 'Download the class file')
  const download = await waiting
  expect(download.suggestedFilename()).toBe('six-around-the-loft.halterion.json')
  expect(readFileSync(await download.path())).toEqual(readFileSync(file))

  const broken = readFileSync(file, 'utf8')
    .replace('"slotMinutes": 35', '"slotMinutes": 3')
    .replace('"rounds": 3', '"round": 3')
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from(broken) })
  await expect(page.getByRole('alert')).toContainText('“broken.json” could not be opened. Nothing was changed.')
  await expect(page.getByRole('alert')).toContainText('Booked time')
  await expect(page.getByRole('alert')).toContainText('Block 3, round')
  await expect(classLines(page)).toHaveCount(1)
})
