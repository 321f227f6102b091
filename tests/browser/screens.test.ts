import type { Page } from '@playwright/test'
import { addBlock, classOf, expect, open, pick, test } from './studio'

/** Whether something is drawn when the page is printed. */
const printed = (page: Page, name: string) => page.getByRole('heading', { name, exact: true }).isVisible()

test('Ready is printed without care notes, and with them where they are asked for', async ({ page, demo }) => {
  await page.goto(`${await classOf(demo, 'Six around the loft')}/ready`)
  await expect(page.getByTestId('ready')).toHaveText(/^Ready\./)
  await expect(page.getByRole('heading', { name: 'Care notes and cautions' })).toBeVisible()
  await page.emulateMedia({ media: 'print' })
  expect(await printed(page, 'Setting up the room')).toBe(true)
  expect(await printed(page, 'Care notes and cautions')).toBe(false)
  await expect(page.getByText('Greta Holm', { exact: true })).toBeHidden()
  await page.emulateMedia({ media: 'screen' })
  await page.getByLabel('with care notes').check()
  await page.emulateMedia({ media: 'print' })
  expect(await printed(page, 'Care notes and cautions')).toBe(true)
})

test('cards are printed for the blocks that are chosen, on A4 and on Letter', async ({ page, demo }) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/cards`)
  await page.getByRole('tab', { name: 'Station cards' }).click()
  const cards = page.getByRole('article', { name: /^Card: / })
  await expect(cards).toHaveCount(8)
  await page.getByRole('group', { name: 'Cards for' }).getByLabel('Warm the hinges').uncheck()
  await expect(cards).toHaveCount(5)
  for (const format of ['A4', 'Letter']) {
    const pdf = (await page.pdf({ format, preferCSSPageSize: false })).toString('latin1')
    expect(pdf.match(/\/Type\s*\/Page\b/g), `${format}: a page a card`).toHaveLength(5)
  }
  await page.getByRole('group', { name: 'Cards for' }).getByLabel('Circuit').uncheck()
  await expect(page.getByText('No block is chosen.')).toBeVisible()
})

test('what is removed leaves its place with Undo, and nothing that can be removed comes under the pointer', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/classes/new`)
  await page.getByRole('button', { name: 'Create and build' }).click()
  await addBlock(page, 'Superset')
  await addBlock(page, 'Cool-down')
  const stations = page.getByRole('article', { name: /^Station \d/ })
  await expect(stations).toHaveCount(4)
  const remove = page.getByRole('button', { name: 'Remove station Bodyweight squat' })
  const place = (await remove.boundingBox())!
  await remove.click()
  await expect(stations).toHaveCount(3)
  const under = await page.evaluate(
    ([x, y]) => document.elementFromPoint(x!, y!)?.closest('button')?.getAttribute('aria-label') ?? '',
    [place.x + place.width / 2, place.y + place.height / 2],
  )
  expect(under).not.toMatch(/^Remove/)
  await page.getByText('Bodyweight squat removed.').getByRole('button', { name: 'Undo' }).click()
  await expect(stations).toHaveCount(4)
  // Two of one name: the second says it too, with an Undo of its own.
  await page.getByRole('button', { name: 'Duplicate station Hip hinge' }).click()
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Remove station Hip hinge' }).first().click()
  await page.getByText('Hip hinge removed.').getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('article', { name: /^Station \d: Hip hinge/ })).toHaveCount(1)
  await page.getByRole('button', { name: 'Remove block Superset' }).click()
  await expect(page.getByText('Superset removed.')).toBeVisible()
  // With the next change it is gone: Undo there would take back something else.
  await page.getByRole('button', { name: 'Duplicate block Cool-down' }).click()
  await expect(page.getByText('Superset removed.')).toHaveCount(0)
})

test('targets are taken as people type them', async ({ page, studio }) => {
  await page.goto(`${studio.address}/classes/new`)
  await page.getByRole('button', { name: 'Create and build' }).click()
  await addBlock(page, 'Superset')
  const card = await open(page, 'station', 'Hip hinge')
  const field = card.getByLabel('Target of Hip hinge')
  for (const [typed, kept] of [
    ['x20', '20'],
    ['8 hip hinges', '8'],
    ['20 reps', '20'],
  ] as const) {
    await field.fill(typed)
    await field.press('Enter')
    await expect(field).toHaveValue(kept)
  }
})

test('the settings are heard before they are used', async ({ page, studio }) => {
  await page.goto(`${studio.address}/settings`)
  await page.getByText(/^What you would hear/).click()
  const heard = page.locator('details', { hasText: 'What you would hear' }).getByRole('listitem')
  const foot = heard.filter({ hasText: /foot in front/ }).first()
  await expect(foot).toContainText(/left/i)
  await page.getByRole('group', { name: 'First side' }).getByLabel('right').check()
  await expect(foot).toContainText(/right/i)
  // The index leads to its part.
  await page.getByRole('navigation', { name: 'Parts of the settings' }).getByRole('link', { name: 'Your data' }).click()
  await expect(page.getByRole('heading', { name: 'Your data' })).toBeInViewport()
})

