import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import type { CommandKind, Payload } from '../../web/src/leading/core/fold.ts'
import { FakeAudio } from '../../web/tests/fakeAudio.ts'
import { classOf, commandsOf, creepTo, expect, skip, stopClock, test, pick } from './studio'

interface Case {
  name: string
  gates?: number[]
  commands: [CommandKind, number, Payload?][]
  now: number
  phase: string
  position: number
  scene: number
}

interface Heard {
  audio: FakeAudio
  said: [number, string][]
}

interface Sounds {
  scenes: { end: number }[]
  cases: {
    name: string
    taps: [CommandKind, number, Payload?][]
    until: number
    rings: [number, string][]
    says: [number, string][]
  }[]
}

/** The page that is taken along, as the server writes it, for a class of these scenes; it stands still from the beginning. */
async function open(page: Page, data: object) {
  const read = (file: string) => readFileSync(new URL(`../../src/Halterion.Formats/${file}`, import.meta.url), 'utf8')
  const whole = { key: '', title: 'Case', cards: [], cues: [], calls: [], bells: [], ...data }
  await page.goto('about:blank')
  await page.setContent(
    read('lead-page.html')
      .replace('{{data}}', () => JSON.stringify(whole))
      .replace('{{script}}', () => read('lead-page.js'))
      .replace('default-src', 'x-default-src'),
  )
}

const sceneOf = (scene: { end: number; gated?: boolean }, i: number) => ({
  ...{ gated: false, cards: [], blockName: '', headline: `scene ${i}`, target: '', sideWords: '', round: '', next: '' },
  ...scene,
})

const buttons: Partial<Record<CommandKind, string>> = { start: 'Start the class', pause: 'Pause', resume: 'Carry on' }
const others: Partial<Record<CommandKind, string>> = { go: 'Go', skip: 'Skip', back: 'Back', addTen: '+10 s' }

/** Taps what this page has a button for; false: it has none for one of them, or it would be the wrong one. */
async function tapAll(page: Page, commands: [CommandKind, number, Payload?][], tapped: (at: number) => Promise<void>) {
  let at = 0
  let skipped: number | null = null
  for (const [kind, moment] of commands) {
    // What the buttons cannot say, such as a pause before the start or a tap that came late, is not for this page.
    const main = await page.locator('#main').textContent()
    const label = { ...buttons, ...others }[kind]
    const isMain = kind in buttons || kind === 'go'
    if (!label || moment < at || (isMain && main !== label) || (!isMain && main === 'Start the class')) return null
    // Two skips in a moment are one on a screen, whatever the fold would make of two.
    if (kind === 'skip' && skipped !== null && moment - skipped < 600) return null
    if (kind === 'skip') skipped = moment
    await tapped(moment - at)
    at = moment
    if (isMain && (await page.locator('#main').textContent()) !== label) return null
    await page.getByRole('button', { name: label, exact: true }).click()
  }
  return at
}

test('the page that is taken along is where the fold is, for all that its buttons can do', async ({ page }) => {
  const cases = JSON.parse(readFileSync(new URL('../lead-cases.json', import.meta.url), 'utf8')) as Case[]
  await page.clock.install({ time: 0 })
  await page.clock.pauseAt(1000)
  let held = 0
  for (const { name, gates, commands, now, position, scene } of cases) {
    await open(page, { scenes: [10, 60, 80].map((end, i) => sceneOf({ end, gated: gates?.includes(i) ?? false }, i)) })
    const at = await tapAll(page, commands, (time) => page.clock.runFor(time))
    if (at === null || now < at) continue
    held++
    await page.clock.runFor(now - at)
    const bar = await page.locator('#bar').evaluate((element) => (element as HTMLProgressElement).value)
    const over = (await page.locator('#head').textContent()) === 'That’s it. Well done.'
    const shown = over ? 2 : Number((await page.locator('#head').textContent())!.slice(-1))
    // It looks ten times a second.
    expect({ name, near: Math.abs(bar * 1000 - position) <= 100, scene: shown }).toEqual({ name, near: true, scene })
  }
  expect(held).toBeGreaterThan(12)
})

