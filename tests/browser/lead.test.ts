import { readFileSync } from 'node:fs'
import type { Command, CommandKind, Payload } from '../../web/src/leading/fold.ts'
import { apply, fold, positionAt, sceneAt } from '../../web/src/leading/fold.ts'
import { classOf, commandsOf, creepTo, expect, stopClock, test } from './studio'

interface Case {
  name: string
  gates?: number[]
  commands: [CommandKind, number, Payload?][]
  now: number
  phase: string
  position: number
  scene: number
}

test('the fold of the screen agrees with the shared cases', () => {
  const cases = JSON.parse(readFileSync(new URL('../lead-cases.json', import.meta.url), 'utf8')) as Case[]
  for (const { name, gates, commands, now, ...expected } of cases) {
    const scenes = [10, 60, 80].map((end, i) => ({ end, gated: gates?.includes(i) ?? false }))
    const state = fold(
      commands.map(([kind, at, payload], i): Command => ({ id: String(i), kind, at, payload })),
      scenes,
    )
    const position = positionAt(state, now, scenes)
    expect({ name, phase: state.phase, position, scene: sceneAt(position, scenes, state.added) }).toEqual({
      name,
      ...expected,
    })
  }
})

test('the page that is taken along is where the fold is, for all that its buttons can do', async ({ page }) => {
  const cases = JSON.parse(readFileSync(new URL('../lead-cases.json', import.meta.url), 'utf8')) as Case[]
  const template = readFileSync(new URL('../../src/Halterion.Formats/lead-page.html', import.meta.url), 'utf8')
  const buttons: Partial<Record<CommandKind, string>> = { start: 'Start the class', pause: 'Pause', resume: 'Go on' }
  const others: Partial<Record<CommandKind, string>> = { go: 'Go', skip: 'Skip', back: 'Back', addTen: '+10 s' }
  // It stands still from the beginning, on every page that is opened from here on.
  await page.clock.install({ time: 0 })
  await page.clock.pauseAt(1000)
  let held = 0
  for (const { name, gates, commands, now, position, scene } of cases) {
    const scenes = [10, 60, 80].map((end, i) => ({
      ...{ start: [0, 10, 60][i], end, gated: gates?.includes(i) ?? false, cards: [] },
      ...{ kind: 'work', block: '', head: `scene ${i}`, target: '', side: '', round: '', next: '' },
    }))
    const data = JSON.stringify({ title: 'Case', length: 80, scenes, cards: [], cues: [], calls: [] })
    await page.goto('about:blank')
    await page.setContent(template.replace('"{{data}}"', () => data).replace('default-src', 'x-default-src'))
    let at = 0
    let said = true
    for (const [kind, moment] of commands) {
      // What the buttons cannot say, such as a pause before the start or a tap that came late, is not for this page.
      const main = await page.locator('#main').textContent()
      const label = { ...buttons, ...others }[kind]
      const isMain = kind in buttons || kind === 'go'
      if (!label || moment < at || (isMain && main !== label) || (!isMain && main === 'Start the class')) {
        said = false
        break
      }
      await page.clock.runFor(moment - at)
      at = moment
      if (isMain && (await page.locator('#main').textContent()) !== label) {
        said = false
        break
      }
      await page.getByRole('button', { name: label, exact: true }).click()
    }
    if (!said || now < at) continue
    held++
    await page.clock.runFor(now - at)
    const bar = await page.locator('#bar').evaluate((element) => (element as HTMLProgressElement).value)
    const over = (await page.locator('#head').textContent()) === 'That is the end.'
    const shown = over ? 2 : Number((await page.locator('#head').textContent())!.slice(-1))
    // It looks ten times a second.
    expect({ name, near: Math.abs(bar * 1000 - position) <= 100, scene: shown }).toEqual({ name, near: true, scene })
  }
  expect(held).toBeGreaterThan(12)
})