test('one choice sets all four families of a person, is saved where one sees it, and is undone', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/people`)
  await page.getByRole('link', { name: 'Ines Corvo' }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  const levels = ['squats', 'lunges', 'hinges', 'bridges'].map((of) => page.getByLabel(`In ${of}`))
  const before = await Promise.all(levels.map((level) => level.inputValue()))
  await pick(page, 'The same in all families', 'the harder option')
  for (const level of levels) await expect(level).toHaveValue('harder')
  await page.getByRole('button', { name: 'Undo' }).click()
  for (const [i, level] of levels.entries()) await expect(level).toHaveValue(before[i]!)
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('moves stand under their family, arrows go from line to line, and kit is found by its names', async ({
  page,
  demo,
}) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/build`)
  await page.getByRole('button', { name: 'Add a station to Circuit' }).click()
  const found = page.getByRole('listbox', { name: 'Moves found' })
  const options = found.getByRole('option')
  await expect(options.first()).toBeVisible()
  await expect(found.getByText('Squat', { exact: true })).toBeVisible()
  const box = async (at: number) => (await options.nth(at).boundingBox())!
  await page.keyboard.press('ArrowDown')
  const chosen = found.locator('[role=option][aria-selected=true]')
  const [first, below] = [await box(0), (await chosen.boundingBox())!]
  expect(below.y).toBeGreaterThan(first.y)
  expect(Math.abs(below.x - first.x)).toBeLessThan(2)
  for (const word of ['dumbbells', 'hand weights', 'kettlebell', 'resistance band', 'chair', 'wall', 'mat']) {
    await page.getByLabel('Search').fill(word)
    await expect(options.first(), word).toContainText(/with /)
  }
  await expect(found.getByText('Squat', { exact: true })).toHaveCount(0)
})

test('kit stands in one table, and on a phone every field says what it is', async ({ page, demo }) => {
  await page.goto(`${demo.address}/rooms`)
  const kit = page.getByRole('table', { name: /^Kit list of/ })
  await expect(kit.getByRole('columnheader')).toHaveText([
    'Kit',
    'How many',
    'What each is',
    'Condition',
    'Kept where',
    'Stand-in',
  ])
  const mats = kit.getByLabel('How many, mats')
  await mats.fill('13')
  await mats.press('Enter')
  await page.reload()
  await expect(mats).toHaveValue('13')
  await page.setViewportSize({ width: 390, height: 844 })
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  expect(
    await kit
      .locator('td[data-head="Condition"]')
      .first()
      .evaluate((cell) => getComputedStyle(cell, '::before').content),
  ).toBe('"Condition"')
})

test('the wall shows those who arrive what they will do and when it starts', async ({ page, demo }) => {
  const list = (await (await fetch(`${demo.address}/api/sessions`)).json()) as {
    sessions: { id: string; title: string }[]
  }
  const session = list.sessions.find((one) => one.title === 'Six around the loft')!.id
  await page.setViewportSize({ width: 1920, height: 1080 })
  await page.goto(`${demo.address}/wall/${session}`)
  await expect(page.getByText('starts at 18:00')).toBeVisible()
  const moves = page.getByRole('region', { name: 'All stations' }).getByRole('listitem')
  await expect(moves.filter({ hasText: 'Skater step' })).toBeVisible()
  const names = await moves.allTextContents()
  expect(new Set(names).size).toBe(names.length)
  // Nothing lies over what comes next.
  const next = (await page.getByTestId('next').boundingBox())!
  for (const move of await moves.all()) {
    const box = (await move.boundingBox())!
    expect(box.y + box.height).toBeLessThanOrEqual(next.y + 2)
  }
})

test('everything that can be printed fits its page, on A4 and on Letter', async ({ page, demo }) => {
  const address = await classOf(demo, 'Slow and strong')
  const sizes = { A4: [794, 1123], Letter: [816, 1056] } as const
  const wide = async (name: string) => {
    await page.emulateMedia({ media: 'print' })
    for (const [format, [width, height]] of Object.entries(sizes)) {
      // Margins of half an inch at least are the printer's.
      await page.setViewportSize({ width: width - 96, height })
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth),
        `${name} on ${format}`,
      ).toBeLessThanOrEqual(width - 96)
    }
    await page.emulateMedia({ media: 'screen' })
    await page.setViewportSize({ width: 1280, height: 800 })
  }
  await page.goto(`${address}/cards`)
  for (const name of ['Run sheet', 'Walk-through', 'Take-home sheet', 'Send-ahead sheet']) {
    await page.getByRole('tab', { name }).click()
    await expect(page.getByRole('article').first()).toBeVisible()
    await wide(name)
  }
  await page.goto(`${address}/ready`)
  await expect(page.getByTestId('ready')).toBeVisible()
  await wide('Ready')
  // The grid of who does what is printed whole, whatever was scrolled on the screen.
  await page.goto(`${address}/room`)
  const last = page.getByRole('rowheader').last()
  await expect(last).toBeVisible()
  await page.emulateMedia({ media: 'print' })
  const grid = page.getByRole('table').locator('..')
  expect(await grid.evaluate((box) => box.scrollHeight - box.clientHeight)).toBeLessThanOrEqual(1)
  await page.emulateMedia({ media: 'screen' })
  await page.goto(`${address}/room?view=stations`)
  await expect(page.getByRole('heading', { name: /^1\. / }).first()).toBeVisible()
  await wide('Station by station')
})