test('the page that is taken along goes on after a reload, goes anywhere, and forgets only what stands', async ({
  page,
}) => {
  // Kept taps need an address of their own: the page is served from one.
  const read = (file: string) => readFileSync(new URL(`../../src/Halterion.Formats/${file}`, import.meta.url), 'utf8')
  const data = {
    ...{ key: 'k', title: 'Case', cards: [], cues: [], calls: [], bells: [] },
    scenes: [10, 60, 80].map((end, i) => sceneOf({ end }, i)),
  }
  const body = read('lead-page.html')
    .replace('{{data}}', () => JSON.stringify(data))
    .replace('{{script}}', () => read('lead-page.js'))
  await page.route('http://along.test/', (route) => route.fulfill({ body, contentType: 'text/html' }))
  await page.goto('http://along.test/')
  const button = (name: string) => page.getByRole('button', { name, exact: true })
  await expect(button('Go there')).toBeDisabled()
  await expect(button('Begin anew')).toBeDisabled()
  await button('Start the class').click()
  await expect(button('Begin anew')).toBeDisabled()
  await page.getByLabel('Go to').selectOption({ index: 2 })
  await button('Go there').click()
  await expect(page.locator('#head')).toHaveText('scene 2')
  await page.reload()
  await expect(page.locator('#head')).toHaveText('scene 2')
  await button('Pause').click()
  await button('Begin anew').click()
  await expect(page.locator('#head')).toHaveText('scene 0')
  await page.reload()
  await expect(button('Start the class')).toBeVisible()
})

test('the page that is taken along rings and says after every tap what the lead screen does', async ({ page }) => {
  const { cases, ...data } = JSON.parse(readFileSync(new URL('../sound-cases.json', import.meta.url), 'utf8')) as Sounds
  await page.addInitScript(
    `${FakeAudio.toString()}; window.AudioContext = class extends FakeAudio { constructor() { super(); window.audio = this } resume() {} }`,
  )
  await page.clock.install({ time: 0 })
  await page.clock.pauseAt(1000)
  const kinds = ['count', 'start', 'switch', 'warning', 'end', 'finish']
  const bells = kinds.map((kind, i) => ({ kind, pitch: 100 * (i + 1), length: 0.2, strikes: 1, apart: 0.28 }))
  let held = 0
  for (const { name, taps, until, rings, says } of cases) {
    await open(page, { ...data, bells, scenes: data.scenes.map(sceneOf) })
    const began = await page.evaluate(() => performance.now())
    await page.evaluate(() => {
      const words = document.getElementById('said')!
      const list: [number, string][] = ((window as unknown as Heard).said = [])
      new MutationObserver(() => list.push([performance.now(), words.textContent!])).observe(words, { childList: true })
    })
    const at = await tapAll(page, taps, (time) => page.clock.runFor(time))
    if (at === null) continue
    await page.clock.runFor(until - at)
    const { heard, list } = await page.evaluate(() => {
      const { audio, said } = window as unknown as Heard
      return { heard: audio.heard, list: said }
    })
    const said = list.map(([at, text]): [number, string] => [at - began, text])
    const rung = heard.map(({ pitch, at }): [number, string] => [at - began, kinds[pitch / 100 - 1]!])
    held++
    for (const [found, right, off] of [
      [rung.filter(([at]) => at <= until), rings, 1],
      [said, says, 100],
    ] as const) {
      expect({ name, what: found.map(([, what]) => what) }).toEqual({ name, what: right.map(([, what]) => what) })
      found.forEach(([at], i) =>
        expect(Math.abs(at - right[i]![0]), `${name}: ${right[i]![1]}`).toBeLessThanOrEqual(off),
      )
    }
  }
  expect(held).toBeGreaterThanOrEqual(6)
})

test('a class goes on without its server, and what was tapped meanwhile is not lost', async ({ page, demo }) => {
  await page.clock.install()
  await page.goto(`${await classOf(demo, 'Six around the loft')}/lead`)
  await expect(page.getByRole('button', { name: 'Start the class' })).toBeVisible()
  await stopClock(page)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.clock.runFor(10_500)
  await expect(page.getByTestId('clock')).toHaveText('3:49')
  await expect.poll(() => commandsOf(page)).toEqual(['start'])
  const port = await demo.kill()

  await page.clock.runFor(60_000)
  await expect(page.getByTestId('clock')).toHaveText('2:49')
  await page.keyboard.press('ArrowRight')
  // Only a tap that the page has taken sets the timers that the clock then runs.
  await expect(page.getByRole('heading', { name: 'Get ready' })).toBeVisible()
  await page.clock.runFor(4200)
  await expect(page.getByText('Halterion is not answering. The class carries on; 1 action not sent yet')).toBeVisible()
  await page.keyboard.press('+')
  await page.clock.runFor(1000)
  await expect(page.getByTestId('clock')).toHaveText('15')

  // The page's clock stands ahead of the server's: after enough signs of the server it would be brought back to it. So it is reloaded
  // at once, and goes on from its own note, which is the later one.
  await demo.start(port)
  await page.reload()
  await creepTo(page, page.getByTestId('clock'))
  await expect(page.getByTestId('clock')).toHaveText(/^1[45]$/)
  await expect(page.getByText('Halterion is not answering.')).toHaveCount(0)

  // Another browser sees the same class at the same place: it was the server that kept it.
  await expect.poll(() => commandsOf(page)).toEqual(['start', 'skip', 'addTen'])
})

