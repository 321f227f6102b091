import type { Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { addBlock, chooseMove, classOf, enter, expect, open, test } from './studio'

/** The text of each page of a PDF, read by pdf.js. */
async function pagesOf(page: Page, format: string): Promise<string[]> {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs')
  const pdf = await getDocument({ data: new Uint8Array(await page.pdf({ format })), verbosity: 0 }).promise
  const texts: string[] = []
  for (let n = 1; n <= pdf.numPages; n++) {
    const { items } = await (await pdf.getPage(n)).getTextContent()
    texts.push(items.map((item) => ('str' in item ? item.str : '')).join(' '))
  }
  return texts
}

test('a move is found by an alias with a typing mistake, and shows itself and what it asks', async ({
  page,
  sharedDemo,
}) => {
  await page.goto(`${sharedDemo.address}/moves`)
  await expect(page.getByText('172 moves', { exact: true })).toBeVisible()
  await page.getByLabel('Search').fill('bulgarain')
  await expect(page.getByText('1 of 172 moves')).toBeVisible()
  await page.getByRole('link', { name: 'Split squat, rear foot raised' }).click()
  await expect(page.getByRole('heading', { name: 'Split squat, rear foot raised' })).toBeVisible()
  const options = page.getByRole('list', { name: 'Harder, main, easier and alternative' }).getByRole('listitem')
  expect(await options.count()).toBeGreaterThanOrEqual(3)
  await expect(options.nth(1).getByRole('img')).toHaveAttribute(
    'aria-label',
    /low, thighs level, left foot raised behind/,
  )
  await expect(options.nth(1).getByLabel('Demands, 0 to 5')).toContainText('balance')

  // It moves only when it is asked to, at the tempo of the move.
  const drawn = () => options.nth(1).getByRole('img').innerHTML()
  const still = await drawn()
  await page.waitForTimeout(300)
  expect(await drawn()).toBe(still)
  await page.getByRole('button', { name: 'Show moving' }).click()
  const begun = await drawn()
  await expect.poll(drawn).not.toBe(begun)

  // Held still again it is turned, and the sequence of a longer move is a strip.
  await page.getByRole('button', { name: 'Stop moving' }).click()
  const side = await drawn()
  await page.getByLabel('Seen from').selectOption('front')
  await expect.poll(drawn).not.toBe(side)
  const svg = await page.request.get(`${sharedDemo.address}/api/moves/one-half-squat/figure.svg?view=side`)
  expect((await svg.text()).match(/<g /g)).toHaveLength(3)
})

test('every sieve of the library lets through what fits and nothing else', async ({ page, sharedDemo }) => {
  const card = (id: string) => page.locator(`a[href="/moves/${id}"]`)
  const sieves: [string, string, string, string][] = [
    ['Family', 'hinge', 'romanian-deadlift', 'squat'],
    ['Position', 'sideLying', 'clam', 'glute-bridge'],
    ['Position', 'prone', 'prone-back-lift', 'plank'],
    ['Position', 'seated', 'high-low-twist', 'standing-chop'],
    ['Direction', 'frontal', 'side-lunge', 'squat'],
    ['Kit', 'kettlebell', 'kettlebell-swing', 'squat'],
    ['Kit', 'none', 'squat', 'kettlebell-swing'],
    ['Kit', 'chair', 'chair-squat', 'squat'],
    ['Kit', 'dumbbell', 'press-out-squat', 'squat'],
    ['Suitable for', 'knee', 'hip-hinge', 'seated-figure-four'],
    ['Suitable for', 'lowerBack', 'glute-bridge', 'leg-lower'],
    ['Suitable for', 'balance', 'split-squat', 'side-bound'],
    ['Suitable for', 'pregnancy', 'hip-thrust', 'glute-bridge'],
    ['Suitable for', 'ankle', 'hip-thrust', 'single-calf-raise'],
    ['Suitable for', 'wrist', 'plank', 'push-up'],
    ['Suitable for', 'hip', 'split-squat', 'cossack-squat'],
    ['Suitable for', 'neck', 'glute-bridge', 'opposite-toe-touch'],
    ['Suitable for', 'shoulder', 'squat', 'pigeon-turn'],
    ['Suitable for', 'pelvicFloor', 'glute-bridge', 'kettlebell-swing'],
  ]
  await page.goto(`${sharedDemo.address}/moves`)
  for (const [label, value, must, not] of sieves) {
    await page.getByLabel(label, { exact: true }).selectOption(value)
    await expect(page.getByText(/^\d+ of 172 moves/), `${label}: ${value}`).toBeVisible()
    await expect(card(must), `${label}: ${value}`).toBeVisible()
    await expect(card(not), `${label}: ${value}`).toHaveCount(0)
    await page.getByLabel(label, { exact: true }).selectOption('')
    await expect(page.getByText('172 moves', { exact: true })).toBeVisible()
  }

  // A strict limit spares more; a sieve that fails says so and shows nothing.
  await page.getByLabel('Suitable for').selectOption('knee')
  await expect(page.getByText('not clearance')).toBeVisible()
  await expect(card('split-squat')).toBeVisible()
  await expect(card('split-squat').getByText('only as')).toHaveCount(0)
  await expect(card('squat').getByText('only as: Bodyweight squat, half the depth')).toBeVisible()
  await expect(card('kickback')).toBeVisible()
  await page.getByLabel('strict (keep a wider margin)').click()
  await expect(page.getByLabel('strict (keep a wider margin)')).toBeChecked()
  await expect(card('kickback')).toHaveCount(0)
  await expect(card('split-squat').getByText('only as: Split squat, quarter depth')).toBeVisible()

  // Where nothing fits, it is made one's own, under the name that was looked for.
  await page.goto(`${sharedDemo.address}/moves?q=zqxwv`)
  await expect(page.getByText('No moves match.')).toBeVisible()
  await page.getByRole('link', { name: 'make it a move of your own' }).click()
  await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('zqxwv')
  await page.goto(`${sharedDemo.address}/moves?limit=nothing`)
  await expect(page.getByRole('alert')).toContainText('cannot be looked through')
  await expect(page.locator('a[href^="/moves/"] svg')).toHaveCount(0)
})

/** A picture of one dot. */
const dot = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='

test('a move of one’s own is made, used, travels in the class file, and goes out and in again', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/moves/split-squat`)
  await page.getByRole('link', { name: 'Make my own version' }).click()
  await page.getByLabel('Name').fill('Mast squat')
  await page.getByLabel('Tempo').fill('4-0')
  await page.getByRole('button', { name: 'Save move' }).click()
  await expect(page.getByRole('alert')).toContainText('“4-0” is not a tempo')
  await page.getByLabel('Tempo').fill('4-0-2-0')

  // A picture of one’s own; what is none changes nothing. Whom it is not for is ticked.
  const picture = page.locator('form input[type=file]')
  await picture.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') })
  await expect(page.getByText('“notes.png” is not a picture that can be shown.')).toBeVisible()
  await picture.setInputFiles({ name: 'mast.png', mimeType: 'image/png', buffer: Buffer.from(dot, 'base64') })
  await expect(page.getByRole('img', { name: 'Your picture of the move' })).toBeVisible()
  await page.getByLabel('sore wrists').selectOption('any')
  await page.getByRole('button', { name: 'Save move' }).click()
  await expect(page.getByRole('heading', { name: 'Mast squat' })).toBeVisible()
  await expect(page.getByRole('img', { name: 'Mast squat', exact: true })).toBeVisible()
  await page.goto(`${studio.address}/moves?q=mast&limit=wrist`)
  await expect(page.getByText(/^\d+ of 173 moves|No moves match/).first()).toBeVisible()
  await expect(page.locator('a[href="/moves/my-mast-squat"]')).toHaveCount(0)

  await page.goto(`${studio.address}/classes/new`)
  await page.getByRole('button', { name: 'Create and build' }).click()
  await addBlock(page, 'Straight sets')
  await chooseMove(page, page.getByRole('button', { name: 'Add a station to Straight sets' }), 'Mast squat')
  await enter(page.getByLabel('Target of Mast squat'), '10 each side')
  await expect(page.getByRole('article', { name: 'Station 2: Mast squat' })).toContainText('2 min 3 s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.getByRole('link', { name: 'Cards' }).click()
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export this class' }).click()
  await page.getByRole('menuitem', { name: 'Class file' }).click()
  const file = readFileSync(await (await waiting).path())
  expect((JSON.parse(file.toString()) as { moves: { id: string }[] }).moves.map((m) => m.id)).toEqual(['my-mast-squat'])

  const exporting = page.waitForEvent('download')
  await page.goto(`${studio.address}/moves`)
  await page.getByRole('link', { name: 'Export my moves' }).click()
  const own = readFileSync(await (await exporting).path())
  await page.goto(`${studio.address}/moves/my-mast-squat/edit`)
  await page.getByRole('button', { name: 'Delete move' }).click()
  await expect(page.getByText('172 moves', { exact: true })).toBeVisible()

  // The class still opens, here and elsewhere: it carries the move.
  await page.goto(studio.address)
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'mast.halterion.json', mimeType: 'application/json', buffer: file })
  await expect(page.getByRole('article', { name: 'Station 2: Mast squat' })).toBeVisible()
  await page.goto(`${studio.address}/moves`)
  await expect(page.getByText('172 moves', { exact: true })).toBeVisible()
  await page.locator('input[type=file]').setInputFiles({ name: 'own.json', mimeType: 'application/json', buffer: own })
  await expect(page.getByText('173 moves', { exact: true })).toBeVisible()
})

test('an option is swapped for a proposed one, and the cards are printed', async ({ page, demo }) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/build`)
  const station = await open(page, 'station', 'Side lunge')
  await station.getByRole('button', { name: '+ Side lunge, two counts still below' }).click()
  await expect(station.getByRole('button', { name: 'harder option: Side lunge' })).toBeVisible()
  await expect(station.getByText('two counts still below')).toBeVisible()
  const bridge = await open(page, 'station', 'Marching bridge')
  await bridge
    .getByRole('button', { name: /^\+ Alternative: / })
    .first()
    .click()
  await expect(bridge.getByRole('button', { name: /^alternative option: / })).toBeVisible()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()

  await page.getByRole('link', { name: 'Cards' }).click()
  await page.getByText('Station cards').click()
  await expect(page.getByRole('article', { name: 'Card: Side lunge' })).toContainText('Distance between feet')
  for (const format of ['A4', 'Letter']) {
    const pages = await pagesOf(page, format)
    expect(pages).toHaveLength(8)
    expect(pages[5]).toContain('two counts still below')
    expect(pages[5]).toContain('half on each side')
  }
  await page.getByText('Walk-through', { exact: true }).click()
  await expect(page.getByRole('article', { name: 'Walk-through' })).toContainText('3 min 20 s in total')
  await page.getByText('Take-home sheet').click()
  await expect(page.getByRole('article', { name: 'Take-home sheet' })).toContainText('Calf stretch')
})

