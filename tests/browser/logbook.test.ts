import { readFileSync } from 'node:fs'
import { expect, test } from './studio'

interface Line {
  id: string
  classId: string
  title: string
}

async function sessionOf(address: string, title: string, held: boolean): Promise<Line> {
  const list = (await (await fetch(`${address}/api/sessions?held=${held}&take=50`)).json()) as { sessions: Line[] }
  return list.sessions.find((s) => s.title === title)!
}

const at = (line: Line, screen: string) => `/classes/${line.classId}/on/${line.id}/${screen}`

test('a class is logged by keys alone: arrows move, letters choose, numbers type', async ({ page, demo }) => {
  const line = await sessionOf(demo.address, 'Slow and strong', false)
  await page.goto(demo.address + at(line, 'log'))
  const option = page.getByLabel('Ada Quill, Bodyweight squat', { exact: true })
  const sets = page.getByLabel('Ada Quill, Bodyweight squat, sets')
  await expect(sets).toHaveValue('10 10 10')
  await option.focus()
  await page.keyboard.type('8 8 7')
  await expect(sets).toHaveValue('8 8 7')
  await page.keyboard.press('ArrowRight')
  await expect(page.getByLabel('Ada Quill, Hip hinge, sets')).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByLabel('Bruno Vell, Hip hinge, sets')).toBeFocused()
  await page.keyboard.type('12 12 11, 16 kg')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Carla Ness, Hip hinge, sets')).toBeFocused()
  await page.keyboard.press('Shift+Enter')

  // Sides, an effort, and what cannot be read.
  const sided = page.getByLabel('Bruno Vell, Split squat, sets')
  await sided.fill('8/6 8/6 7/5')
  const effort = page.getByLabel('Effort of Bruno Vell')
  await effort.fill('11')
  await expect(effort).toHaveAttribute('aria-invalid', 'true')
  await effort.fill('7,5')
  await sets.fill('ten')
  await expect(sets).toHaveAttribute('aria-invalid', 'true')
  await sets.fill('8 8 7')
  // An option changes the sets that nobody has typed, and leaves the others.
  await page.getByLabel('Dov Harrow, Bodyweight squat', { exact: true }).selectOption({ label: 'left out' })
  await option.focus()
  await page.keyboard.type('easier')
  await expect(option.locator('option:checked')).toHaveText('easier')
  await expect(sets).toHaveValue('8 8 7')

  await page.getByLabel('More on Ada Quill').click()
  await page.getByLabel('Pain of Ada Quill at Bodyweight squat', { exact: true }).check()
  await page.getByLabel('Pain of Ada Quill at Bodyweight squat: where').fill('knee')
  await page.getByLabel('Carried over into the next class').fill('The bridges we left out.')
  await page.getByLabel('Found hardest').selectOption({ label: 'Split squat' })
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(sets).toHaveValue('8 8 7')
  await expect(page.getByLabel('Bruno Vell, Hip hinge, sets')).toHaveValue('12 12 11, 16 kg')
  await expect(sided).toHaveValue('8/6 8/6 7/5')
  await expect(effort).toHaveValue('7.5')
  await page.getByLabel('More on Ada Quill').click()
  await expect(page.getByLabel('Pain of Ada Quill at Bodyweight squat: where')).toHaveValue('knee')
  await expect(page.getByLabel('Found hardest').locator('option:checked')).toHaveText('Split squat')
})

test('suggestions are taken into next week, one refused, and taken back', async ({ page, demo }) => {
  const line = await sessionOf(demo.address, 'Slow and strong', false)
  await page.goto(demo.address + at(line, 'room'))
  const list = page.getByRole('region', { name: 'Suggested from the logs' })
  const lines = list.getByRole('listitem')
  await expect(lines.filter({ hasText: 'Leo Pike' }).first()).toContainText('weeks away')
  const before = await lines.count()
  expect(before).toBeGreaterThan(5)
  await expect(list).not.toContainText('As last time')
  const refused = lines.filter({ hasText: 'Leo Pike, Glute bridge' })
  await refused.getByRole('button').click()
  await list.getByRole('button', { name: `Take ${before - 1}` }).click()
  await expect(lines).toHaveCount(1)
  await expect(page.getByRole('button', { name: /^Leo Pike at Bodyweight squat: .* yours/ })).toBeVisible()
  await list.getByRole('button', { name: 'Undo' }).click()
  await expect(lines).toHaveCount(before)
  await expect(page.getByRole('button', { name: /^Leo Pike at Bodyweight squat: .* yours/ })).toHaveCount(0)
})

test('a person has a history, what comes next, and a sheet without what hurts', async ({ page, demo }) => {
  await page.goto(`${demo.address}/people`)
  await page.getByRole('link', { name: 'Dov Harrow' }).click()
  await expect(page.getByRole('list', { name: 'Load by week' }).getByRole('listitem')).toHaveCount(8)
  const squat = page.getByRole('article').filter({ hasText: 'Bodyweight squat' })
  // A class with the same move lay between without pain.
  await expect(squat).toContainText('It hurt last time')
  await page.getByRole('link', { name: 'A sheet to hand out' }).click()
  await expect(page.getByRole('heading', { name: 'Dov Harrow' })).toBeVisible()
  await expect(page.getByRole('row', { name: /Split squat/ })).toBeVisible()
  await expect(page.getByRole('main')).not.toContainText(/pain|lower back|Bodyweight squat/i)
})