test('a rotation shows every station, and back, pause and end work', async ({ page, demo }) => {
  await page.clock.install()
  await page.goto(`${await classOf(demo, 'Six around the loft')}/lead`)
  await expect(page.getByRole('button', { name: 'Start the class' })).toBeVisible()
  await stopClock(page)
  await page.keyboard.press('Space')
  await skip(page, 8, (ms) => page.clock.runFor(ms))
  await page.clock.runFor(200)
  await expect(page.getByRole('heading', { name: 'Interval 1 of 6' })).toBeVisible()
  await expect(page.getByText('Switch sides after 20 s', { exact: true })).toBeVisible()
  await expect(page.getByRole('region', { name: 'All stations' }).getByRole('article')).toHaveCount(6)
  // The figures of the main options are there, and push no control out of sight.
  await expect(page.getByRole('region', { name: 'All stations' }).locator('span > svg:visible')).toHaveCount(6)
  await expect(page.getByRole('button', { name: 'End class' })).toBeInViewport({ ratio: 1 })
  await page.keyboard.press('b')
  await page.clock.runFor(200)
  await expect(page.getByRole('heading', { name: 'Get ready' })).toBeVisible()
  await page.getByRole('button', { name: 'End class' }).click()
  // Once is not enough: it only asks.
  await expect(page.getByRole('heading', { name: 'Finished' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Press again to end' }).click()
  await expect(page.getByRole('heading', { name: 'Finished' })).toBeVisible()
  await page.getByRole('button', { name: 'Not finished? Go back in' }).click()
  await expect(page.getByRole('button', { name: 'Carry on' })).toBeVisible()
})

test('a block that begins at a tap waits for it', async ({ page, studio }) => {
  const option = { tier: 'main', move: 'squat' }
  const opened = await fetch(`${studio.address}/api/classes/file`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      format: 'halterion-class',
      version: 1,
      title: 'Gated',
      slotMinutes: 5,
      blocks: [
        {
          name: 'B',
          phase: 'main',
          gate: 'block',
          stations: [{ dose: [{ kind: 'time', amount: 30 }], options: [option] }],
        },
      ],
    }),
  })
  const { id } = (await opened.json()) as { id: string }
  await page.clock.install()
  await page.goto(`${studio.address}/classes/${id}/lead`)
  await expect(page.getByRole('button', { name: 'Start the class' })).toBeVisible()
  await stopClock(page)
  await page.keyboard.press('Space')
  await page.clock.runFor(60_000)
  await expect(page.getByText('Press Go when you are ready')).toBeVisible()
  await expect(page.getByTestId('clock')).toHaveText('30')
  await page.keyboard.press('ArrowRight')
  await page.clock.runFor(10_500)
  await expect(page.getByTestId('clock')).toHaveText('20')
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Carry on' })).toBeVisible()
})

