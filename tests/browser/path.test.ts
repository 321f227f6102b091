import { creepTo, expect, stopClock, tabTo, test } from './studio'

/** From nothing to a class that was led and logged, without a mouse. */
test('brief, build, fix an overrun, save, reload, lead, log, find it again, by keyboard alone', async ({
  page,
  studio,
}) => {
  test.setTimeout(400_000)
  await page.clock.install()
  await page.goto(studio.address)
  await expect(page.getByText('No classes yet')).toBeVisible()

  await page.goto(`${studio.address}/people`)
  for (const name of ['Ada', 'Bo', 'Cy']) {
    await page.getByLabel('Name of a new person').fill(name)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('link', { name, exact: true })).toBeVisible()
  }

  await tabTo(page, 'Classes')
  await page.keyboard.press('Enter')
  await tabTo(page, 'New class')
  await page.keyboard.press('Enter')
  await tabTo(page, 'Title')
  await page.keyboard.type('Tuesday legs')
  await tabTo(page, 'Room booked for')
  await page.keyboard.press('Control+A')
  await page.keyboard.type('10')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')

  // Three rounds of squats and split squats with long rests: too much for ten minutes.
  await expect(page.getByText('Nothing here yet')).toBeVisible()
  await tabTo(page, '+ Circuit')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('verdict')).toHaveText('5 min 35 s to spare')
  await tabTo(page, 'Add a station to Circuit')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog').getByLabel('Search')).toBeFocused()
  await page.keyboard.type('splitt squat')
  await expect(page.getByRole('listbox').getByRole('option').first()).toContainText('Split squat')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Target of Split squat')).toBeFocused()
  await expect(page.getByText('three counts down').first()).toBeVisible()
  await page.keyboard.press('Escape')
  for (const key of ['ArrowUp', 'ArrowUp', 'Enter']) await page.keyboard.press(key)
  await tabTo(page, 'Rest between rounds')
  await page.keyboard.type('200')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('verdict')).toHaveText('2 min 17 s over')
  await tabTo(page, /^Make it fit 10 min.*3 min 20 s → 2 min 10 s/)
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('verdict')).toHaveText(/to spare|on time/)
  const verdict = await page.getByTestId('verdict').textContent()

  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByTestId('verdict')).toHaveText(verdict!)

  await tabTo(page, 'Lead this class')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Get ready' })).toBeVisible()
  await stopClock(page)
  await page.keyboard.press('Space')
  await page.clock.runFor(12_500)
  await expect(page.getByRole('heading', { name: 'Bodyweight squat' })).toBeVisible()
  await expect(page.getByTestId('clock')).toHaveText('43')
  await expect(page.getByTestId('next')).toHaveText('Next: Split squat, 15 reps, left foot in front')

  // 10 + 45 + 15 s on comes the split squat: left, a switch, right.
  await page.clock.runFor(60_000)
  await expect(page.getByTestId('side')).toHaveText('left foot in front')
  await page.reload()
  await creepTo(page, page.getByTestId('side'))
  await expect(page.getByTestId('side')).toHaveText('left foot in front')
  await expect(page.getByTestId('clock')).toHaveText('21')
  // The first key rings again what rang before the reload; the page says so, or has it on already.
  await expect(page.getByText(/^(Sound is on|Tap anywhere to turn sound)/)).toBeVisible()
  await page.clock.runFor(25_000)
  await expect(page.getByTestId('side')).toHaveText('right foot in front')

  await page.keyboard.press('Space')
  await page.clock.runFor(60_000)
  await expect(page.getByTestId('side')).toHaveText('right foot in front')
  await page.keyboard.press('Space')
  await page.clock.fastForward(15 * 60_000)
  await page.clock.runFor(500)
  await expect(page.getByRole('heading', { name: 'Finished' })).toBeVisible()

  await tabTo(page, 'Write the log')
  await page.keyboard.press('Enter')
  await page.clock.resume()
  await expect(page.getByText('3 of 3 came')).toBeVisible()
  await tabTo(page, 'Bo came')
  await page.keyboard.press('Space')
  await tabTo(page, 'Cy, Split squat')
  await page.keyboard.type('easier')
  await tabTo(page, 'Note on Cy')
  await page.keyboard.type('knee')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Cy, Split squat', { exact: true })).toHaveValue(/o3$|^x/)
  await expect(page.getByLabel('Note on Cy')).toHaveValue('knee')

  await tabTo(page, 'Save the log')
  await page.keyboard.press('Enter')
  await page.getByText(/^1 date/).click()
  await expect(page.getByText('logged, 2 people came')).toBeVisible()
})
