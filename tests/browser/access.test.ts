import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'
import { changeNow, classOf, expect, open, skip, test, withGaps } from './studio'

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** What axe finds on the page as it stands, by all of WCAG 2.2 A and AA and by its own advice. */
async function seriousFaults(page: Page, within?: string) {
  await page.evaluate(axe)
  return page.evaluate(async (part) => {
    const { violations } = await (
      window as unknown as {
        axe: {
          run: (
            part: string | Document,
            options: object,
          ) => Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>
        }
      }
    ).axe.run(part ?? document, {
      runOnly: { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] },
    })
    return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`)
  }, within)
}

/** What sticks out of the page sideways. */
const tooWide = (page: Page) =>
  page.evaluate(() =>
    document.documentElement.scrollWidth <= innerWidth
      ? []
      : [...document.querySelectorAll('body *')]
          .filter((element) => element.getBoundingClientRect().right > innerWidth + 1)
          .map((element) => element.outerHTML.slice(0, 160))
          .slice(0, 5),
  )

for (const [device, width, height] of [
  ['laptop', 1280, 800],
  ['phone', 390, 844],
  // 400 % of a laptop: WCAG 2.2, 1.4.10.
  ['narrow screen', 320, 640],
] as const) {
  test(`axe finds nothing serious on any screen, nor does any overflow, on a ${device}`, async ({ page, demo }) => {
    test.setTimeout(400_000)
    await page.setViewportSize({ width, height })
    const planned = await classOf(demo, 'Full moon circuit')
    const led = await classOf(demo, 'Six around the loft, first time')
    const rotation = await withGaps(demo)
    const people = (await (await fetch(`${demo.address}/api/people`)).json()) as { id: string; name: string }[]
    const greta = people.find((p) => p.name === 'Greta Holm')!.id
    const screens = [
      [demo.address, 'Classes'],
      [`${demo.address}/people`, 'People'],
      [`${demo.address}/people/import`, 'Import people from a table'],
      [`${demo.address}/people/slip`, 'Before you join'],
      [`${demo.address}/people/${greta}`, 'Signed off (you have seen them do it well)'],
      [`${demo.address}/rooms`, 'The old sail loft'],
      [`${rotation}/room`, 'No option for them yet'],
      [`${rotation}/room?view=stations`, 'Put out'],
      [`${rotation}/room?view=kit`, 'What to fetch'],
      [`${rotation}/room?view=floor`, 'How many are here'],
      [`${planned}/ready`, 'Still open'],
      [`${demo.address}/moves`, '172 moves'],
      [`${demo.address}/moves/hip-thrust`, 'Watch for'],
      [`${demo.address}/settings`, 'How you work'],
      [`${demo.address}/classes/new`, 'New class'],
      [`${planned}/cards`, 'Run sheet'],
      [`${planned}/brief`, 'Full moon circuit'],
      [`${planned}/build`, 'Circuit'],
      [`${led}/log`, 'first time'],
      [`${led}/lead`, 'Finished'],
      [`${planned}/lead`, 'Welcome'],
      [`${demo.address}/pair`, 'Pair this device'],
      [`${demo.address}/wall`, 'Next'],
      [`${demo.address}/remote`, 'Next'],
    ] as const
    const faults: string[] = []
    for (const [address, heading] of screens) {
      await page.goto(address)
      await expect(page.getByText(heading).first()).toBeVisible()
      await page.waitForLoadState('networkidle')
      const where = new URL(address).pathname.replaceAll(/[0-9a-f-]{36}/g, '…') + new URL(address).search
      faults.push(...(await seriousFaults(page)).map((fault) => `${where}: ${fault}`))
      faults.push(...(await tooWide(page)).map((wide) => `${where} is too wide: ${wide}`))
    }
    // All of them at once: one look at the list says what to mend.
    expect(faults).toEqual([])

    await fetch(`${demo.address}/api/desk/simulated`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ on: true }),
    })
    await page.goto(`${demo.address}/people/desk`)
    await expect(page.getByText('Who is Wren Alder?')).toBeVisible({ timeout: 20_000 })
    expect(await seriousFaults(page), 'desk').toEqual([])
    expect(await tooWide(page), 'desk').toEqual([])

    const drafts = page.getByRole('button', { name: 'Take this one' })
    await page.goto(`${demo.address}/classes/new`)
    await page.getByRole('button', { name: 'Draft it' }).click()
    await expect(drafts.first()).toBeVisible({ timeout: 60_000 })
    await page.getByText('How much each wish counts').click()
    expect(await seriousFaults(page), 'drafts').toEqual([])
    expect(await tooWide(page), 'drafts').toEqual([])
    await page.goto(`${rotation}/build`)
    await page.getByRole('button', { name: 'Vary' }).click()
    await page.getByRole('button', { name: 'Other moves, same shape' }).click()
    await expect(drafts.first()).toBeVisible({ timeout: 60_000 })
    await page.evaluate(() =>
      document.querySelectorAll('[role=dialog] details').forEach((d) => d.setAttribute('open', '')),
    )
    expect(await seriousFaults(page, '[role=dialog]'), 'versions').toEqual([])
    expect(await tooWide(page), 'versions').toEqual([])

    // All that is folded away, too; and by lamplight.
    await page.goto(`${planned}/build`)
    await page.getByRole('button', { name: '+ Add a block' }).click()
    for (const [what, name] of [
      ['block', 'Circuit'],
      ['block', 'Wind down'],
      ['station', 'Split squat'],
      ['station', 'Side lunge'],
    ] as const) {
      await open(page, what, name)
      await page.getByRole('button', { name: /^More settings for/ }).click()
      await page.evaluate(() => document.querySelectorAll('details').forEach((fold) => (fold.open = true)))
      expect(await seriousFaults(page), `unfolded ${name}`).toEqual([])
      expect(await tooWide(page), `unfolded ${name}`).toEqual([])
    }
    await page.getByLabel('Select station Side lunge').check()
    expect(await seriousFaults(page), 'chosen').toEqual([])
    expect(await tooWide(page), 'chosen').toEqual([])
    if (width > 900) {
      await page.keyboard.press('Control+k')
      // Of the window alone: what stands behind it is closed off while it is open.
      expect(await seriousFaults(page, '[role=dialog]'), 'palette').toEqual([])
      await page.keyboard.press('Escape')
    }
    await changeNow(demo, '/api/settings/preferences', { scheme: 'dark' })
    for (const address of [`${planned}/build`, `${planned}/brief`, `${demo.address}/classes/new`, demo.address]) {
      await page.goto(address)
      await page.waitForLoadState('networkidle')
      expect(await seriousFaults(page), `dark ${address}`).toEqual([])
    }

    await page.goto(`${rotation}/lead`)
    await expect(page.getByRole('button', { name: 'Start the class' })).toBeVisible()
    await page.keyboard.press('Space')
    await skip(page, 8)
    await expect(page.getByRole('heading', { name: 'Interval 1 of 6' })).toBeVisible()
    expect(await seriousFaults(page), 'rotation').toEqual([])
  })
}
