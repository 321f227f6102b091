import { get } from 'node:http'
import { hostname } from 'node:os'
import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { bookedAgo, classOf, expect, skip, stopClock, test } from './studio'

const clockOf = async (page: Page) => (await page.getByTestId('class-left').textContent()) ?? ''

const seconds = (shown: string) => shown.split(':').reduce((sum, part) => 60 * sum + Number(part), 0)

test('started six minutes late, the class ends on time with the stretch whole, and that can be taken back', async ({
  page,
  demo,
}) => {
  await page.goto(await bookedAgo(demo, 'Six around the loft', 6))
  const ways = page.getByTestId('ways')
  await expect(ways).toContainText('late')
  // Nothing is changed unasked.
  expect(await clockOf(page)).toBe('35:00')
  await page.getByRole('button', { name: 'Start the class' }).click()
  await ways.getByRole('button').first().click()
  await expect(page.getByTestId('ends')).toContainText(/on time|early/)
  const lead = page.url().split('/').at(-1)
  const scenes = () =>
    page.evaluate(async (session) => {
      const answer = await fetch(`/api/sessions/${session}/lead`, { method: 'POST' })
      const { script, commands } = (await answer.json()) as {
        script: { scenes: { blockName: string; kind: string }[] }
        commands: { kind: string; payload?: { shifts?: { scene: number; by: number }[] } }[]
      }
      return { scenes: script.scenes, shifts: commands.flatMap((c) => c.payload?.shifts ?? []) }
    }, lead)
  await expect.poll(async () => (await scenes()).shifts.length).toBeGreaterThan(5)
  const { scenes: all, shifts } = await scenes()
  expect(shifts.every(({ scene, by }) => by < 0 && all[scene]!.blockName !== 'Wind down')).toBe(true)

  const short = seconds(await clockOf(page))
  await ways.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => seconds(await clockOf(page))).toBeGreaterThan(short + 300)
  await expect(page.getByTestId('ends')).toContainText('late')
})

test('the wall and the phone follow, the phone leads, and the wall shows nothing private', async ({
  page,
  context,
  demo,
}) => {
  const address = await bookedAgo(demo, 'Six around the loft', 0)
  await page.goto(address)
  const heard: string[] = []
  const wall = await context.newPage()
  wall.on(
    'response',
    (answer) =>
      void answer
        .text()
        .then((t) => heard.push(t))
        .catch(() => undefined),
  )
  await wall.goto(address.replace('/lead/', '/wall/'))
  const phone = await context.newPage()
  await phone.setViewportSize({ width: 390, height: 844 })
  await phone.goto(address.replace('/lead/', '/remote/'))

  // Somebody is noted on the instructor's screen: that is nobody else's.
  await expect(page.getByRole('button', { name: 'Start the class' })).toBeVisible()
  await page.keyboard.press('a')
  await page.getByLabel('In a few words').fill('planted knee words')
  await page.getByLabel('Of whom').selectOption({ label: 'Greta Holm' })
  await page.getByRole('button', { name: 'Save note' }).click()
  await page.getByRole('button', { name: 'Greta Holm' }).click()
  await expect(page.getByText('1 of 14 are here')).toBeVisible()
  await page.keyboard.press('Escape')

  await page.getByRole('button', { name: 'Start the class' }).click()
  await skip(page, 8)
  await expect(wall.getByRole('heading', { name: 'Interval 1 of 6' })).toBeVisible()
  await expect(wall.getByRole('region', { name: 'All stations' }).getByRole('article')).toHaveCount(6)
  await expect(phone.getByRole('heading', { name: 'Interval 1 of 6' })).toBeVisible()
  await expect(phone.getByRole('list', { name: 'Who needs what here' })).toBeVisible()
  const shown = await Promise.all([page, wall, phone].map((p) => p.getByTestId('clock').textContent()))
  const read = shown.map((text) => parseInt(text!))
  expect(Math.max(...read) - Math.min(...read)).toBeLessThanOrEqual(1)

  await phone.getByRole('button', { name: 'Pause' }).click()
  await expect(page.getByText('Paused', { exact: true })).toBeVisible()
  await expect(wall.getByText('Paused', { exact: true })).toBeVisible()
  await phone.getByRole('button', { name: '+10' }).click()
  await expect(wall.getByTestId('clock')).toHaveText(/^(4|5)\d$/)

  const people = (await (await fetch(`${demo.address}/api/people`)).json()) as { name: string; note?: string }[]
  const private_ = [
    'planted',
    'knee care',
    ...people.map((p) => p.name),
    ...people.map((p) => p.note ?? '').filter((n) => n.length > 8),
  ]
  const seen =
    heard.filter((t) => !t.startsWith('import') && !t.includes('function')).join('\n') +
    (await wall.locator('body').innerText())
  expect(private_.filter((word) => seen.includes(word))).toEqual([])
  expect(heard.length).toBeGreaterThan(3)

  // The log is filled in with who was ticked, and with the note.
  await page.getByRole('button', { name: 'End class' }).click()
  await page.getByRole('button', { name: 'Press again to end' }).click()
  await page.getByRole('link', { name: 'Write the log' }).click()
  await expect(page.getByText(/^1 of \d+ came/)).toBeVisible()
  await expect(
    page.locator('input[value*="planted knee words"], textarea:has-text("planted knee words")').first(),
  ).toBeVisible()
})

