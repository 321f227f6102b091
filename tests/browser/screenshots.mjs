// Makes docs/screenshots anew from the demo studio: node tests/browser/screenshots.mjs, with the app built.
import { chromium } from '@playwright/test'
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const root = join(import.meta.dirname, '../..')
const folder = mkdtempSync(join(tmpdir(), 'halterion-pictures-'))
const server = spawn('dotnet', [join(root, '.build/app/Halterion.Web.dll'), '--port', '0', '--data', folder, '--demo', 'true'])
const address = await new Promise((resolve) =>
  server.stdout.on('data', (text) => resolve(/(http:\/\/\S+)/.exec(String(text))?.[1])),
)
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
try {
  const classes = await (await fetch(`${address}/api/classes`)).json()
  const at = (title, screen) => `/classes/${classes.find((c) => c.title === title).id}/${screen}`
  const shots = [
    ['classes', '/', [1280, 800], []],
    ['people', '/people', [1280, 800], []],
    ['brief', at('Full moon circuit', 'brief'), [1280, 800], []],
    ['build', at('Full moon circuit', 'build'), [1280, 800], []],
    ['build-phone', at('Six around the loft', 'build'), [390, 844], []],
    ['log', at('Six around the loft, first time', 'log'), [1280, 800], []],
    ['lead', at('Full moon circuit', 'lead'), [1280, 800], Array(10).fill('n')],
    ['lead-rotation', at('Six around the loft', 'lead'), [1280, 800], Array(8).fill('n')],
  ]
  for (const [name, path, [width, height], keys] of shots) {
    const page = await browser.newPage({ viewport: { width, height } })
    await page.goto(address + path)
    await page.waitForTimeout(1200)
    if (keys.length > 0) {
      await page.getByRole('button', { name: 'Start the class' }).click()
      for (const key of keys) await page.keyboard.press(key)
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
