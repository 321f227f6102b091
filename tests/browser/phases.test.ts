import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import type { Server } from './studio'
import { commandsOf, expect, skip, test } from './studio'

const text = readFileSync(new URL('../every-phase.json', import.meta.url), 'utf8')
const json = { 'Content-Type': 'application/json' }

interface Option {
  id: string
  tier: string
}
interface Plan {
  blocks: { id: string; stations?: { id: string; options: Option[] }[] }[]
}
interface SpanNow {
  kind: string
  block: number
  station?: number | null
  part?: number | null
  side?: string | null
}

/** A class with every phase there is, opened to be led; and its spans as evaluation has them. */
async function everyPhase(studio: Server, title = 'Every phase') {
  const post = async <T>(path: string, body: string) =>
    (await (await fetch(studio.address + path, { method: 'POST', headers: json, body })).json()) as T
  const file = text.replace('Every phase', title)
  const made = await post<{ id: string; sessions: { id: string }[] }>('/api/classes/file', file)
  const { spans } = await post<{ spans: SpanNow[] }>('/api/plans/evaluate', file)
  const session = made.sessions[0]!.id
  const plan = ((await (await fetch(`${studio.address}/api/classes/${made.id}`)).json()) as { plan: Plan }).plan
  return { id: made.id, session, spans, plan, lead: `${studio.address}/lead/${session}` }
}

/** Sends a tap as another screen would; where the page's own taps came first, once more. */
async function tap(studio: Server, session: string, kind: string, payload?: object) {
  const command = { id: crypto.randomUUID(), kind, at: Date.now(), device: 'other', ...(payload && { payload }) }
  const send = async () => {
    const open = await fetch(`${studio.address}/api/sessions/${session}/lead`, { method: 'POST' })
    const lead = (await open.json()) as { id: string; commands: unknown[] }
    const sent = await fetch(`${studio.address}/api/leads/${lead.id}/commands`, {
      method: 'POST',
      headers: json,
      body: JSON.stringify({ expected: lead.commands.length, commands: [{ ...command, at: Date.now() }] }),
    })
    return sent.status
  }
  await expect.poll(send).toBe(200)
}

/** What a screen shows of the stretch under way. */
const shown = async (page: Page) => ({
  film: await page.getByTestId('film').getAttribute('data-shows'),
  side: (await page.getByTestId('side').count()) ? await page.getByTestId('side').textContent() : '',
  hand: (await page.getByTestId('hand').count()) ? await page.getByTestId('hand').textContent() : '',
})

/** Said here by hand, from the class file: which side is which in these moves, and the hand by the load's own side. */
const sides: Record<string, Record<string, [string, string]>> = {
  lunge: { left: ['left foot in front', 'weight right'], right: ['right foot in front', 'weight left'] },
  'string-a': { left: ['step to the left', ''], right: ['step to the right', ''] },
  'string-b': { left: ['stand on your left', 'weight left'], right: ['stand on your right', 'weight right'] },
}

test('film, side and hand are those of the part under way, on the lead and on the wall', async ({
  page,
  context,
  studio,
}) => {
  const { session, spans, plan, lead } = await everyPhase(studio)
  await page.goto(lead)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.keyboard.press('Space')
  const wall = await context.newPage()
  await wall.goto(lead.replace('/lead/', '/wall/'))
  let moments = 0
  for (const [scene, span] of spans.entries()) {
    if (span.kind !== 'work' || span.station == null || span.part == null) continue
    await tap(studio, session, 'jump', { scene })
    const station = plan.blocks[span.block]!.stations![span.station]!
    const main = station.options.find((option) => option.tier === 'main')!
    const side = span.side ?? 'both'
    const [words, hand] = sides[station.id]?.[side] ?? [side === 'alternate' ? 'alternating sides' : '', '']
    const right = { film: `${main.id} ${span.part + 1} ${side} own`, side: words, hand }
    for (const screen of [page, wall])
      await expect.poll(() => shown(screen), { message: `scene ${scene}` }).toEqual(right)
    moments++
  }
  expect(moments).toBeGreaterThanOrEqual(25)
})

