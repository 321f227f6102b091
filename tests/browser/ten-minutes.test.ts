import type { Locator, Page } from '@playwright/test'
import { classOf, expect, open, test } from './studio'

/** Counts what a hand does: a click each, a key each. */
class Hand {
  clicks = 0
  keys = 0
  constructor(readonly page: Page) {}

  async click(what: Locator) {
    this.clicks++
    await what.click()
  }

  async type(text: string) {
    this.keys += text.length
    await this.page.keyboard.type(text)
  }

  async press(...keys: string[]) {
    for (const key of keys) {
      this.keys++
      await this.page.keyboard.press(key)
    }
  }

  /** The library is open: a name is typed until it is the first, and taken. */
  async move(typed: string, name: string) {
    await expect(this.page.getByRole('dialog').getByLabel('Search')).toBeFocused()
    await this.type(typed)
    await expect(this.page.getByRole('listbox').getByRole('option').first()).toContainText(name)
    await this.press('Enter')
    await expect(this.page.getByLabel(/^Target of /)).toBeFocused()
  }

  /** The dose that has the focus. */
  async dose(text: string, verdict?: string) {
    await this.type(text)
    await this.press('Enter')
    await expect(this.page.getByText('Set.')).toBeVisible()
    if (verdict) await expect(this.page.getByTestId('verdict')).toHaveText(verdict)
  }
}

async function newClass(page: Page, address: string): Promise<Hand> {
  await page.goto(address)
  const hand = new Hand(page)
  await hand.click(page.getByRole('link', { name: 'New class' }).first())
  await hand.click(page.getByRole('button', { name: 'Create and build' }))
  await expect(page.getByText('Nothing here yet')).toBeVisible()
  return hand
}

const ready = (page: Page, name: string) => page.getByRole('button', { name: `+ ${name}`, exact: true })
const rows = (page: Page) => page.getByRole('article', { name: /^Station \d/ })

test('one side a round for three rounds, with warm-up and stretches, in under 25 clicks and 150 keys', async ({
  page,
  studio,
}) => {
  const hand = await newClass(page, studio.address)
  await hand.click(ready(page, 'Warm-up'))
  await hand.click(page.getByRole('button', { name: '+ Add a block' }))
  await hand.click(ready(page, 'All left, then all right'))
  const rounds = page.getByLabel('Rounds', { exact: true })
  await hand.click(rounds)
  await hand.type('3')
  await hand.press('Enter')
  await hand.click(page.getByRole('button', { name: 'Add a station to All left, then all right' }))
  await hand.move('side lun', 'Side lunge')
  await expect(page.getByLabel('Target of Side lunge')).toHaveValue('40 s')
  await hand.click(page.getByRole('button', { name: '+ Add a block' }))
  await hand.click(ready(page, 'Cool-down'))

  await expect(rows(page)).toHaveCount(7)
  const blocks = page.getByRole('region', { name: /^Block \d/ })
  await expect(blocks.nth(1)).toContainText('3 rounds, each round on the left, then on the right')
  // 10 + 40 + 5 + 40; 10 + 3·(2·(3·40 + 2·10) + the way from side to side) + 2·60; 10 + 30 + 5 + 30, by the tape.
  await expect(page.getByTestId('tape').getByRole('listitem')).toHaveText([
    'Warm-up: 1 minute 35 seconds, starts at 0:00',
    /^All left, then all right: 1[67] minutes/,
    /^Cool-down: 1 minute/,
  ])
  expect(hand.clicks).toBeLessThan(25)
  expect(hand.keys).toBeLessThan(150)
  console.log(`one side a round: ${hand.clicks} clicks, ${hand.keys} keys`)
})

test('six stations of straight sets with falling targets, hold and pulses, in under 25 clicks and 150 keys', async ({
  page,
  studio,
}) => {
  const hand = await newClass(page, studio.address)
  await hand.click(page.getByRole('button', { name: 'More kinds of block' }))
  await hand.click(ready(page, 'Straight sets'))
  await hand.click(page.getByRole('button', { name: 'Paste a list of moves to Straight sets' }))
  await expect(page.getByLabel('One move per line')).toBeFocused()
  for (const name of ['split squat', 'hip hinge', 'side lunge', 'glute bridge', 'sumo squat']) {
    await hand.type(name)
    await hand.press('Enter')
  }
  await hand.click(page.getByRole('button', { name: /^Add 5 stations/ }))
  await expect(rows(page)).toHaveCount(6)
  await hand.click(page.getByLabel('Select block Straight sets'))
  await hand.click(page.getByLabel('Target for all selected stations'))
  await hand.type('20/15/12 + 15 s hold (last round) + 15 pulses (last round)')
  await hand.press('Enter')
  await expect(page.getByText('Target set at 6 stations.')).toBeVisible()
  for (let i = 0; i < 6; i++) {
    await expect(rows(page).nth(i)).toContainText('20/15/12 + 15 s hold (last round) + 15 pulses (last round)')
  }
  expect(hand.clicks).toBeLessThan(25)
  expect(hand.keys).toBeLessThan(150)
  console.log(`straight sets: ${hand.clicks} clicks, ${hand.keys} keys`)
})

