// What must be quick on screen, in headless Chromium: node bench/screens.mjs, with the app built and the browser tests'
// packages there. A class of twelve blocks and forty stations: typing a dose, dragging; and the library of moves.
import { createRequire } from 'node:module'
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const root = join(import.meta.dirname, '..')
const { chromium } = createRequire(join(root, 'tests/browser/package.json'))('@playwright/test')
const folder = mkdtempSync(join(tmpdir(), 'halterion-screens-'))
const server = spawn('dotnet', [join(root, '.build/app/Halterion.Web.dll'), '--port', '0', '--data', folder])
const address = await new Promise((resolve) =>
  server.stdout.on('data', (text) => resolve(/(http:\/\/\S+)/.exec(String(text))?.[1])),
)
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]
const say = (name, time, aim) => console.log(`${name.padEnd(32)} ${time.toFixed(0).padStart(5)} ms, aim ${aim} ms, ${(time / aim).toFixed(2)} of it`)

try {
  const option = (tier, move) => ({ tier, move })
  const station = () => ({
    dose: [{ kind: 'time', amount: 20 }],
    options: [option('harder', 'goblet-squat'), option('main', 'squat'), option('easier', 'chair-squat')],
  })
  const blocks = Array.from({ length: 12 }, (_, b) => ({
    name: `Block ${b + 1}`,
    phase: 'main',
    rounds: 2,
    betweenStations: 10,
    stations: Array.from({ length: b < 4 ? 4 : 3 }, station),
  }))
  const made = await fetch(`${address}/api/classes/file`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ format: 'halterion-class', version: 1, title: 'Forty', slotMinutes: 60, blocks }),
  })
  const { id } = await made.json()
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(`${address}/classes/${id}/build`)
  await page.getByTestId('verdict').waitFor()
  await page.waitForTimeout(1500)

  // What a browser fetches until the first screen stands, as it comes over the wire.
  const first = await browser.newPage()
  await first.goto(address, { waitUntil: 'networkidle' })
  const kilobytes = await first.evaluate(
    () =>
      performance.getEntriesByType('resource').reduce((sum, r) => sum + r.transferSize, performance.getEntriesByType('navigation')[0].transferSize) / 1000,
  )
  console.log(`${'first load'.padEnd(32)} ${kilobytes.toFixed(0).padStart(5)} kB, aim 180 kB, ${(kilobytes / 180).toFixed(2)} of it`)

  // From a key to the new total, as often as it changes.
  const times = []
  const dose = page.getByLabel(/^Dose of/).first()
  for (let i = 0; i < 12; i++) {
    const before = await page.getByTestId('verdict').textContent()
    await dose.fill('')
    await page.waitForTimeout(400)
    times.push(
      await page.evaluate(
        ([label, text, old]) =>
          new Promise((resolve) => {
            const field = [...document.querySelectorAll('input')].find((i) => i.getAttribute('aria-label')?.startsWith(label))
            const verdict = document.querySelector('[data-testid=verdict]')
            const start = performance.now()
            new MutationObserver((_, watcher) => {
              if (verdict.textContent === old) return
              watcher.disconnect()
              requestAnimationFrame(() => resolve(performance.now() - start))
            }).observe(verdict, { subtree: true, childList: true, characterData: true })
            Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(field, text)
            field.dispatchEvent(new Event('input', { bubbles: true }))
          }),
        ['Dose of', `${21 + i} s`, before],
      ),
    )
  }
  say('typing a dose, new total', median(times), 100)

  // The longest task while a station is dragged over the others.
  await page.evaluate(() => {
    window.longest = 0
    new PerformanceObserver((list) => list.getEntries().forEach((e) => (window.longest = Math.max(window.longest, e.duration)))).observe({ entryTypes: ['longtask'] })
  })
  const handle = await page.getByTitle('Drag to move').nth(1).boundingBox()
  await page.mouse.move(handle.x + 4, handle.y + 8)
  await page.mouse.down()
  for (let y = 0; y < 60; y++) {
    await page.mouse.move(handle.x + 200, handle.y + 8 + y * 6)
    await page.waitForTimeout(16)
  }
  say('longest frame while dragging', await page.evaluate(() => window.longest), 50)
  await page.mouse.up()

  const moves = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const start = Date.now()
  await moves.goto(`${address}/moves`)
  await moves.locator('svg').nth(60).waitFor({ state: 'attached' })
  await moves.getByLabel('Look for').fill('split')
  await moves.getByText(/ of 135 moves/).waitFor()
  say('library, until a search is answered', Date.now() - start, 1000)
} finally {
  await browser.close()
  server.kill()
  rmSync(folder, { recursive: true, force: true })
}
