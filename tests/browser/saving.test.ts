import { allFindings, classLines, classOf, expect, test } from './studio'

test('what the server refuses is told from a server that is not there', async ({ page, demo }) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/brief`)
  await page.route('**/api/classes/*', (route) =>
    route.request().method() === 'PUT'
      ? route.fulfill({
          status: 507,
          contentType: 'application/problem+json',
          body: '{"title":"The disk is full, so nothing can be saved."}',
        })
      : route.continue(),
  )
  await page.getByLabel('Title').fill('Too much')
  await expect(page.getByText('The disk is full, so nothing can be saved.')).toBeVisible()
  await expect(page.getByText('Halterion is not answering')).toHaveCount(0)
  await page.unroute('**/api/classes/*')
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('a person added while the server is away arrives when it is back, also from another tab', async ({
  page,
  context,
  demo,
}) => {
  await page.goto(`${demo.address}/people`)
  await expect(page.getByRole('link', { name: 'Ada Quill' })).toBeVisible()
  const other = await context.newPage()
  await other.goto(demo.address)
  await expect(other.getByRole('heading', { name: 'Classes', exact: true })).toBeVisible()
  const port = await demo.kill()
  await page.getByLabel('Name of a new person').fill('Wyn Tarrow')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByText('1 change not saved yet')).toBeVisible()
  await page.close()
  await demo.start(port)
  await other.goto(`${demo.address}/people`)
  await expect(other.getByRole('link', { name: 'Wyn Tarrow' })).toBeVisible()
})

test('what could not be fetched while the server was away comes by itself when it is back', async ({ page, demo }) => {
  await page.goto(`${demo.address}/people`)
  await page.getByRole('link', { name: 'Ada Quill' }).click()
  await expect(page.getByLabel('Note', { exact: true })).toBeVisible()
  await page.goBack()
  const port = await demo.kill()
  await page.getByRole('link', { name: 'Bruno Vell' }).click()
  await expect(page.getByRole('alert').first()).toContainText('not answering')
  await demo.start(port)
  await expect(page.getByLabel('Note', { exact: true })).toBeVisible()
})

test('what is typed of a move of one’s own stays while the server is away, and is kept when it is back', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/moves/new`)
  await page.getByLabel('Name').fill('Loft dip')
  await page.getByRole('button', { name: 'Save move' }).click()
  await expect(page).toHaveURL(/my-loft-dip$/)
  await page.goto(`${studio.address}/moves/my-loft-dip/edit`)
  await page.getByLabel('Set-up').fill('Feet on the beam.')
  const port = await studio.kill()
  // Coming back to the tab asks for everything once more, in vain.
  await page.evaluate(() => window.dispatchEvent(new Event('visibilitychange')))
  await page.getByRole('button', { name: 'Save move' }).click()
  await expect(page.getByText('1 change not saved yet')).toBeVisible()
  await expect(page.getByLabel('Set-up')).toHaveValue('Feet on the beam.')
  await studio.start(port)
  await expect(page).toHaveURL(/my-loft-dip$/)
  const { moves } = (await (await fetch(`${studio.address}/api/own-moves`)).json()) as { moves: { setUp: string }[] }
  expect(moves.map((m) => m.setUp)).toEqual(['Feet on the beam.'])
})

test('a log typed while the server is away outlives its tab', async ({ page, context, demo }) => {
  const address = `${await classOf(demo, 'Six around the loft, first time')}/log`
  await page.goto(address)
  await expect(page.getByText('12 of 14 came')).toBeVisible()
  const port = await demo.kill()
  await page.getByLabel('Notes for next time').fill('Left the stretch out; promised it for Thursday.')
  await expect(page.getByText('Not saved yet: Halterion is not answering')).toBeVisible()
  await page.close()
  await demo.start(port)
  const next = await context.newPage()
  await next.goto(address)
  await expect(next.getByLabel('Notes for next time')).toHaveValue('Left the stretch out; promised it for Thursday.')
  await expect(next.getByText('Saved', { exact: true })).toBeVisible()
  await next.reload()
  await expect(next.getByLabel('Notes for next time')).toHaveValue(/promised/)
})

test('a repair, a swap and a removal that fail say so, and change nothing', async ({ page, demo }) => {
  await page.goto(`${await classOf(demo, 'Full moon circuit')}/build`)
  await expect(page.getByTestId('verdict')).toHaveText('1 min 18 s over')
  await allFindings(page)
  const repair = page.getByRole('button', { name: 'Make it fit 25 min' })
  await expect(repair).toBeVisible()
  const port = await demo.kill()
  await repair.click()
  await expect(
    page.getByRole('alert').filter({ hasText: 'Nothing was changed. Halterion is not answering' }),
  ).toBeVisible()
  await demo.start(port)
  await page.goto(demo.address)
  const plans = classLines(page)
  await expect(plans).not.toHaveCount(0)
  const before = await plans.count()
  await page.route('**/api/classes/*', (route) => route.fulfill({ status: 500, body: '{}' }))
  await plans
    .first()
    .getByRole('button', { name: /^More for/ })
    .click()
  await page.getByRole('menuitem', { name: 'Remove the class and all its dates' }).click()
  await expect(page.getByText('That class could not be removed.')).toBeVisible()
  await expect(plans).toHaveCount(before)
})

test('a list asked for before an addition, and answered after it, does not hide what was added', async ({
  page,
  demo,
}) => {
  let added = () => {}
  const addition = new Promise<void>((done) => (added = done))
  let old = () => {}
  const oldCame = new Promise<void>((done) => (old = done))
  let first = true
  await page.route('**/api/people', async (route) => {
    const asked = route.request().method() === 'GET'
    const late = asked && first
    if (asked) first = false
    const response = await route.fetch()
    if (late) await addition
    await route.fulfill({ response }).catch(() => undefined)
    if (late) old()
    if (!asked) setTimeout(added, 300)
  })
  await page.goto(`${demo.address}/people`)
  await page.getByLabel('Name of a new person').fill('Zoe Fenn')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Zoe Fenn' })).toBeVisible()
  // Also when the older list has come, and whatever is asked after it.
  await oldCame
  await page.waitForTimeout(500)
  await expect(page.getByRole('link', { name: 'Zoe Fenn' })).toBeVisible()
})