/** In the order of the server's words. */
const kinds: CommandKind[] = [
  'start',
  'pause',
  'resume',
  'skip',
  'back',
  'addTen',
  'finish',
  'go',
  'adjust',
  'lessTen',
  'jump',
  'note',
  'lead',
]
const phases = ['ready', 'running', 'paused', 'finished']

test('both folds agree on a hundred thousand sequences', () => {
  const { seed, sequences, ...expected } = JSON.parse(
    readFileSync(new URL('../lead-fuzz.json', import.meta.url), 'utf8'),
  ) as { seed: number; sequences: number; sum: number }
  let x = seed
  let sum = 2166136261
  const next = (below: number) => ((x = (Math.imul(x, 1664525) + 1013904223) >>> 0) >>> 8) % below
  const add = (value: number) => (sum = Math.imul(sum ^ value, 16777619) >>> 0)
  for (let i = 0; i < sequences; i++) {
    let at = 0
    let end = 0
    const scenes = Array.from({ length: 1 + next(6) }, () => ({ end: (end += 1 + next(40)), gated: next(4) === 0 }))
    let state = fold([], scenes)
    for (let taps = next(14); taps > 0; taps--) {
      at += next(30_000) - 2000
      const kind = kinds[next(13)]!
      const shifts = Array.from({ length: next(4) }, () => ({ scene: next(7), by: next(60_000) - 40_000 }))
      const payload = { shifts, scene: next(8) - 1 }
      state = apply(state, { id: '', kind, at, device: String(next(3)), payload }, scenes)
    }
    add(phases.indexOf(state.phase))
    add(state.position)
    add(state.at)
    add(state.opened)
    add(state.leader === null ? -1 : Number(state.leader))
    add(positionAt(state, at + 7000, scenes))
    state.added.forEach(add)
  }
  expect(sum).toBe(expected.sum)
})

test('a class goes on without its server, and what was tapped meanwhile is not lost', async ({ page, demo }) => {
  await page.clock.install()
  await page.goto(`${await classOf(demo, 'Six around the loft')}/lead`)
  await expect(page.getByRole('button', { name: 'Start the class' })).toBeVisible()
  await stopClock(page)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.clock.runFor(10_500)
  await expect(page.getByTestId('clock')).toHaveText('2:50')
  await expect.poll(() => commandsOf(page)).toEqual(['start'])
  const port = await demo.kill()

  await page.clock.runFor(60_000)
  await expect(page.getByTestId('clock')).toHaveText('1:50')
  await page.keyboard.press('ArrowRight')
  // Only a tap that the page has taken sets the timers that the clock then runs.
  await expect(page.getByRole('heading', { name: 'Get ready' })).toBeVisible()
  await page.clock.runFor(4200)
  await expect(page.getByText('No server. The class goes on; 1 tap waits')).toBeVisible()
  await page.keyboard.press('+')
  await page.clock.runFor(1000)
  await expect(page.getByTestId('clock')).toHaveText('15')

  // The page's clock stands ahead of the server's: after enough signs of the server it would be brought back to it. So it is reloaded
  // at once, and goes on from its own note, which is the later one.
  await demo.start(port)
  await page.reload()
  await creepTo(page, page.getByTestId('clock'))
  await expect(page.getByTestId('clock')).toHaveText(/^1[45]$/)
  await expect(page.getByText('No server.')).toHaveCount(0)

  // Another browser sees the same class at the same place: it was the server that kept it.
  await expect.poll(() => commandsOf(page)).toEqual(['start', 'skip', 'addTen'])
})