test('a count agrees with the clock of the class, and a pause stops both', async ({ page, studio }) => {
  const { session, spans, lead } = await everyPhase(studio)
  await page.goto(lead)
  await page.getByRole('button', { name: 'Start the class' }).click()
  // Eight reps of four seconds, counted down.
  await tap(studio, session, 'jump', { scene: spans.findIndex((s) => s.kind === 'work') })
  await expect(page.getByTestId('count')).toHaveText('8')
  await expect(page.getByTestId('count')).toHaveText('7', { timeout: 8000 })
  await page.keyboard.press('Space')
  const clock = Number(await page.getByTestId('clock').textContent())
  expect(Math.ceil(clock / 4)).toBe(7)
  await page.waitForTimeout(1200)
  await expect(page.getByTestId('clock')).toHaveText(String(clock))
})

test('what is shown before, between and beside the work', async ({ page, context, studio }) => {
  const { session, spans, lead } = await everyPhase(studio)
  await page.goto(lead)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.keyboard.press('Space')
  const wall = await context.newPage()
  await wall.goto(lead.replace('/lead/', '/wall/'))
  const phone = await context.newPage()
  await phone.setViewportSize({ width: 390, height: 844 })
  await phone.goto(lead.replace('/lead/', '/remote/'))
  const to = (scene: number) => tap(studio, session, 'jump', { scene })
  const first = (of: Partial<SpanNow>, skip = 0) =>
    spans.findIndex(
      (s, i) => i >= skip && Object.entries(of).every(([key, value]) => s[key as keyof SpanNow] === value),
    )

  // The walk-through, from the front: the instructor shows, the room watches.
  await to(0)
  await expect(page.getByRole('heading', { name: 'Demo: Split squat' })).toBeVisible()
  await expect(wall.getByRole('heading', { name: 'Watch: Split squat' })).toBeVisible()
  await expect(wall.getByTestId('film')).toHaveAttribute('data-shows', / front$/)

  // Before the work: what comes next, marked so, on all three.
  await to(first({ kind: 'leadIn' }))
  for (const screen of [page, wall, phone]) {
    await expect(screen.getByRole('heading', { name: 'next Split squat' })).toBeVisible()
    await expect(screen.getByTestId('side')).toHaveText('left foot in front')
  }
  await expect(phone.getByTestId('hand')).toHaveText('weight in your right hand')

  // A recovery is itself.
  await to(first({ kind: 'rest' }))
  await expect(page.getByRole('heading', { name: 'Recovery: March' })).toBeVisible()
  await expect(page.getByTestId('next')).toContainText('Split squat')

  // Turns: who works, and what the other does; a drop set: its kilograms.
  const turns = spans.findIndex((s) => s.block === 3 && s.station === 1)
  await to(turns)
  for (const screen of [page, wall, phone])
    await expect(screen.getByText('First of you works, the other: march')).toBeVisible()
  await to(spans.findIndex((s) => s.block === 3 && s.part === 2))
  for (const screen of [page, wall, phone]) await expect(screen.getByText('12 kg')).toBeVisible()

  // At one's own pace every station with its dose.
  await to(spans.findIndex((s) => s.block === 5 && s.kind === 'work'))
  for (const dose of ['10 reps', '20 s hold', '8 reps']) {
    await expect(wall.getByText(dose)).toBeVisible()
    await expect(page.getByText(dose)).toBeVisible()
  }
})

/** Capital height over type size in this face, and millimetres a pixel of a screen of 14 inches with 16 to 10. */
const [CAPITAL, WIDTH_MM] = [0.72, 301.6]
/** h = 2 d tan(α ÷ 2); ISO 9241-303 has the angle. */
const least = (minutes: number, metres: number) => 2 * metres * 1000 * Math.tan((minutes / 60 / 2) * (Math.PI / 180))

