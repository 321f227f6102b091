import type { Page } from '@playwright/test'
import { addressOf, classOf, expect, test } from './studio'

/** The next answers to a write are lost on their way: the server has done it, the page does not know. */
async function loseAnswers(page: Page, address: string, count = 1) {
  let left = count
  await page.route(address, async (route) => {
    if (route.request().method() === 'GET' || left === 0) return route.fallback()
    left--
    await route.fetch()
    await route.abort('connectionreset')
  })
}

test.describe('a reply that is lost', () => {
  test('a log is saved all the same, once, and stays saved after a reload', async ({ page, sharedDemo }) => {
    const address = `${await classOf(sharedDemo, 'Six around the loft, first time')}/log`
    await page.goto(address)
    const note = page.getByLabel('Notes for next time')
    await loseAnswers(page, '**/log', 2)
    await note.fill('Chairs were short by two.')
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
    await note.fill('Chairs were short by two; four next time.')
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
    await page.reload()
    await expect(note).toHaveValue('Chairs were short by two; four next time.')
    await expect(page.getByText('Not saved')).toHaveCount(0)
  })

  test('a reload in that moment sends the same change again', async ({ page, sharedDemo }) => {
    const address = `${await classOf(sharedDemo, 'Six around the loft, first time')}/log`
    await page.goto(address)
    const note = page.getByLabel('Notes for next time')
    await page.route('**/log', async (route) => {
      if (route.request().method() !== 'PUT') return route.fallback()
      await route.fetch()
      await route.abort('connectionreset')
    })
    await note.fill('The door was locked.')
    await expect(page.getByText('Not saved yet: Halterion is not answering')).toBeVisible()
    await page.unroute('**/log')
    await page.reload()
    await expect(note).toHaveValue('The door was locked.')
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
    await expect(page.getByRole('dialog')).toHaveCount(0)
  })

  test('what is added is added once', async ({ page, sharedDemo }) => {
    await page.goto(`${sharedDemo.address}/people`)
    await loseAnswers(page, '**/api/people')
    await loseAnswers(page, '**/api/circles')
    await page.getByLabel('Name of a new person').fill('Once Only')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByRole('link', { name: 'Once Only' })).toBeVisible()
    await page.getByLabel('Name of a new group').fill('Once a week')
    await page.getByRole('button', { name: 'Add a group' }).click()
    await expect(page.getByRole('button', { name: 'Once a week' })).toBeVisible()
    const people = (await (await fetch(`${sharedDemo.address}/api/people`)).json()) as { name: string }[]
    expect(people.filter((p) => p.name === 'Once Only')).toHaveLength(1)
    const circles = (await (await fetch(`${sharedDemo.address}/api/circles`)).json()) as { name: string }[]
    expect(circles.filter((c) => c.name === 'Once a week')).toHaveLength(1)
  })
})

