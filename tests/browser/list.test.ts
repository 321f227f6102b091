import { readFileSync } from 'node:fs'
import { addBlock, chooseMove, classLines, classOf, enter, expect, more, open, test, pick } from './studio'

test('a class is copied with a brief of its own, removed, and put back', async ({ page, demo }) => {
  await page.goto(demo.address)
  const line = classLines(page)
  await expect(line.first()).toBeVisible()
  const before = await line.count()
  await more(page, 'Full moon circuit', 'Make a copy')
  await expect(page.getByLabel('Title')).toHaveValue('Full moon circuit, 2')
  await page.getByLabel('Title').fill('New moon circuit')
  await enter(page.getByLabel('Room booked for'), '30')
  await page.getByRole('button', { name: 'Create and build' }).click()
  await expect(page.getByTestId('verdict')).toHaveText('3 min 42 s to spare')

  await page.getByRole('link', { name: 'Classes' }).click()
  await expect(line).toHaveCount(before + 1)
  await more(page, 'New moon circuit', 'Remove the class and all its dates')
  await expect(line).toHaveCount(before)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(line).toHaveCount(before + 1)
})

test('a class file is opened by dropping it on the page', async ({ page, studio }) => {
  await page.goto(studio.address)
  await expect(page.getByText('No classes yet')).toBeVisible()
  const text = readFileSync(new URL('../../demo/full-moon-circuit.halterion.json', import.meta.url), 'utf8')
  const dropped = await page.evaluateHandle((content) => {
    const transfer = new DataTransfer()
    transfer.items.add(new File([content], 'moon.halterion.json', { type: 'application/json' }))
    return transfer
  }, text)
  await page.dispatchEvent('main', 'drop', { dataTransfer: dropped })
  await expect(page.getByRole('heading', { name: 'Full moon circuit' })).toBeVisible()
  await expect(page.getByTestId('verdict')).toHaveText('1 min 18 s over')
})

test('blocks and stations are added, moved, copied, removed, and reshaped', async ({ page, studio }) => {
  await page.goto(`${studio.address}/classes/new`)
  await page.getByRole('button', { name: 'Create and build' }).click()
  await addBlock(page, 'Talk')
  await addBlock(page, 'Rotation')
  const blocks = page.getByRole('region', { name: /^Block \d/ })
  await expect(blocks).toHaveCount(2)
  await chooseMove(page, page.getByRole('button', { name: 'Add a station to Rotation' }), 'Side lunge')

  // In a rotation a new station fills the window; a one-sided move gives each side half of it.
  const stations = page.getByRole('article', { name: /^Station \d/ })
  await expect(stations.nth(2)).toContainText('40 s half on each side')
  await page.getByRole('button', { name: 'Move station Side lunge up' }).click()
  await page.getByRole('button', { name: 'Move station Side lunge up' }).click()
  await expect(stations.first()).toContainText('Side lunge')
  await page.getByRole('button', { name: 'Duplicate station Side lunge' }).click()
  await expect(stations).toHaveCount(4)
  await page.getByRole('button', { name: 'Remove station Side lunge' }).first().click()
  await expect(stations).toHaveCount(3)

  await page.getByRole('button', { name: 'Move block Rotation up' }).click()
  await expect(blocks.first()).toHaveAccessibleName('Block 1: Rotation')
  await open(page, 'block', 'Rotation')
  await page.getByLabel('Format').selectOption('Straight sets')
  await expect(page.getByLabel('Rest between sets')).toHaveValue('90 s')
  await page.getByRole('button', { name: 'Duplicate block Talk' }).click()
  await page.getByRole('button', { name: 'Remove block Rotation' }).click()
  await expect(blocks).toHaveCount(2)
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z')
  await open(page, 'block', 'Rotation')
  await expect(page.getByLabel('Format')).toHaveValue('rotation')

  // A bell after three seconds is none: the field says what is possible, and the class stays as it is.
  const bell = page.getByLabel('Work interval')
  await bell.fill('3')
  await bell.press('Enter')
  await expect(page.getByText(/“3” .*5–1800 seconds/)).toBeVisible()
  await bell.fill('50')
  await bell.press('Enter')
  await expect(bell).toHaveValue('50 s')
  await expect(page.getByText(/“3” /)).toBeHidden()
})