test('a series of six weeks: laid out, put into the calendar, one changed by hand and followed', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/weeks`)
  await expect(page.getByRole('region', { name: 'Calendar' })).toContainText('Slow and strong')
  await page.getByRole('button', { name: 'New series' }).click()
  await page.getByLabel('Name').fill('Spring')
  await page.getByLabel('First day').fill('2030-03-04')
  await page.getByLabel('Class A begins as').selectOption({ label: 'Slow and strong' })
  await page.getByRole('button', { name: 'Lay it out' }).click()
  const weeks = page
    .getByRole('region', { name: 'Week by week' })
    .getByRole('listitem')
    .filter({ hasText: /^Week \d/ })
  await expect(weeks).toHaveCount(6)
  await expect(weeks.nth(3)).toContainText('light')
  await page.getByRole('button', { name: 'Put 6 classes into the calendar' }).click()
  await expect(page.getByText('6 put into the calendar')).toBeVisible()
  await expect(page.getByRole('button', { name: 'All are up to date' })).toBeDisabled()

  // The second week by hand, from outside as from another screen.
  const url = await weeks.nth(1).getByRole('link', { name: 'Open it' }).getAttribute('href')
  const id = url!.split('/')[2]!
  const stands = (await (await fetch(`${demo.address}/api/classes/${id}`)).json()) as {
    version: number
    plan: Record<string, unknown>
  }
  const plan = JSON.parse(JSON.stringify(stands.plan)) as {
    blocks: { phase: string; stations: { dose: { amount: number }[] }[] }[]
  }
  plan.blocks.find((b) => b.phase === 'main')!.stations[0]!.dose[0]!.amount = 16
  const saved = await fetch(`${demo.address}/api/classes/${id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'If-Match': `"${stands.version}"` },
    body: JSON.stringify({ plan }),
  })
  expect(saved.status).toBe(200)
  await page.reload()
  await expect(weeks.nth(1)).toContainText('Changed by hand')
  await weeks.nth(1).getByRole('checkbox').check()
  await page.getByRole('button', { name: /^Bring \d up to date$/ }).click()
  await expect(page.getByText(/brought up to date/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'All are up to date' })).toBeDisabled()
  await expect(weeks.nth(4)).toContainText('16 → 17')
})

test('everything goes out, something is lost, and everything comes in again', async ({ page, demo }, info) => {
  await page.goto(`${demo.address}/settings`)
  const data = page.getByRole('region', { name: 'Your data' })
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    data.getByRole('link', { name: 'Take everything along' }).click(),
  ])
  const path = info.outputPath('everything.zip')
  await file.saveAs(path)
  expect(readFileSync(path).subarray(0, 2).toString()).toBe('PK')
  const line = await sessionOf(demo.address, 'Slow and strong', false)
  expect((await fetch(`${demo.address}/api/classes/${line.classId}`, { method: 'DELETE' })).status).toBe(204)
  expect(await sessionOf(demo.address, 'Slow and strong', false)).toBeUndefined()

  await data
    .locator('input[type=file]')
    .setInputFiles({ name: 'no.zip', mimeType: 'application/zip', buffer: Buffer.from('no') })
  await data.getByRole('button', { name: 'Bring it in' }).click()
  await expect(data.getByRole('alert')).toContainText('Nothing here was changed')
  await data.getByRole('button', { name: 'Leave it' }).click()
  await data.locator('input[type=file]').setInputFiles(path)
  await data.getByRole('button', { name: 'Bring it in' }).click()
  await expect(data.getByText(/Everything was brought in/)).toBeVisible()
  expect((await sessionOf(demo.address, 'Slow and strong', false)).id).toBe(line.id)
})

test('a series that was removed comes back, also when the server was away for the first try', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/weeks`)
  const list = page.getByRole('region', { name: 'Series' })
  const series = list.getByRole('listitem').getByRole('link')
  await expect(series).toHaveCount(2)
  const name = (await series.first().textContent())!
  await series.first().click()
  await page.getByRole('button', { name: 'Remove the series' }).click()
  await expect(list).toContainText(`“${name}” was removed. Its classes stay.`)
  await expect(series).toHaveCount(1)
  const port = await demo.kill()
  await list.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'The series could not be brought back.' })).toBeVisible()
  await demo.start(port)
  await list.getByRole('button', { name: 'Undo' }).click()
  await expect(series).toHaveCount(2)
  await expect(list.getByRole('link', { name, exact: true })).toBeVisible()
  await expect(list.getByRole('button', { name: 'Undo' })).toHaveCount(0)
  await page.reload()
  await expect(series).toHaveCount(2)
})

test('the pace one really has is chosen, kept and told; a class says how its dates went', async ({ page, demo }) => {
  await page.goto(`${demo.address}/settings`)
  await page.getByLabel(/^as you really are/).check()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  const kept = (await (await fetch(`${demo.address}/api/settings/preferences`)).json()) as { pace: string }
  expect(kept.pace).toBe('real')
  await page.reload()
  await expect(page.getByLabel(/^as you really are/)).toBeChecked()
  // It says what was learnt, or from when on there is something to tell.
  await expect(page.getByText(/^(Once you have led three classes|As you really are, learnt from)/)).toBeVisible()

  await page.goto(demo.address + at(await sessionOf(demo.address, 'Six around the loft, first time', true), 'brief'))
  const dates = page.getByRole('region', { name: 'Class dates' })
  await expect(dates).toContainText('led: 12 came')
  await expect(dates).not.toContainText('not logged yet')
})