test('a drop set with plate changes and a superset, by keys alone, in under 150 keys', async ({ page, studio }) => {
  await page.goto(`${studio.address}/classes/new`)
  const hand = new Hand(page)
  await page.getByLabel('Title').focus()
  await hand.press('Enter')
  await expect(page.getByText('Nothing here yet')).toBeVisible()
  await hand.press('b')
  await expect(page.getByLabel('Find a ready-made block')).toBeFocused()
  await hand.type('drop')
  await expect(ready(page, 'Drop set')).toBeVisible()
  await hand.press('Enter')
  await expect(page.getByLabel('Name of block 1')).toBeFocused()

  // The plates come off in 20 s, not in 12.
  await hand.press('Escape', 'ArrowDown', 'e')
  await expect(page.getByLabel('Target of Goblet squat')).toBeFocused()
  await hand.dose('10 at 100 % + 20 s rest + 10 at 70 % + 20 s rest + 10 at 40 %')
  await hand.press('Escape', 'b')
  await hand.type('superset')
  await expect(ready(page, 'Superset')).toBeVisible()
  await hand.press('Enter')
  await expect(page.getByLabel('Name of block 2')).toBeFocused()
  await hand.press('Escape', 'a')
  await hand.move('hip th', 'Hip thrust')
  await hand.press('Escape')
  await expect(rows(page)).toHaveCount(4)
  await expect(page.getByRole('region', { name: 'Block 2: Superset' })).toContainText('Hip thrust')

  // And one of them in the other block, without the mouse.
  await hand.press('[')
  await expect(page.getByRole('region', { name: 'Block 1: Drop set' }).getByRole('article')).toHaveCount(2)
  await hand.press('Control+z')
  await expect(page.getByRole('region', { name: 'Block 1: Drop set' }).getByRole('article')).toHaveCount(1)
  expect(hand.clicks).toBe(0)
  expect(hand.keys).toBeLessThan(150)
  console.log(`drop set and superset: ${hand.keys} keys`)
})

test('from opening a class to a new station with a dose in under ten keys; the focus never falls to the page', async ({
  page,
  demo,
}) => {
  const { classes } = (await (await fetch(`${demo.address}/api/classes`)).json()) as {
    classes: { id: string; title: string }[]
  }
  const moon = classes.find((c) => c.title === 'Full moon circuit')!
  await page.goto(`${demo.address}/classes/${moon.id}/build`)
  await expect(page.getByTestId('verdict')).toHaveText('1 min 18 s over')
  const hand = new Hand(page)
  const focused = () => page.evaluate(() => document.activeElement?.tagName)
  expect(await focused()).not.toBe('BODY')
  await hand.press('a')
  await hand.move('plank', 'Plank')
  await expect(page.getByLabel('Target of Plank')).not.toHaveValue('')
  expect(hand.keys).toBeLessThan(10)

  // The rest of the keys, one after the other; the focus stays on the bench.
  await hand.press('Escape')
  const before = await rows(page).count()
  await hand.press('d')
  await expect(rows(page)).toHaveCount(before + 1)
  await hand.press('Delete')
  await expect(rows(page)).toHaveCount(before)
  await expect.poll(focused).toBe('ARTICLE')
  await hand.press('Shift+ArrowUp', 'Shift+ArrowUp')
  await expect(page.getByRole('region', { name: 'Selection' })).toContainText('2 stations selected')
  await hand.press('Control+k')
  await hand.type('hip hinge')
  await hand.press('Enter')
  await expect(page.getByLabel('Target of Hip hinge')).toBeFocused()
  await hand.press('Escape', '?')
  await expect(page.getByRole('dialog')).toContainText('All commands')
  await hand.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect.poll(focused).not.toBe('BODY')
})

test('a dose is taken whole or not at all', async ({ page, studio }) => {
  const hand = await newClass(page, studio.address)
  await hand.click(ready(page, 'Stations'))
  const station = rows(page).first()
  await station.getByRole('button', { expanded: false }).click()
  const dose = page.getByLabel('Target of Bodyweight squat')
  await dose.click()

  // Half-typed text never reaches the class, nor does what cannot be.
  await dose.fill('1000000')
  await expect(station.getByText('outside the range')).toBeVisible()
  await dose.press('Enter')
  await expect(dose).toHaveValue('1000000')
  await expect(station.locator('[title="15"]')).toBeVisible()
  await dose.press('Escape')
  await expect(dose).toHaveValue('15')

  // It is echoed whole, with what it does to the block.
  await dose.fill('2 x 20/15, then hold 10 s (last round)')
  await expect(station.getByText('20, then 15 reps; in the last round also 10 s hold')).toBeVisible()
  await expect(station.getByText('This also changes the block: 2 rounds.')).toBeVisible()
  await expect(page.getByRole('region', { name: /^Block 1/ })).toContainText('3 rounds')
  await dose.press('Tab')
  await expect(page.getByRole('region', { name: /^Block 1/ })).toContainText('2 rounds')

  // A number that is too much stays as it was typed, with the reason.
  await page
    .getByRole('region', { name: /^Block 1/ })
    .getByRole('button', { expanded: false })
    .first()
    .click()
  const rest = page.getByLabel('Get-ready time')
  await rest.fill('999')
  await rest.press('Enter')
  await expect(rest).toHaveValue('999')
  await expect(page.getByText('999 is too high. Enter 0 to 120')).toBeVisible()
  await rest.press('Escape')
  await expect(rest).toHaveValue('')
})