test('the tape leads to its blocks, and lists them for a screen reader', async ({ page, demo }) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/brief`)
  await page.getByRole('button', { name: 'Go to Wind down, 5 minutes' }).click()
  await expect(page.getByRole('region', { name: 'Block 4: Wind down' })).toBeFocused()
  await expect(page.getByTestId('tape').getByRole('listitem')).toHaveText([
    'Welcome and walk-through: 3 minutes, starts at 0:00',
    'Warm the hinges: 2 minutes 35 seconds, starts at 3:00',
    'Circuit: 15 minutes 43 seconds, starts at 5:35',
    'Wind down: 5 minutes, starts at 21:18',
  ])
})

test('a tab that was lost before it could save gives back what was typed', async ({ page, demo }) => {
  const address = `${await classOf(demo, 'Full moon circuit')}/brief`
  await page.goto(address)
  await expect(page.getByLabel('Title')).toHaveValue('Full moon circuit')
  const port = await demo.kill()
  await page.getByLabel('Title').fill('Typed and lost')
  await expect(page.getByText('Not saved yet: Halterion is not answering')).toBeVisible()
  await page.goto('about:blank')
  await demo.start(port)
  await page.goto(address)
  await expect(page.getByLabel('Title')).toHaveValue('Typed and lost')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('people are added, changed, exported and erased', async ({ page, demo }) => {
  await page.goto(`${demo.address}/people`)
  await page.getByLabel('Name of a new person').fill('Zoe Fenn')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('link', { name: 'Zoe Fenn' }).click()
  // Two quick changes do not undo each other.
  await page.getByLabel('In squats').selectOption('the harder option')
  await page.getByLabel('In lunges').selectOption('the easier option')
  await pick(page, 'Add a care note', 'knee')
  await page.getByLabel('Side').selectOption('left')
  await page.getByLabel('Until').fill('2020-01-31')
  await expect(page.getByText('This expired on 31 January 2020 and is no longer used')).toBeVisible()
  await expect.poll(async () => (await fetch(`${demo.address}/api/people`)).text()).toContain('2020-01-31')
  await page.reload()
  await expect(page.getByLabel('In squats')).toHaveValue('harder')
  await expect(page.getByLabel('In lunges')).toHaveValue('easier')
  await expect(page.getByLabel('Side')).toHaveValue('left')
  const name = page.getByLabel('Name', { exact: true })
  await name.fill(' ')
  await name.blur()
  await expect(name).toHaveValue('Zoe Fenn')
  await page.goto(`${demo.address}/people`)
  await expect(page.getByRole('listitem').filter({ hasText: 'Zoe Fenn' })).toContainText('care note expired')
  await page.getByRole('link', { name: 'Greta Holm' }).click()
  const waiting = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Everything stored about them (data file)' }).click()
  const kept = JSON.parse(readFileSync(await (await waiting).path(), 'utf8')) as { classes: { note: string }[] }
  expect(kept.classes.map((c) => c.note).filter((note) => note !== '')).toEqual(['Liked the pad under the knee.'])
  await page.getByRole('button', { name: 'Erase…' }).click()
  await page.getByRole('button', { name: 'Erase Greta Holm' }).click()
  await expect(page.getByRole('list', { name: 'Everyone' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Greta Holm' })).toHaveCount(0)
  await page.goto(`${await classOf(demo, 'Six around the loft, first time')}/log`)
  await expect(page.getByText('12 of 14 came')).toHaveCount(0)
  await expect(page.getByText('11 of 13 came')).toBeVisible()
})

test('each class stands in the list once, with what it needs to be ready, and its dates beneath it', async ({
  page,
  demo,
}) => {
  await page.goto(demo.address)
  const line = classLines(page)
  await expect(line.first()).toContainText('Six around the loft')
  const titles = await line.evaluateAll((all) => all.map((one) => one.querySelector('a')!.textContent))
  expect(new Set(titles).size).toBe(titles.length)
  const moon = line.filter({ hasText: 'Full moon circuit' })
  await expect(moon.getByRole('link', { name: /^Not ready: \d+ things need fixing first/ })).toBeVisible()
  await expect(line.first().getByRole('link', { name: /^Ready\./ })).toBeVisible()

  // The dates that were held are one fold away; each leads to its log.
  const slow = line.filter({ hasText: 'Slow and strong' })
  await slow.getByText(/^\d+ dates/).click()
  const dates = slow.getByRole('list', { name: 'Dates of Slow and strong' }).getByRole('listitem')
  await expect(dates.filter({ hasText: 'people came' }).first()).toBeVisible()
  const held = await dates.count()
  await dates.last().getByRole('button', { name: 'Remove' }).click()
  await expect(dates).toHaveCount(held - 1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(dates).toHaveCount(held)
  await dates.last().getByRole('link').click()
  await expect(page).toHaveURL(/\/log$/)

  // Search is of titles, by any of their words, and says where nothing matches.
  await page.goto(demo.address)
  await page.getByLabel('Find a class').fill('moon full')
  await expect(line).toHaveCount(1)
  await page.getByLabel('Find a class').fill('nothing like it')
  await expect(page.getByText('No class title matches. Shorten the search.')).toBeVisible()
})