test('the picker answers what is asked of it: easier than this, no kit, sideways, what each asks instead', async ({
  page,
  sharedDemo,
}) => {
  await page.goto(`${await classOf(sharedDemo, 'Full moon circuit')}/build`)
  const station = await open(page, 'station', 'Split squat')
  await station.getByRole('button', { name: 'main option: Split squat' }).click()
  const list = page.getByRole('listbox', { name: 'Moves found' })
  const named = (name: string) => list.locator('li').filter({ hasText: name }).first()
  await expect(named('Reverse lunge')).toContainText(/\d → \d/)
  await page.getByRole('button', { name: 'Easier than this one' }).click()
  await expect(list.locator('#found-split-squat')).toHaveCount(0)
  await expect(list.locator('#found-rear-raised-split-squat')).toHaveCount(0)
  await expect(list.locator('#found-tap-split-squat').first()).toBeVisible()
  await page.getByRole('button', { name: 'Easier than this one' }).click()
  await page.getByRole('button', { name: 'Sideways' }).click()
  await expect(list.locator('#found-side-lunge')).toBeVisible()
  await expect(list.locator('#found-squat')).toHaveCount(0)
  await page.getByRole('button', { name: 'No kit needed' }).click()
  await expect(list.locator('small').filter({ hasText: '·' })).toHaveCount(0)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
})