test('twelve blocks and forty stations are seen on three screens; a list is pasted; rounds go on as they went', async ({
  page,
  studio,
}) => {
  const option = { tier: 'main', move: 'squat' }
  const stations = (many: number) =>
    Array.from({ length: many }, () => ({ dose: [{ kind: 'time', amount: 20 }], options: [option] }))
  const opened = await fetch(`${studio.address}/api/classes/file`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      format: 'halterion-class',
      version: 1,
      title: 'Many',
      slotMinutes: 60,
      blocks: Array.from({ length: 12 }, (_, i) => ({
        name: `Block ${i + 1}`,
        phase: 'main',
        rounds: 2,
        stations: stations(i < 4 ? 4 : 3),
      })),
    }),
  })
  const { id } = (await opened.json()) as { id: string }
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(`${studio.address}/classes/${id}/build`)
  await expect(rows(page)).toHaveCount(40)
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBeLessThanOrEqual(2400)

  // Text that somebody has in their notes is read where it is pasted.
  await rows(page).first().focus()
  await page.evaluate(() => {
    const data = new DataTransfer()
    data.setData('text/plain', '- hip hinge 12\n- wobbly dance 20 s')
    document.activeElement!.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }))
  })
  const read = page.getByRole('list', { name: 'What was read' }).getByRole('listitem')
  await expect(read.nth(0)).toContainText('Hip hinge 12')
  await expect(read.nth(1)).toContainText('No move is called “wobbly dance”.')
  await page.getByRole('button', { name: 'Add 1 station, leave 1 out' }).click()
  await expect(rows(page)).toHaveCount(41)

  const last = page.getByRole('region', { name: 'Block 12: Block 12' })
  await open(page, 'station', 'Hip hinge')
  const dose = page.getByLabel('Target of Hip hinge')
  await dose.fill('20/15')
  await dose.press('Enter')
  await expect(page.getByText('Set.')).toBeVisible()
  await last.getByRole('button', { name: /^Block 12/ }).click()
  const rounds = page.getByLabel('Rounds', { exact: true })
  await rounds.fill('4')
  await rounds.press('Enter')
  await expect(last.getByRole('article', { name: 'Station 4: Hip hinge' })).toContainText('20/15/10/5')
})

test('a finger drags a station, chooses with a long press and opens with a tap', async ({ browser, demo }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  const page = await context.newPage()
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/build`)
  const circuit = page.getByRole('region', { name: 'Block 3: Circuit' })
  const names = circuit.getByRole('article').locator('[aria-expanded] > span')
  await expect(names).toHaveText(['Bodyweight squat', 'Split squat', 'Side lunge', 'Hip hinge', 'Marching bridge'])
  await circuit.evaluate((block) => window.scrollTo(0, block.getBoundingClientRect().top + window.scrollY - 200))
  const devtools = await context.newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x = 0, y = 0) =>
    devtools.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x, y }] })
  const handle = circuit.getByTitle('Drag to move')
  const from = (await handle.nth(1).boundingBox())!
  // Past the middle of the third station it comes after that one.
  const third = (await circuit.getByRole('article').nth(2).boundingBox())!
  const to = third.y + third.height - 6
  await touch('touchStart', from.x + 4, from.y + 10)
  for (let i = 1; i <= 8; i++) await touch('touchMove', from.x + 4, from.y + 10 + ((to - from.y - 10) * i) / 8)
  await touch('touchEnd')
  await expect(names).toHaveText(['Split squat', 'Side lunge', 'Bodyweight squat', 'Hip hinge', 'Marching bridge'])

  const row = (await names.nth(0).boundingBox())!
  await touch('touchStart', row.x + 10, row.y + 10)
  await page.waitForTimeout(700)
  await touch('touchEnd')
  await expect(page.getByText('1 station selected')).toBeVisible()
  await expect(circuit.locator('[data-open=true]')).toHaveCount(0)
  await page.getByRole('button', { name: 'Clear selection' }).tap()
  await names.nth(0).tap()
  await expect(page.getByLabel('Target of Split squat')).toBeVisible()
  await context.close()
})
