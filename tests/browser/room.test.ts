import { expect, test, withGaps, pick } from './studio'

/** Fourteen people as somebody's spreadsheet has them; three rows are wrong. */
const table = (faulty: boolean) =>
  [
    'Who;Height;Weight;Care;Level',
    'Anka Reed;168;61,5;;main',
    `Bolt Farrow;${faulty ? '9 ft' : '6 ft 1'};180 lb;;harder`,
    `Cora Lund;1,58 m;;${faulty ? 'spleen' : 'knee left strict'};easier`,
    `${faulty ? '' : 'Dagny Moor'};171;;;main`,
    ...Array.from({ length: 10 }, (_, i) => `Person ${i + 1};${160 + i};;;main`),
  ].join('\n')

test('a roster is taken in, a gap closed, a shortage resolved, the floor laid out, and 17 come instead of 14', async ({
  page,
  demo,
}) => {
  test.setTimeout(400_000)
  await page.goto(`${demo.address}/people`)
  await page.getByRole('button', { name: 'Import or export people' }).click()
  await page.getByRole('menuitem', { name: 'Import a table…' }).click()
  const text = page.getByLabel('Or paste and edit it here')
  await text.fill(table(true))
  await page.getByLabel('Who', { exact: true }).selectOption('name')
  await expect(page.getByText('11 new, 0 updated, 0 unchanged, 3 to fix')).toBeVisible()
  await expect(page.getByRole('list', { name: 'Rows' }).getByRole('listitem').first()).toContainText('9 ft is outside')
  await expect(page.getByRole('button', { name: /^Import \d+ people/ })).toBeDisabled()
  await text.fill(table(false))
  await page.getByRole('button', { name: 'Import 14 people' }).click()
  await expect(page.getByText('Imported: 14 new, 0 updated, 0 unchanged.')).toBeVisible()
  await page.getByRole('main').getByRole('link', { name: 'Go to People' }).click()
  await expect(page.getByRole('link', { name: 'Cora Lund' })).toBeVisible()

  // The demo's own fourteen are expected; a strict knee has nothing at some stations.
  const address = await withGaps(demo)
  await page.goto(`${address}/room`)
  const grid = page.getByRole('table', { name: 'Who does which option, station by station' })
  await expect(grid.getByRole('row')).toHaveCount(15)
  const summary = page.getByText(/^14 people, 10 stations: 9 places without an option, not enough of 2 items/)
  await expect(summary).toBeVisible()
  await expect(grid.getByRole('button', { name: 'Greta Holm at Wide squat: no option, no option' })).toBeVisible()
  const gaps = page.getByRole('region', { name: 'No option' })
  await gaps
    .getByRole('listitem')
    .filter({ hasText: 'Greta Holm has no option at Wide squat' })
    .getByRole('button', { name: /^Add/ })
    .click()
  await expect(page.getByText(/^14 people, 10 stations: 8 places without an option/)).toBeVisible()
  await expect(grid.getByRole('button', { name: /^Greta Holm at Wide squat: .*, alternative$/ })).toBeVisible()

  // A click changes and pins; what goes against a limit wants a reason; whom it touches is said.
  await grid.getByRole('button', { name: /^Ada Quill at Wide squat/ }).click()
  const panel = page.getByRole('region', { name: 'Ada Quill at Wide squat' })
  await panel.getByRole('listitem').filter({ hasText: 'harder' }).getByRole('button').click()
  await expect(grid.getByRole('button', { name: /^Ada Quill at Wide squat: .*, harder, your choice$/ })).toBeVisible()
  await expect(page.getByText('Nobody else changes.')).toBeVisible()
  await panel.getByRole('button', { name: 'Back to the automatic choice' }).click()
  await expect(grid.getByRole('button', { name: /^Ada Quill at Wide squat: .*, main$/ })).toBeVisible()
  await grid.getByRole('button', { name: /^Dov Harrow at Hip hinge/ }).click()
  const against = page.getByRole('region', { name: 'Dov Harrow at Hip hinge' })
  await against.getByRole('listitem').filter({ hasText: 'main' }).getByRole('button', { name: 'Choose this' }).click()
  await against
    .getByLabel('This goes against their care note. Why is it right today?')
    .fill('His own wish, empty hands')
  await against.getByRole('button', { name: 'Choose it anyway' }).click()
  await expect(
    grid.getByRole('button', { name: /^Dov Harrow at Hip hinge: .*, against their care note, your choice$/ }),
  ).toContainText('against care note')

  // A shortage says its ways out, each tried before.
  await page.getByRole('tab', { name: 'Kit', exact: true }).click()
  const short = page.getByRole('listitem').filter({ hasText: 'Glute bridge needs 13 mats; you have 12' }).first()
  await short.getByRole('button', { name: 'Ways to fix it' }).click()
  const way = page.getByRole('listitem').filter({ hasText: /^Bring 1 stand-in/ })
  await expect(way).toContainText('then there is enough')
  await way.getByRole('button', { name: 'Use this fix' }).click()
  await expect(page.getByText('There is enough of everything.')).toBeVisible()
  await page.getByLabel('Mats: flat, none slides.').check()
  await page.reload()
  await expect(page.getByLabel('Mats: flat, none slides.')).toBeChecked()
  await expect(page.getByText(/stand-in; must not break or roll/)).toBeVisible()

  // The floor: keys move a station, undo brings it back; what does not fit says so.
  await page.getByRole('tab', { name: 'Groups and floor' }).click()
  await expect(page.getByText('Everything fits.')).toBeVisible()
  const station = page.getByRole('button', { name: /^Station 1, Bodyweight squat/ })
  const before = await station.getAttribute('aria-label')
  await station.focus()
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowDown')
  await expect(page.getByText(/Stations 1 and \d overlap|Station 1 is on top of/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Reset the layout' }).click()
  await expect(page.getByText('Everything fits.')).toBeVisible()
  await expect(station).toHaveAttribute('aria-label', before!)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText(/Stations 1 and \d overlap|Station 1 is on top of/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Next bell' }).click()
  await expect(page.getByText('Groups after bell 1')).toBeVisible()

  // Seventeen came: one field, most keep their group; who stays together is together.
  const groupOf = (name: string) =>
    page
      .getByRole('list', { name: /^Group \d/ })
      .filter({ hasText: name })
      .getAttribute('aria-label')
  const was = await groupOf('Kaja Brook')
  expect(await groupOf('Greta Holm')).toBe(await groupOf('Mira Stout'))
  await page.getByLabel('How many are here').fill('17')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^17 people/)).toBeVisible()
  expect(await groupOf('Kaja Brook')).toBe(was)
  await expect(page.getByText('without a name').first()).toBeVisible()
  const other = was === 'Group 1' ? 2 : 1
  await pick(page, 'Move Kaja Brook to another group', `to group ${other}`)
  await expect.poll(() => groupOf('Kaja Brook')).toBe(`Group ${other}`)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(() => groupOf('Kaja Brook')).toBe(was)
  if (other === 1) await pick(page, 'Move Kaja Brook to another group', 'to group 1')
  await expect.poll(() => groupOf('Kaja Brook')).toBe('Group 1')

  // The run sheet follows; nobody's care is on any sheet.
  await page.getByRole('link', { name: 'Cards' }).click()
  await expect(page.getByText(/starts here: .*Kaja Brook/)).toBeVisible()
  await expect(page.getByText(/put out: \d+ mats/).first()).toBeVisible()
  await expect(page.getByRole('main')).not.toContainText(/left knee|pregnan|balance|lower back/i)
})