test('a rotation shows every station, and back, pause and end work', async ({ page, demo }) => {
  await page.clock.install()
  await page.goto(`${await classOf(demo, 'Six around the loft')}/lead`)
  await expect(page.getByRole('button', { name: 'Start the class' })).toBeVisible()
  await stopClock(page)
  await page.keyboard.press('Space')
  for (let i = 0; i < 8; i++) await page.keyboard.press('n')
  await page.clock.runFor(200)
  await expect(page.getByRole('heading', { name: 'Go 1 of 6' })).toBeVisible()
  await expect(page.getByText('Sides change after 20 s', { exact: true })).toBeVisible()
  await expect(page.getByRole('region', { name: 'All stations' }).getByRole('article')).toHaveCount(6)
  // The figures of the main options are there, and push no control out of sight.
  await expect(page.getByRole('region', { name: 'All stations' }).locator('dd svg:visible')).toHaveCount(6)
  await expect(page.getByRole('button', { name: 'End class' })).toBeInViewport({ ratio: 1 })
  await page.keyboard.press('b')
  await page.clock.runFor(200)
  await expect(page.getByRole('heading', { name: 'Get ready' })).toBeVisible()
  await page.getByRole('button', { name: 'End class' }).click()
  // Once is not enough: it only asks.
  await expect(page.getByRole('heading', { name: 'Done' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Press again to end' }).click()
  await expect(page.getByRole('heading', { name: 'Done' })).toBeVisible()
  await page.getByRole('button', { name: 'Not done: step back in' }).click()
  await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible()
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
  await expect(page.getByText('Ready when you are')).toBeVisible()
  await expect(page.getByTestId('clock')).toHaveText('30')
  await page.keyboard.press('ArrowRight')
  await page.clock.runFor(10_500)
  await expect(page.getByTestId('clock')).toHaveText('20')
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible()
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
  await page.getByRole('button', { name: 'Sound is on' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText('PAUSED')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Sound is on' })).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.getByText('PAUSED')).toHaveCount(0)
  await page.reload()
  await expect(page.getByText(/^Sound (is on|was on)/)).toBeVisible()

  // Past the talk and its lead-in to the first station, worked at for a moment; then the class ends.
  await page.keyboard.press('n')
  await page.keyboard.press('n')
  await expect(page.getByRole('heading', { name: 'Wall hinge drill' })).toBeVisible()
  await page.waitForTimeout(3500)
  const [add, end] = await Promise.all(
    ['Add 10 s', 'End class'].map((name) => page.getByRole('button', { name }).boundingBox()),
  )
  expect(end!.x - (add!.x + add!.width)).toBeGreaterThan(100)
  await page.getByRole('button', { name: 'End class' }).click()
  // Once is not enough: it only asks.
  await expect(page.getByRole('heading', { name: 'Done' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Press again to end' }).click()
  await expect(page.getByRole('heading', { name: 'Done' })).toBeVisible()
  await expect(page.getByRole('banner')).not.toContainText('left')
  await page.getByRole('link', { name: 'Write the log' }).click()
  await expect(page.getByRole('columnheader').filter({ hasText: /drill|stand|squat|lunge|hinge|bridge/ })).toHaveCount(
    1,
  )

  // A whole column at once, a row at once, and somebody who walked in.
  await page.getByLabel('All or none came').selectOption('none')
  await expect(page.getByText(/^0 of \d+ came/)).toBeVisible()
  await page.getByLabel('All or none came').selectOption('all')
  await page.getByLabel('Everyone at Wall hinge drill').selectOption('easier')
  const used = page.getByLabel(/, Wall hinge drill$/)
  for (const select of await used.all()) await expect(select.locator('option:checked')).toHaveText('easier')
  const before = await used.count()
  await page.getByLabel('Somebody new walked in').fill('Wanda Vane')
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
  await page.keyboard.press('n')
  await page.keyboard.press('n')
  await expect(page.getByRole('heading', { name: 'Wall hinge drill' })).toBeVisible()
  const drawn = () => page.locator('[data-moving] svg g').innerHTML()
  const begun = await drawn()
  await expect.poll(drawn).not.toBe(begun)

  await page.keyboard.press('Space')
  await expect(page.getByText('PAUSED')).toBeVisible()
  const stopped = await drawn()
  await page.waitForTimeout(600)
  expect(await drawn()).toBe(stopped)
  await page.reload()
  await expect(page.getByText('PAUSED')).toBeVisible()
  await expect.poll(drawn).toBe(stopped)
  await page.keyboard.press('Space')
  await expect.poll(drawn).not.toBe(stopped)
})
