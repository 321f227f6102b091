// What a builder waits for, in a real browser on a class of 12 blocks and 40 stations: node bench/screens.mjs, with the
// app built. Medians of this machine; what matters is the ratio to the aim.
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const root = join(import.meta.dirname, '..')
const { chromium } = createRequire(join(root, 'tests/browser/package.json'))('@playwright/test')
const folder = mkdtempSync(join(tmpdir(), 'halterion-bench-'))
const server = spawn('dotnet', [
  join(root, '.build/app/Halterion.Web.dll'),
  '--port',
  '0',
  '--data',
  folder,
  '--demo',
  'false',
])
const address = await new Promise((resolve) =>
  server.stdout.on('data', (text) => resolve(/(http:\/\/\S+)/.exec(String(text))?.[1])),
)
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})

const median = (times) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)]
const say = (name, times, aim) =>
  console.log(
    `${name.padEnd(34)} ${median(times).toFixed(0).padStart(5)} ms median, ${Math.max(...times).toFixed(0)} ms worst, ` +
      `aim ${aim} ms, ${(median(times) / aim).toFixed(2)} of it`,
  )

try {
  const moves = ['squat', 'split-squat', 'hip-hinge', 'glute-bridge', 'side-lunge', 'reverse-lunge']
  let next = 0
  const blocks = Array.from({ length: 12 }, (_, b) => ({
    name: `Block ${b + 1}`,
    phase: 'main',
    rounds: 2,
    betweenStations: 15,
    stations: Array.from({ length: b < 4 ? 4 : 3 }, () => ({
      dose: [{ kind: 'time', amount: 20 }],
      options: [{ tier: 'main', move: moves[next++ % moves.length] }],
    })),
  }))
  const opened = await fetch(`${address}/api/classes/file`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ format: 'halterion-class', version: 1, title: 'Bench', slotMinutes: 60, blocks }),
  })
  const { id } = await opened.json()
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(address)
  await page.waitForLoadState('networkidle')

  // What a browser fetches until the first screen stands, as it comes over the wire.
  const first = await (await browser.newContext()).newPage()
  await first.goto(address, { waitUntil: 'networkidle' })
  const kilobytes = await first.evaluate(
    () =>
      performance
        .getEntriesByType('resource')
        .reduce((sum, r) => sum + r.transferSize, performance.getEntriesByType('navigation')[0].transferSize) / 1000,
  )
  await first.close()
  console.log(
    `${'first load'.padEnd(34)} ${kilobytes.toFixed(0).padStart(5)} kB, aim 180 kB, ${(kilobytes / 180).toFixed(2)} of it`,
  )

  const opening = []
  for (let i = 0; i < 7; i++) {
    await page.goto(address)
    await page.waitForLoadState('networkidle')
    opening.push(
      await page.evaluate(
        (to) =>
          new Promise((resolve) => {
            const start = performance.now()
            const look = () =>
              document.querySelectorAll('article[data-station]').length === 40 &&
              document.querySelector('[data-testid=verdict]')
                ? resolve(performance.now() - start)
                : requestAnimationFrame(look)
            // As a link does: within the app.
            ;[...document.querySelectorAll('a')].find((a) => a.getAttribute('href')?.startsWith(to))?.click()
            look()
          }),
        `/classes/${id}`,
      ),
    )
  }
  say('a class of 40 stations opened', opening, 500)

  await page.locator('article[data-station] button[aria-expanded]').first().click()
  const dose = page.getByLabel(/^Dose of/)
  const total = () =>
    page.evaluate(
      () =>
        new Promise((resolve) => {
          const verdict = document.querySelector('[data-testid=verdict]')
          const before = verdict.textContent
          document.addEventListener(
            'keydown',
            () => {
              const start = performance.now()
              const look = () =>
                verdict.textContent !== before ? resolve(performance.now() - start) : setTimeout(look, 1)
              look()
            },
            { once: true, capture: true },
          )
        }),
    )
  const typed = []
  for (let i = 0; i < 11; i++) {
    await dose.fill(`${21 + i} s`)
    const waiting = total()
    await page.waitForTimeout(20)
    await dose.press('Enter')
    typed.push(await waiting)
    await page.waitForTimeout(150)
  }
  say('a typed dose to the new total', typed, 100)

  const swapped = []
  for (let i = 0; i < 7; i++) {
    const to = i % 2 === 0 ? 'Goblet squat' : 'Box squat'
    await page.getByRole('button', { name: /^main option:/ }).click()
    await page.getByLabel('Look for').fill(to)
    await page.getByRole('listbox').getByRole('option').first().filter({ hasText: to }).waitFor()
    const waiting = page.evaluate(
      (name) =>
        new Promise((resolve) => {
          document.addEventListener(
            'keydown',
            () => {
              const start = performance.now()
              const look = () =>
                document.querySelector('article[data-open=true]')?.getAttribute('aria-label')?.endsWith(name)
                  ? resolve(performance.now() - start)
                  : setTimeout(look, 1)
              look()
            },
            { once: true, capture: true },
          )
        }),
      to,
    )
    await page.waitForTimeout(20)
    await page.keyboard.press('Enter')
    swapped.push(await waiting)
    await page.waitForTimeout(200)
  }
  say('a move swapped', swapped, 150)

  // What an edit sends and is sent: one save and one look.
  const sent = []
  const count = async (request) => {
    const { requestBodySize, responseBodySize } = await request.sizes()
    sent.push({
      what: `${request.method()} ${new URL(request.url()).pathname.split('/').at(-1)}`,
      bytes: requestBodySize + responseBodySize,
    })
  }
  await page.waitForTimeout(2000)
  page.on('requestfinished', count)
  await page
    .getByRole('button', { name: /^Copy station/ })
    .first()
    .click()
  await page.waitForTimeout(4000)
  page.off('requestfinished', count)
  const bytes = sent.reduce((sum, r) => sum + r.bytes, 0)
  console.log(
    `${'requests of a copied station'.padEnd(34)} ${String(sent.length).padStart(5)}, aim 2, ` +
      `${(bytes / 1000).toFixed(0)} kB: ${sent.map((r) => r.what).join(', ')}`,
  )

  await page.keyboard.press('Escape')
  const handles = page.getByTitle('Drag to move')
  const [from, to] = [await handles.nth(2).boundingBox(), await handles.nth(12).boundingBox()]
  await page.evaluate(() => {
    window.gaps = []
    let last = performance.now()
    const tick = (now) => {
      window.gaps.push(now - last)
      last = now
      window.ticking = requestAnimationFrame(tick)
    }
    window.ticking = requestAnimationFrame(tick)
  })
  await page.mouse.move(from.x + 5, from.y + 9)
  await page.mouse.down()
  for (let i = 1; i <= 60; i++) await page.mouse.move(from.x + 5, from.y + 9 + ((to.y - from.y) * i) / 60)
  const gaps = await page.evaluate(() => {
    cancelAnimationFrame(window.ticking)
    return window.gaps.slice(2)
  })
  await page.mouse.up()
  say('frames while a station is dragged', gaps, 50)

  // Sixteen people at twelve stations: what a choice changes, from the click to the grid.
  const post = async (path, body) => {
    const answer = await fetch(address + path, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
    if (!answer.ok) throw new Error(await answer.text())
    return answer.json()
  }
  const tiers = ['main', 'easier', 'harder']
  const people = []
  for (let i = 0; i < 16; i++)
    people.push(
      (
        await post('/api/people', {
          name: `Person ${i + 1}`,
          level: { squat: tiers[i % 3], hinge: tiers[(i + 1) % 3] },
          limits: i % 4 === 0 ? [{ limit: 'knee' }] : [],
        })
      ).id,
    )
  const held = await post('/api/classes/file', {
    format: 'halterion-class',
    version: 1,
    title: 'Room',
    slotMinutes: 60,
    blocks: [1, 2].map((b) => ({
      name: `Circuit ${b}`,
      phase: 'main',
      rounds: 2,
      stations: moves.map((move) => ({
        dose: [{ kind: 'time', amount: 40 }],
        options: [
          { tier: 'main', move },
          { tier: 'easier', move, depth: 'half' },
          { tier: 'harder', move, load: { implement: 'dumbbell', kg: 8 } },
        ],
      })),
    })),
  })
  const session = held.sessions[0]
  const booking = { zone: 'Europe/Lisbon', headCount: 16, expected: people }
  const booked = await fetch(`${address}/api/sessions/${session.id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'If-Match': `"${session.version ?? 1}"` },
    body: JSON.stringify({ booking }),
  })
  if (!booked.ok) throw new Error(await booked.text())
  await page.goto(`${address}/classes/${held.id}/room`)
  const grid = page.getByRole('table', { name: 'What everyone does at every station' })
  await grid
    .getByRole('button', { name: /^Person 2 at/ })
    .first()
    .click()
  const panel = page.getByRole('region', { name: /^Person 2 at/ })
  const chosen = []
  for (let i = 0; i < 9; i++) {
    const button = panel.getByRole('button', { name: 'Choose' }).first()
    await button.waitFor()
    const waiting = page.evaluate(
      () =>
        new Promise((resolve) => {
          const cell = document.querySelector('table button[aria-pressed=true], table [aria-expanded=true]')
          const before = cell.getAttribute('aria-label')
          document.addEventListener(
            'click',
            () => {
              const start = performance.now()
              const look = () =>
                document
                  .querySelector('table button[aria-pressed=true], table [aria-expanded=true]')
                  ?.getAttribute('aria-label') !== before
                  ? resolve(performance.now() - start)
                  : setTimeout(look, 1)
              look()
            },
            { once: true, capture: true },
          )
        }),
    )
    await page.waitForTimeout(20)
    await button.click()
    chosen.push(await waiting)
    await page.waitForTimeout(200)
  }
  say('a choice to what it changes', chosen, 200)

  const library = []
  for (let i = 0; i < 3; i++) {
    const start = Date.now()
    await page.goto(`${address}/moves`)
    await page.locator('main svg').nth(60).waitFor({ state: 'attached' })
    library.push(Date.now() - start)
  }
  say('the library with its figures', library, 1000)

  // Twelve films at once, by what those of a few move pages cost the browser: all of its work, drawing and painting too.
  const films = []
  for (const move of ['squat', 'reverse-lunge', 'deadlift', 'glute-bridge', 'jump-squat', 'march']) {
    await page.goto(`${address}/moves/${move}`, { waitUntil: 'networkidle' })
    const figures = await page.locator('li[data-tier] svg').count()
    await page.getByRole('button', { name: 'Show it moving' }).click()
    await page.waitForTimeout(1500)
    const cdp = await page.context().newCDPSession(page)
    await cdp.send('Performance.enable')
    const busy = async () =>
      (await cdp.send('Performance.getMetrics')).metrics.find((m) => m.name === 'TaskDuration').value
    const before = await busy()
    const frames = await page.evaluate(
      () =>
        new Promise((resolve) => {
          let count = 0
          const end = performance.now() + 3000
          const tick = (now) => (++count, now < end ? requestAnimationFrame(tick) : resolve(count))
          requestAnimationFrame(tick)
        }),
    )
    films.push((12 * 1000 * ((await busy()) - before)) / frames / figures)
  }
  say('a frame of twelve films', films, 20)
} finally {
  await browser.close()
  server.kill()
  rmSync(folder, { recursive: true, force: true })
}
