// Makes docs/screenshots anew from the demo studio: node tests/browser/screenshots.mjs [NAME…], with the app built.
import { chromium } from '@playwright/test'
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const root = join(import.meta.dirname, '../..')
const folder = mkdtempSync(join(tmpdir(), 'halterion-pictures-'))
const server = spawn('dotnet', [
  join(root, '.build/app/Halterion.Web.dll'),
  '--port',
  '0',
  '--data',
  folder,
  '--demo',
  'true',
])
const address = await new Promise((resolve) =>
  server.stdout.on('data', (text) => resolve(/(http:\/\/\S+)/.exec(String(text))?.[1])),
)
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
try {
  const { classes } = await (await fetch(`${address}/api/classes`)).json()
  const at = (title, screen) => `/classes/${classes.find((c) => c.title === title).id}/${screen}`
  const shots = [
    ['classes', '/', [1280, 800], []],
    ['people', '/people', [1280, 800], []],
    [
      'room',
      at('Six around the loft', 'room'),
      [1280, 1100],
      [],
      (page) => page.getByRole('button', { name: /^Greta Holm at Wide squat/ }).click(),
    ],
    ['floor', at('Six around the loft', 'room?view=floor'), [1280, 1100], []],
    ['ready', at('Full moon circuit', 'ready'), [1280, 1100], []],
    ['build', at('Full moon circuit', 'build'), [1280, 800], []],
    [
      'station',
      at('Full moon circuit', 'build'),
      [1280, 900],
      [],
      (page) =>
        page
          .getByRole('article', { name: /Split squat/ })
          .locator('button[aria-expanded]')
          .click(),
    ],
    [
      'picker',
      at('Full moon circuit', 'build'),
      [1280, 900],
      [],
      async (page) => {
        await page
          .getByRole('article', { name: /Split squat/ })
          .locator('button[aria-expanded]')
          .click()
        await page.getByRole('button', { name: 'main option: Split squat' }).click()
        await page.getByRole('button', { name: 'For a sore knee' }).click()
      },
    ],
    ['weeks', '/weeks', [1280, 1000], []],
    ['cards', at('Full moon circuit', 'cards'), [1280, 1000], []],
    [
      'drafts',
      '/classes/new',
      [1280, 1290],
      [],
      async (page) => {
        await page.getByRole('button', { name: 'Draft it' }).click()
        await page.getByRole('button', { name: 'Take this one' }).first().waitFor({ timeout: 60_000 })
      },
    ],
    ['moves', '/moves', [1280, 800], []],
    ['move', '/moves/single-leg-deadlift', [1280, 900], []],
    ['build-phone', at('Six around the loft', 'build'), [390, 844], []],
    ['log', at('Six around the loft, first time', 'log'), [1280, 800], [], (page) => page.getByText(/of \d+ came/).waitFor()],
    ['lead-rotation', at('Six around the loft', 'lead'), [1280, 800], Array(8).fill('n')],
    ['wall', '/wall', [1920, 1080], []],
    ['remote', '/remote', [390, 844], []],
    ['lead', at('Full moon circuit', 'lead'), [1280, 800], Array(10).fill('n')],
  ]
  const only = process.argv.slice(2)
  for (const [name, path, [width, height], keys, extra] of shots) {
    if (only.length > 0 && !only.includes(name)) continue
    const page = await browser.newPage({ viewport: { width, height } })
    await fetch(`${address}/api/settings/preferences`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ scheme: extra === 'dark' ? 'dark' : 'light', heights: [20, 30, 40, 45] }),
    })
    await page.goto(address + path)
    await page.waitForTimeout(1200)
    if (typeof extra === 'function') {
      await extra(page)
      await page.waitForTimeout(1500)
    } else if (extra && extra !== 'dark') {
      await page.getByText(extra, { exact: true }).click()
      await page.waitForTimeout(1000)
    }
    if (keys.length > 0) {
      await page.getByRole('button', { name: 'Start the class' }).click()
      // Two skips in a moment would be one.
      for (const key of keys) {
        await page.keyboard.press(key)
        await page.waitForTimeout(650)
      }
      await page.waitForTimeout(1500)
    }
    await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) })
    await page.close()
  }
} finally {
  await browser.close()
  server.kill()
  rmSync(folder, { recursive: true, force: true })
}