test('with every third answer lost on its way, all that is typed on any screen is saved, and saved once', async ({
  page,
  demo,
}) => {
  let writes = 0
  await page.route('**/api/**', async (route) => {
    if (route.request().method() === 'GET' || ++writes % 3 !== 0) return route.continue()
    await route.fetch()
    await route.abort('connectionreset')
  })
  const get = async <T>(path: string) => (await (await fetch(demo.address + path)).json()) as T
  const saved = async () => {
    // Nothing waits any more, and nobody is asked.
    await expect(page.getByText(/not saved yet|Saving/i)).toHaveCount(0)
    await expect(page.getByRole('dialog')).toHaveCount(0)
  }

  await page.goto(`${demo.address}/people`)
  for (const name of ['Lost One', 'Lost Two', 'Lost Three', 'Lost Four']) {
    await page.getByLabel('Name of a new person').fill(name)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('link', { name, exact: true })).toBeVisible()
  }
  await page.getByRole('link', { name: 'Lost Two' }).click()
  for (const note of ['first', 'second', 'third']) {
    await fillAndLeave(page, 'Note', note)
    await saved()
  }
  await page.goto(`${demo.address}/settings`)
  for (const choice of ['pounds', '6:30 pm', 'dark', 'light']) await page.getByLabel(choice, { exact: true }).check()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.goto(`${demo.address}/rooms`)
  for (const name of ['Lost loft', 'Found loft']) await fillAndLeave(page, 'Name', name)
  await saved()
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/brief`)
  for (const title of ['Half moon', 'New moon', 'Blue moon']) {
    await page.getByLabel('Title').fill(title)
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  }
  await page.goto(`${demo.address}/moves/new`)
  await page.getByLabel('Name').fill('Moon squat')
  await page.getByRole('button', { name: 'Save move' }).click()
  await expect(page).toHaveURL(/my-moon-squat$/)

  const people = await get<{ name: string; note?: string }[]>('/api/people')
  expect(people.filter((p) => p.name.startsWith('Lost')).map((p) => p.name)).toHaveLength(4)
  expect(people.find((p) => p.name === 'Lost Two')?.note).toBe('third')
  const { preferences } = await get<{ preferences: object }>('/api/settings')
  expect(preferences).toMatchObject({ clock: 'h12', scheme: 'light' })
  expect((await get<{ name: string }[]>('/api/rooms')).map((r) => r.name)).toContain('Found loft')
  expect((await get<{ classes: { title: string }[] }>('/api/classes')).classes.map((c) => c.title)).toContain(
    'Blue moon',
  )
  expect((await get<{ moves: { id: string }[] }>('/api/own-moves')).moves.map((m) => m.id)).toEqual(['my-moon-squat'])
  expect(writes).toBeGreaterThan(20)
})

/** Everything that can be typed in two tabs: where, what is typed, and how it is read back. */
const documents: {
  name: string
  at: (address: string, person: string, log: string) => string
  field: (page: Page) => ReturnType<Page['locator']>
  type: (page: Page, text: string) => Promise<void>
  texts: [string, string]
}[] = [
  {
    name: 'a person',
    at: (address, person) => `${address}/people/${person}`,
    field: (page) => page.getByLabel('Note', { exact: true }),
    type: (page, text) => fillAndLeave(page, 'Note', text),
    texts: ['knee operated in May', 'knee fine'],
  },
  {
    name: 'a room',
    at: (address) => `${address}/rooms`,
    field: (page) => page.getByLabel('Name', { exact: true }).first(),
    type: (page, text) => fillAndLeave(page, 'Name', text),
    texts: ['The upper loft', 'The lower loft'],
  },
  {
    name: 'the settings',
    at: (address) => `${address}/settings`,
    field: (page) => page.getByLabel('Heights of your boxes, benches and steps, in cm'),
    type: async (page, text) => {
      await page.getByLabel('Heights of your boxes, benches and steps, in cm').fill(text)
    },
    texts: ['20, 40', '35, 45'],
  },
  {
    name: 'a log',
    at: (_, __, log) => log,
    field: (page) => page.getByLabel('Notes for next time'),
    type: async (page, text) => {
      await page.getByLabel('Notes for next time').fill(text)
    },
    texts: ['Music was too loud.', 'Music was fine.'],
  },
]

async function fillAndLeave(page: Page, label: string, text: string) {
  const field = page.getByLabel(label, { exact: true }).first()
  await field.fill(text)
  await field.blur()
}

for (const { name, at, field, type, texts } of documents) {
  test(`two tabs on ${name}: nothing is overwritten unseen, and each choice does what it says`, async ({
    page,
    context,
    sharedDemo,
  }) => {
    const people = (await (await fetch(`${sharedDemo.address}/api/people`)).json()) as { id: string }[]
    const log = `${await classOf(sharedDemo, 'Six around the loft, first time')}/log`
    const address = at(sharedDemo.address, people[0]!.id, log)
    const other = await context.newPage()
    await Promise.all([page.goto(address), other.goto(address)])
    await Promise.all([expect(field(page)).toBeVisible(), expect(field(other)).toBeVisible()])
    const saved = addressOf(other, 'PUT')
    await type(other, texts[0])
    await saved
    await type(page, texts[1])
    const dialog = page.getByRole('dialog')
    await expect(dialog).toContainText('was changed in another tab')
    await dialog.getByRole('button', { name: 'See both side by side' }).click()
    await expect(dialog).toContainText(texts[0].split(',')[0]!)
    await expect(dialog).toContainText(texts[1].split(',')[0]!)
    await dialog.getByRole('button', { name: 'Keep mine' }).click()
    await expect(dialog).toHaveCount(0)
    await expect(async () => {
      await page.reload()
      await expect(field(page)).toHaveValue(texts[1], { timeout: 1000 })
    }).toPass()

    // Now the other tab is behind; it takes what stands there.
    await type(other, `${texts[0]} `.trim() === texts[0] && name === 'the settings' ? '15, 25' : `${texts[0]}!`)
    const choice = other.getByRole('dialog')
    await choice.getByRole('button', { name: 'Use the other one' }).click()
    await expect(choice).toHaveCount(0)
    await other.reload()
    await expect(field(other)).toHaveValue(texts[1])
  })
}

test('ticks made in two tabs are all kept, without a question', async ({ page, context, sharedDemo }) => {
  const address = `${await classOf(sharedDemo, 'Six around the loft')}/ready`
  const other = await context.newPage()
  await Promise.all([page.goto(address), other.goto(address)])
  const boxes = (of: Page) => of.getByRole('group').getByRole('checkbox')
  await expect(boxes(page).nth(1)).toBeVisible()
  await expect(boxes(other).nth(1)).toBeVisible()
  await Promise.all([boxes(page).nth(0).check(), boxes(other).nth(1).check()])
  await expect(async () => {
    await page.reload()
    await expect(boxes(page).nth(0)).toBeChecked({ timeout: 1000 })
    await expect(boxes(page).nth(1)).toBeChecked({ timeout: 1000 })
  }).toPass()
  await expect(page.getByRole('dialog')).toHaveCount(0)
})

test('a class kept over the other tab’s: undo brings the other one back', async ({ page, context, demo }) => {
  const address = `${await classOf(demo, 'Full moon circuit')}/brief`
  const other = await context.newPage()
  await Promise.all([page.goto(address), other.goto(address)])
  await expect(page.getByLabel('Title')).toBeVisible()
  await expect(other.getByLabel('Title')).toBeVisible()
  await other.getByLabel('Title').fill('Theirs')
  await expect(other.getByText('Saved', { exact: true })).toBeVisible()
  await page.getByLabel('Title').fill('Mine')
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'See both side by side' }).click()
  await expect(dialog.getByRole('listitem').first()).toContainText('Mine')
  await dialog.getByRole('button', { name: 'Keep mine' }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByLabel('Title')).toHaveValue('Theirs')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.keyboard.press('Control+y')
  await expect(page.getByLabel('Title')).toHaveValue('Mine')
})

test('two tabs on a move of one’s own: the same three choices, and the form shows what was taken', async ({
  page,
  context,
  shared,
}) => {
  await page.goto(`${shared.address}/moves/new`)
  await page.getByLabel('Name').fill('Loft squat')
  await page.getByRole('button', { name: 'Save move' }).click()
  await expect(page.getByRole('heading', { name: 'Loft squat' })).toBeVisible()
  const address = `${shared.address}/moves/my-loft-squat/edit`
  const other = await context.newPage()
  await Promise.all([page.goto(address), other.goto(address)])
  const setUp = (of: Page) => of.getByLabel('Set-up')
  await setUp(other).fill('Feet wide.')
  await setUp(page).fill('Feet narrow.')
  await other.getByRole('button', { name: 'Save move' }).click()
  await expect(other).toHaveURL(/my-loft-squat$/)

  await page.getByRole('button', { name: 'Save move' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('was changed in another tab')
  await dialog.getByRole('button', { name: 'See both side by side' }).click()
  await expect(dialog.getByRole('row', { name: 'Set-up Feet narrow. Feet wide.' })).toBeVisible()
  await dialog.getByRole('button', { name: 'Use the other one' }).click()
  await expect(setUp(page)).toHaveValue('Feet wide.')
  await setUp(page).fill('Feet as the hips are.')

  await other.goto(address)
  await setUp(other).fill('Feet anyhow.')
  await page.getByRole('button', { name: 'Save move' }).click()
  await expect(page).toHaveURL(/my-loft-squat$/)
  await other.getByRole('button', { name: 'Save move' }).click()
  await other.getByRole('dialog').getByRole('button', { name: 'Keep mine' }).click()
  await expect(other).toHaveURL(/my-loft-squat$/)
  const { moves } = (await (await fetch(`${shared.address}/api/own-moves`)).json()) as { moves: { setUp: string }[] }
  expect(moves.map((m) => m.setUp)).toEqual(['Feet anyhow.'])

  // A second new move of the same name stands beside the first.
  await page.goto(`${shared.address}/moves/new`)
  await page.getByLabel('Name').fill('Loft squat')
  await page.getByRole('button', { name: 'Save move' }).click()
  await expect(page).toHaveURL(/my-loft-squat-2$/)
})

test('a group changed in two tabs: nothing is overwritten unseen', async ({ page, context, sharedDemo }) => {
  const made = await fetch(`${sharedDemo.address}/api/circles`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Early birds', together: false, people: [] }),
  })
  expect(made.ok).toBe(true)
  const other = await context.newPage()
  await Promise.all([page.goto(`${sharedDemo.address}/people`), other.goto(`${sharedDemo.address}/people`)])
  for (const tab of [page, other]) await tab.getByRole('button', { name: 'Early birds' }).click()
  const boxes = (of: Page) => of.getByRole('group', { name: 'Who belongs to Early birds' }).getByRole('checkbox')
  const saved = addressOf(other, 'PUT')
  await boxes(other).nth(0).check()
  await saved
  await boxes(page).nth(1).check()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Use the other one' }).click()
  await expect(boxes(page).nth(0)).toBeChecked()
  await expect(boxes(page).nth(1)).not.toBeChecked()
  // From what stands there now a further change goes without a question.
  await boxes(page).nth(2).check()
  await expect(async () => {
    const circles = (await (await fetch(`${sharedDemo.address}/api/circles`)).json()) as {
      name: string
      people: string[]
    }[]
    expect(circles.find((c) => c.name === 'Early birds')?.people).toHaveLength(2)
  }).toPass()
})