test('bells are put on the audio clock where the cues are', async ({ page, demo }) => {
  await page.addInitScript(() => {
    const rung: { at: number; pitch: number }[] = []
    Object.assign(window, { rung })
    const start = OscillatorNode.prototype.start
    OscillatorNode.prototype.start = function (when = 0) {
      rung.push({ at: when - this.context.currentTime, pitch: this.frequency.value })
      start.call(this, when)
    }
  })
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/lead`)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await expect(page.getByRole('button', { name: 'Sound is on' })).toBeVisible()

  // To the lead-in of ten seconds: its 3-2-1 and the start come seven to ten seconds on, as they fall due.
  await page.keyboard.press('ArrowRight')
  const heard = () => page.evaluate(() => (window as unknown as { rung: { at: number; pitch: number }[] }).rung)
  await expect.poll(async () => (await heard()).map((r) => r.pitch), { timeout: 15_000 }).toEqual([520, 520, 520, 1040])
  // Not all at once, seven to ten seconds ahead; how far its own clock lags depends on how busy the machine is.
  for (const ring of await heard()) expect(ring.at).toBeLessThan(6.5)
  await page.getByRole('button', { name: 'Sound is on' }).click()
  await expect(page.getByRole('button', { name: 'Sound is off' })).toBeVisible()
})

test('space starts and pauses whatever was pressed; a class ended early logs only what was reached', async ({
  page,
  demo,
}) => {
  const address = await classOf(demo, 'Full moon circuit')
  await page.goto(`${address}/lead`)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await expect(page.getByTestId('ends')).toContainText('ends')
  // What was clicked gives the space bar back to the stage; what Tab has reached keeps it.
  await page.getByRole('button', { name: 'Sound is on' }).click()
  await page.keyboard.press('Space')
  await expect(page.getByText('Paused', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Sound is off' }).click()
  await page.keyboard.press('Space')
  await expect(page.getByText('Paused', { exact: true })).toHaveCount(0)
  await page.getByRole('button', { name: 'Shortcuts' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Shortcuts' })).toBeFocused()
  await expect(page.getByText('Paused', { exact: true })).toHaveCount(0)
  await page.locator('main').focus()
  await page.reload()
  // A reload forgets nothing: the browser lets it ring at once, or with the next tap.
  await expect(page.getByText(/^(Sound is on|Tap anywhere to turn sound back on)$/)).toBeVisible()

  // Past the talk and its lead-in to the first station, worked at for a moment; then the class ends.
  await skip(page, 2)
  await expect(page.getByRole('button', { name: 'Sound is on' })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Wall hinge drill' })).toBeVisible()
  await page.waitForTimeout(3500)
  const [add, end] = await Promise.all(
    ['Add 10 s', 'End class'].map((name) => page.getByRole('button', { name }).boundingBox()),
  )
  expect(end!.x - (add!.x + add!.width)).toBeGreaterThan(100)
  await page.getByRole('button', { name: 'End class' }).click()
  // Once is not enough: it only asks.
  await expect(page.getByRole('heading', { name: 'Finished' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Press again to end' }).click()
  await expect(page.getByRole('heading', { name: 'Finished' })).toBeVisible()
  await expect(page.getByRole('banner')).not.toContainText('left')
  await page.getByRole('link', { name: 'Write the log' }).click()
  await expect(page.getByRole('columnheader').filter({ hasText: /drill|stand|squat|lunge|hinge|bridge/ })).toHaveCount(
    1,
  )

  // A whole column at once, a row at once, and somebody who walked in.
  await pick(page, 'Mark all or none as here', 'none came')
  await expect(page.getByText(/^0 of \d+ came/)).toBeVisible()
  // An arrow key alone changes nothing, and what was set comes back.
  await page.getByRole('button', { name: 'Mark all or none as here' }).focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Escape')
  await expect(page.getByText(/^0 of \d+ came/)).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText(/^0 of \d+ came/)).toHaveCount(0)
  await pick(page, 'Mark all or none as here', 'all came')
  await pick(page, 'Everyone at Wall hinge drill', 'easier')
  const used = page.getByLabel(/, Wall hinge drill$/)
  for (const select of await used.all()) await expect(select.locator('option:checked')).toHaveText('easier')
  const before = await used.count()
  await page.getByLabel('Someone new came').fill('Wanda Vane')
  await page.keyboard.press('Enter')
  await expect(used).toHaveCount(before + 1)
  await expect(page.getByLabel('Wanda Vane came')).toBeChecked()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Wanda Vane came')).toBeChecked()
})

test('a film goes by the clock of the class: paused it stands in its frame, a reload too, and it goes on from there', async ({
  page,
  demo,
}) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/lead`)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await skip(page, 2)
  await expect(page.getByRole('heading', { name: 'Wall hinge drill' })).toBeVisible()
  const drawn = () => page.locator('[data-moving] svg g').innerHTML()
  const begun = await drawn()
  await expect.poll(drawn).not.toBe(begun)

  await page.keyboard.press('Space')
  await expect(page.getByText('Paused', { exact: true })).toBeVisible()
  const stopped = await drawn()
  await page.waitForTimeout(600)
  expect(await drawn()).toBe(stopped)
  await page.reload()
  await expect(page.getByText('Paused', { exact: true })).toBeVisible()
  await expect.poll(drawn).toBe(stopped)
  await page.keyboard.press('Space')
  await expect.poll(drawn).not.toBe(stopped)
})