test('a phone is let in by a code over HTTPS, leads, and is sent away at once', async ({ page, browser, open }) => {
  await page.goto(await bookedAgo(open, 'Full moon circuit', 0))
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.getByRole('button', { name: 'Screens' }).click()
  await page.getByRole('button', { name: 'Pair a phone' }).click()
  const code = (await page.getByTestId('code').textContent())!.trim()
  expect(code).toMatch(/^\d{6}$/)
  await expect(page.getByRole('img', { name: /QR code for https:/ })).toBeVisible()

  // By a name of the network nobody is the owner, though the question comes from this machine.
  const door = new URL(open.address)
  for (const host of [new URL(open.outside).hostname, hostname()]) {
    const headers = { Host: `${host}:${door.port}` }
    const status = await new Promise((resolve) =>
      get({ host: '127.0.0.1', port: door.port, path: '/api/people', headers }, (answer) => resolve(answer.statusCode)),
    )
    expect(status).toBe(401)
  }

  const outside = await browser.newContext({ ignoreHTTPSErrors: true, viewport: { width: 390, height: 844 } })
  const phone = await outside.newPage()
  await phone.goto(`${open.outside}/remote`)
  await expect(
    phone.getByText('This device is not paired', { exact: false }).or(phone.getByText('Get a code', { exact: false })),
  ).toBeVisible()
  await phone.goto(`${open.outside}/pair`)
  await phone.getByLabel('Six-digit code').fill('000000')
  await phone.getByRole('button', { name: 'Pair' }).click()
  await expect(phone.getByRole('alert')).toContainText('No code like this is open')
  await phone.goto(`${open.outside}/pair#${code}`)
  await phone.reload()
  await phone.getByRole('button', { name: 'Pair' }).click()
  await phone.getByRole('button', { name: 'Pause' }).click()
  await expect(page.getByRole('button', { name: 'Carry on' })).toBeVisible()
  // What is the instructor's alone stays shut.
  expect(await phone.evaluate(async () => (await fetch('/api/people')).status)).toBe(403)

  await expect(page.getByText(/(phone|screen|tablet) \d*\s*\(phone\)/)).toBeVisible({
    timeout: 10_000,
  })
  await page.getByRole('button', { name: 'Disconnect' }).click()
  await expect(page.getByRole('button', { name: 'Disconnect' })).toHaveCount(0)
  expect(await phone.evaluate(async () => (await fetch('/api/wall')).status)).toBe(401)
  await outside.close()
})

test('sixty seconds without a server, ten minutes asleep: the class is where it should be, and says so', async ({
  page,
  demo,
}) => {
  await page.clock.install()
  await page.goto(`${await classOf(demo, 'Six around the loft')}/lead`)
  await expect(page.getByRole('button', { name: 'Start the class' })).toBeVisible()
  await stopClock(page)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.clock.runFor(10_000)
  const before = seconds(await clockOf(page))
  await demo.kill()
  await page.clock.fastForward(60_000)
  await page.clock.runFor(1000)
  expect(Math.abs(before - 61 - seconds(await clockOf(page)))).toBeLessThanOrEqual(1)
  await page.clock.fastForward(600_000)
  await page.clock.runFor(1000)
  expect(Math.abs(before - 662 - seconds(await clockOf(page)))).toBeLessThanOrEqual(1)
  await expect(page.getByText(/This computer was asleep for/)).toBeVisible()
})

test('a class is rehearsed at eight times its speed, with what is said, and nothing is started', async ({
  page,
  demo,
}) => {
  await page.goto(await bookedAgo(demo, 'Six around the loft', 0))
  await page.getByRole('button', { name: 'Voice' }).click()
  await page.getByRole('link', { name: 'Rehearse the whole class' }).click()
  await page.getByRole('button', { name: '8×' }).click()
  // Space plays, whatever was pressed last.
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible()
  await expect(page.getByRole('button', { name: '8×' })).toHaveAttribute('aria-pressed', 'true')
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Skip' }).click()
  await expect(page.getByTestId('captions')).toContainText('Next', { timeout: 40_000 })
  await expect(page.getByTestId('rehearsed')).not.toContainText('0:00')
  await page.goto(demo.address)
  await expect(page.getByText('in progress')).toHaveCount(0)
})

test('the page that is taken along leads the class with no server', async ({ page, demo }) => {
  const address = await classOf(demo, 'Full moon circuit')
  await page.goto(`${address}/cards`)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', { name: 'Export this class' })
      .click()
      .then(() => page.getByRole('menuitem', { name: /page that leads/ }).click()),
  ])
  const path = `${demo.folder}/taken.html`
  await file.saveAs(path)
  expect(readFileSync(path, 'utf8')).not.toMatch(/https?:\/\/(?!www\.w3\.org)/)
  await demo.kill()
  await page.clock.install()
  await page.goto(`file://${path}`)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.clock.runFor(5000)
  await expect(page.locator('#clock')).toHaveText(/^(1:5\d|5\d|2:5\d)$/)
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Skip' }).click()
  await page.clock.runFor(200)
  await expect(page.getByRole('heading', { name: 'Wall hinge drill' })).toBeVisible()
  await expect(page.locator('#cards svg').first()).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Carry on' })).toBeVisible()
})