for (const [width, height] of [
  [1280, 800],
  [1024, 640],
] as const) {
  test(`the lead is read at three metres from a fourteen-inch screen of ${width} by ${height}`, async ({
    page,
    studio,
  }) => {
    await page.setViewportSize({ width, height })
    const { session, spans, lead } = await everyPhase(studio)
    await page.goto(lead)
    await page.getByRole('button', { name: 'Start the class' }).click()
    await page.keyboard.press('Space')
    await expect.poll(() => commandsOf(page)).toEqual(['start', 'pause'])
    await tap(studio, session, 'jump', { scene: spans.findIndex((s) => s.kind === 'work') })
    await expect(page.getByTestId('side')).toBeVisible()
    const tall = async (element: ReturnType<Page['locator']>) =>
      (await element.evaluate((e) => parseFloat(getComputedStyle(e).fontSize))) * CAPITAL * (WIDTH_MM / width)
    const far = [page.locator('h1'), page.getByTestId('count'), page.getByTestId('side'), page.getByTestId('hand')]
    for (const element of far) expect(await tall(element)).toBeGreaterThanOrEqual(least(22, 3))
    expect(await tall(page.getByTestId('next'))).toBeGreaterThanOrEqual(least(16, 3))
    // Nothing lies over anything: what is read, and what is pressed.
    const boxes = await Promise.all(
      [...far, page.getByTestId('next'), page.getByRole('button', { name: 'Carry on' })].map(
        async (e) => (await e.boundingBox())!,
      ),
    )
    const overlaps = (a: (typeof boxes)[0], b: (typeof boxes)[0]) =>
      a.x < b.x + b.width - 1 && b.x < a.x + a.width - 1 && a.y < b.y + b.height - 1 && b.y < a.y + a.height - 1
    boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b) => expect(overlaps(a, b)).toBe(false)))
    expect(boxes.every((b) => b.y + b.height <= height)).toBe(true)
    await expect(page.getByTestId('round')).toContainText('Round 1 of 2')
    const round = await page
      .getByTestId('round')
      .locator('b')
      .evaluate((e) => e.scrollWidth <= e.clientWidth + 1)
    expect(round).toBe(true)
  })
}

test('ways are put away with a key, come back when more is lost, and are taken back after a reload', async ({
  page,
  studio,
}) => {
  const { id, session } = await everyPhase(studio)
  const sessions = await (await fetch(`${studio.address}/api/sessions/${session}`)).json()
  const start = new Date(Date.now() - 26 * 60_000)
  const local = new Date(start.getTime() - start.getTimezoneOffset() * 60_000).toISOString().slice(0, 16)
  const saved = await fetch(`${studio.address}/api/sessions/${session}`, {
    method: 'PUT',
    headers: { ...json, 'If-Match': `"${(sessions as { revision: number }).revision}"` },
    body: JSON.stringify({
      booking: {
        ...(sessions as { booking: object }).booking,
        startsAt: local,
        zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      },
    }),
  })
  expect(saved.status, await saved.text()).toBeLessThan(300)
  await page.goto(`${studio.address}/lead/${session}`)
  const ways = page.getByTestId('ways')
  await expect(ways).toContainText('late')
  await page.keyboard.press('0')
  await expect(ways).toHaveCount(0)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.keyboard.press('Space')
  // A pause opens nothing.
  await page.waitForTimeout(1500)
  await expect(ways).toHaveCount(0)
  await page.keyboard.press('Space')
  for (let i = 0; i < 4; i++) await page.keyboard.press('+')
  await expect(ways).toContainText('late')
  await ways.getByRole('button').first().click()
  await expect(ways).toContainText('Done:')
  await page.reload()
  await expect(ways.getByRole('button', { name: 'Undo' })).toBeVisible()
  // A browser is one device: nobody else leads.
  await expect(page.getByText('Another screen is leading')).toHaveCount(0)
  await page.keyboard.press('u')
  await expect(ways.getByText('Taken')).toHaveCount(0)
  void id
})

test('two classes in progress: a screen that was paired from neither says so and asks', async ({ page, studio }) => {
  const [one, two] = [await everyPhase(studio, 'The first'), await everyPhase(studio, 'The second')]
  await tap(studio, one.session, 'start')
  await page.goto(`${studio.address}/remote`)
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible()
  await tap(studio, two.session, 'start')
  // A tap would hit one of the two: the phone asks first; the wall shows the one that was started last.
  await page.goto(`${studio.address}/remote`)
  await expect(page.getByText('2 classes are in progress')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Pause' })).toHaveCount(0)
  await page.goto(`${studio.address}/wall`)
  await expect(page.getByText('2 classes are in progress')).toBeVisible()
  await page.getByRole('link', { name: /^The first/ }).click()
  await expect(page).toHaveURL(new RegExp(`/wall/${one.session}$`))
})

test('go to acts on Enter, and a slip of an arrow throws nothing back', async ({ page, studio }) => {
  const { lead } = await everyPhase(studio)
  await page.goto(lead)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await skip(page, 3)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Split squat')
  await page.getByLabel('Go to', { exact: true }).focus()
  await page.keyboard.press('ArrowDown')
  await page.waitForTimeout(300)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Split squat')
  await page.getByLabel('Go to', { exact: true }).selectOption({ label: 'Round' })
  await page.getByLabel('Go to', { exact: true }).press('Enter')
  await expect(page.getByRole('heading', { name: 'next Interval 1 of 4' })).toBeVisible()
})
