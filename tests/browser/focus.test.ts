import type { Page } from '@playwright/test'
import { allFindings, classOf, expect, pick, test } from './studio'

/** What has the focus, by its role's name; "page" where it has fallen to the page. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const at = document.activeElement
    return !at || at === document.body ? 'page' : at.tagName === 'MAIN' ? 'main' : at.tagName
  })

/** Every field of an open card is changed and left with Tab: the focus is in the next, and what was typed stays. */
async function walkFields(page: Page) {
  const fields = page.locator('main input:visible:not([type=checkbox], [type=radio], [type=file])')
  const count = await fields.count()
  expect(count).toBeGreaterThan(5)
  for (let i = 0; i < count; i++) {
    const field = fields.nth(i)
    const name = (await field.getAttribute('aria-label')) ?? (await field.getAttribute('id')) ?? ''
    const value = await field.inputValue()
    const typed = /\d/.test(value) ? value.replace(/\d+/, (n) => String(Number(n) + 1)) : value === '' ? '20' : value
    await field.fill(typed)
    await page.keyboard.press('Tab')
    await page.waitForTimeout(400)
    expect(await focused(page), `after ${name}`).not.toMatch(/^(page|main)$/i)
    expect(await field.inputValue(), name).toMatch(new RegExp(`^${typed.split(' ')[0]}`))
  }
}

test('Tab leaves every field of a block and of a station for the next one, and nothing typed is lost', async ({
  page,
  demo,
}) => {
  test.setTimeout(120_000)
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/build`)
  await page
    .locator('[id^="block-"]')
    .nth(1)
    .getByRole('button', { name: /^Warm the hinges/ })
    .click()
  await page.getByRole('button', { name: /^More settings for Warm/ }).click()
  await walkFields(page)
  await page.getByRole('button', { name: /^Bridge family Glute bridge/ }).click()
  await page.getByRole('button', { name: 'More settings for Glute bridge' }).click()
  await walkFields(page)
})

test('what was pressed may go: the focus stays on the screen, and keys go on working', async ({ page, demo }) => {
  test.setTimeout(120_000)
  const address = await classOf(demo, 'Full moon circuit')
  await page.goto(`${address}/build`)
  const here = async (what: string) => {
    await page.waitForTimeout(500)
    await expect.poll(() => focused(page), { message: what }).not.toBe('page')
  }
  // Windows give the focus back, whatever closes them.
  await page.getByRole('button', { name: /^Bridge family Glute bridge/ }).click()
  const option = page.getByRole('button', { name: /^main option: / })
  await option.scrollIntoViewIfNeeded()
  const scrolled = await page.evaluate(() => scrollY)
  await option.click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.press('Escape')
  await here('the picker')
  await expect(option).toBeFocused()
  expect(await page.evaluate(() => scrollY)).toBe(scrolled)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.press('Escape')
  await here('the keys')
  // A repair that is taken is gone, and so is the finding that is accepted.
  const findings = page.getByRole('region', { name: 'Checks' })
  await allFindings(page)
  await findings
    .getByRole('button', { name: /^Make it fit/ })
    .first()
    .click()
  await here('a repair')
  await findings.getByText('Accept as is…').locator('visible=true').first().click()
  await here('a reason asked for')
  await page.keyboard.press('Escape')
  // A station that is moved to the top has no way up any more; one that is removed is gone.
  const up = page.getByRole('button', { name: 'Move station Glute bridge up' })
  for (let i = 0; i < 5 && (await up.isEnabled()); i++) await up.click()
  await here('moved to the top')
  await page.getByRole('button', { name: 'Remove station Glute bridge' }).click()
  await here('removed')
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /^Bridge family Glute bridge/ })).toBeVisible()

  // Another screen: its main part.
  await page.getByRole('link', { name: 'Classes' }).click()
  await expect(page.getByRole('heading', { name: 'Classes', exact: true })).toBeVisible()
  await here('another screen')
  await page.goto(`${demo.address}/moves`)
  await page
    .getByRole('link', { name: /Glute bridge/ })
    .first()
    .click()
  await expect(page.getByRole('heading', { level: 1, name: /lute bridge/ })).toBeVisible()
  await here('from the list to a move')

  // A menu sets nothing by an arrow key, and gives the focus back.
  await page.goto(`${demo.address}/rooms`)
  const kit = page.getByRole('table', { name: /^Kit list of/ }).first()
  const kinds = kit.getByRole('rowheader')
  await expect(kinds.first()).toBeVisible()
  const lines = await kinds.count()
  await page
    .getByRole('button', { name: /^Add kit to/ })
    .first()
    .focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Escape')
  expect(await kinds.count()).toBe(lines)
  const adds = (await page
    .getByRole('button', { name: /^Add kit to/ })
    .first()
    .textContent())!.split(':')[0]!
  await pick(page, adds, 'knee pads')
  await expect(kinds).toHaveCount(lines + 1)
  await expect(kit.getByRole('row').last().locator('input').first()).toBeFocused()
})

test('a new class begins in its title; the first Tab of a screen skips the menu', async ({ page, studio }) => {
  await page.goto(`${studio.address}/classes/new`)
  await expect(page.getByLabel('Title')).toBeFocused()
  await page.goto(`${studio.address}/people`)
  await expect(page.getByRole('heading', { name: 'People' })).toBeVisible()
  await page.keyboard.press('Tab')
  await expect(page.getByRole('button', { name: 'Skip to the main part' })).toBeFocused()
  await page.keyboard.press('Enter')
  expect(await focused(page)).toBe('main')
})
