import { test as base, expect } from '@playwright/test'
import type { Locator, Page } from '@playwright/test'
import type { ChildProcess } from 'node:child_process'
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const program = join(import.meta.dirname, '../../.build/app/Halterion.Web.dll')

/** The real server on a data folder of its own. */
export class Server {
  readonly folder = mkdtempSync(join(tmpdir(), 'halterion-browser-'))
  address = ''
  private process: ChildProcess | null = null

  /** Where devices of the local network knock; empty: the door is shut. */
  outside = ''

  constructor(
    private readonly demo: boolean,
    private readonly lan = false,
  ) {}

  async start(port = 0) {
    const options = ['--port', String(port), '--data', this.folder, '--demo', String(this.demo)]
    const child = spawn('dotnet', [program, ...options, ...(this.lan ? ['--lan', 'true'] : [])])
    this.process = child
    this.address = await new Promise<string>((resolve, reject) => {
      let said = ''
      child.stdout.on('data', (text: Buffer) => {
        said += text.toString()
        const ready = /running: (http:\/\/\S+)/.exec(said)
        this.outside = /network: (https:\/\/\S+)/.exec(said)?.[1] ?? ''
        if (ready?.[1] && (!this.lan || this.outside)) resolve(ready[1])
      })
      child.stderr.on('data', (text: Buffer) => (said += text.toString()))
      child.on('exit', (code) => reject(new Error(`The server ended with ${code}: ${said}`)))
    })
  }

  /** Stops the server hard, as a crash would. */
  async kill(): Promise<number> {
    const port = this.address === '' ? 0 : Number(new URL(this.address).port)
    const child = this.process
    if (child && child.exitCode === null && child.signalCode === null) {
      const gone = new Promise((resolve) => child.once('exit', resolve))
      child.kill('SIGKILL')
      await gone
    }
    return port
  }

  async dispose() {
    await this.kill()
    rmSync(this.folder, { recursive: true, force: true })
  }
}

/**
 * `studio` is an empty Halterion, `demo` one with the demo studio in it, `open` the same with its door to the local network open: each
 * for one test alone. `shared` and `sharedDemo` are started once for all tests of a worker that neither stop them nor mind what others
 * have added.
 */
export const test = base.extend<{ studio: Server; demo: Server; open: Server }, { shared: Server; sharedDemo: Server }>(
  {
    shared: [
      async ({}, use) => {
        const server = new Server(false)
        await server.start()
        await use(server)
        await server.dispose()
      },
      { scope: 'worker' },
    ],
    sharedDemo: [
      async ({}, use) => {
        const server = new Server(true)
        await server.start()
        await use(server)
        await server.dispose()
      },
      { scope: 'worker' },
    ],
    open: async ({}, use) => {
      const server = new Server(true, true)
      await server.start()
      await use(server)
      await server.dispose()
    },
    studio: async ({}, use) => {
      const server = new Server(false)
      await server.start()
      await use(server)
      await server.dispose()
    },
    demo: async ({}, use) => {
      const server = new Server(true)
      await server.start()
      await use(server)
      await server.dispose()
    },
  },
)

export { expect }

/** Walks with the Tab key to the control of this name, as someone without a mouse does. */
export async function tabTo(page: Page, name: string | RegExp) {
  for (let i = 0; i < 250; i++) {
    await page.keyboard.press('Tab')
    const named = await page.evaluate(() => {
      const control = document.activeElement as HTMLInputElement
      const text = control.getAttribute('aria-label') ?? control.labels?.[0]?.textContent ?? control.textContent
      return (text ?? '').trim()
    })
    if (typeof name === 'string' ? named.startsWith(name) : name.test(named)) return
  }
  throw new Error(`No control named ${name} can be reached with the Tab key.`)
}

/**
 * Stops the clock of the page: from here on only `page.clock.runFor` moves it. It can only be stopped ahead of where it is, and on a
 * busy machine it runs on while that is asked for: then it is stopped further ahead.
 */
export async function stopClock(page: Page) {
  // What the server says of its own time would move a class on that stands still here, once in two seconds.
  await page.evaluate(ownTime)
  await page.addInitScript(ownTime)
  for (let ahead = 1000; ; ahead *= 2) {
    try {
      return await page.clock.pauseAt(new Date((await page.evaluate(() => Date.now())) + ahead))
    } catch (error) {
      if (!String(error).includes('to the past')) throw error
    }
  }
}

/** To this page the server's clock is the page's own from here on. */
function ownTime() {
  const { get } = Object.getOwnPropertyDescriptor(MessageEvent.prototype, 'data')!
  Object.defineProperty(MessageEvent.prototype, 'data', {
    get() {
      const data = get!.call(this) as unknown
      return typeof data === 'string' ? data.replace(/"now":\d+/, `"now":${Date.now()}`) : data
    },
  })
}

/** With the clock stopped, lets it creep until a page that was just opened shows this. */
export async function creepTo(page: Page, shown: Locator) {
  await expect(async () => {
    await page.clock.runFor(5)
    await expect(shown).toBeVisible({ timeout: 50 })
  }).toPass({ intervals: [20] })
}

/** The address of a class of the demo studio. */
export async function classOf(server: Server, title: string): Promise<string> {
  const { classes } = (await (await fetch(`${server.address}/api/classes`)).json()) as {
    classes: { id: string; title: string }[]
  }
  const found = classes.find((c) => c.title === title)
  if (!found) throw new Error(`There is no class ${title}.`)
  return `${server.address}/classes/${found.id}`
}

/** Changes a document as it stands now, past the screens. */
export async function changeNow(server: Server, path: string, body: unknown) {
  const now = await fetch(server.address + path)
  const answer = await fetch(server.address + path, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'If-Match': now.headers.get('ETag') ?? '' },
    body: JSON.stringify(body),
  })
  expect(answer.status, await answer.text()).toBe(200)
}

/** Waits for the next answered request of this method. */
export const addressOf = (page: Page, method: string) =>
  page.waitForResponse((response) => response.request().method() === method && response.ok())

/** The kinds of the commands that the server has of the lead on the page. */
export const commandsOf = (page: Page): Promise<string[]> =>
  page.evaluate(async () => {
    const id = location.pathname.split('/')[2]
    const answer = await fetch(`/api/sessions/${id}/lead`, { method: 'POST' })
    return ((await answer.json()) as { commands: { kind: string }[] }).commands.map((c) => c.kind)
  })

/** Presses the button of a move and chooses another from the library, by what is typed. */
export async function chooseMove(page: Page, button: Locator, typed: string) {
  await button.click()
  await page.getByRole('dialog').getByLabel('Search').fill(typed)
  await expect(page.getByRole('listbox', { name: 'Moves found' }).getByRole('option').first()).toContainText(typed)
  await page.keyboard.press('Enter')
}

/** Opens a station of the bench, or a block, by its name. */
export async function open(page: Page, what: 'station' | 'block', name: string) {
  const card =
    what === 'station'
      ? page.getByRole('article', { name: new RegExp(`^Station \\d+: ${name}$`) }).first()
      : page.getByRole('region', { name: new RegExp(`^Block \\d+: ${name}$`) }).first()
  // What was just added opens by itself, a moment later.
  await expect(async () => {
    if ((await card.getAttribute('data-open')) === 'false') {
      await card.locator('[aria-expanded]').first().click()
    }
    await expect(card).toHaveAttribute('data-open', 'true', { timeout: 500 })
  }).toPass()
  return card
}

/** Adds a ready block to the class. */
/** The classes of the list. */
export const classLines = (page: Page) => page.locator('ul[aria-label^="Classes"] > li')

/** What is in the menu of a class in the list. */
export async function more(page: Page, title: string, words: string) {
  await page.getByRole('button', { name: `More for ${title}`, exact: true }).click()
  await page.getByRole('menuitem', { name: words }).click()
}

/** Beside the class the worst finding is told; the others are unfolded. */
export async function allFindings(page: Page) {
  const rest = page.getByRole('region', { name: 'Checks' }).locator('summary', { hasText: /^\d+ more: / })
  await expect(rest).toBeVisible()
  if (!(await rest.locator('..').evaluate((fold) => (fold as HTMLDetailsElement).open))) await rest.click()
}

export async function addBlock(page: Page, name: string) {
  const fold = page.getByRole('button', { name: /^(\+ Add a block|More kinds of block)$/ })
  const ready = page.getByRole('button', { name: `+ ${name}`, exact: true }).first()
  await expect(fold.or(ready).first()).toBeVisible()
  if (await fold.isVisible()) await fold.click()
  await ready.click()
}

/** Types into a field that is taken with Enter. */
export async function enter(field: Locator, text: string) {
  await field.fill(text)
  await field.press('Enter')
}

/** Books a class of the demo so that it began some minutes ago, for everybody on the roster; the address of its lead. */
export async function bookedAgo(server: Server, title: string, minutes: number): Promise<string> {
  const [id, people] = await Promise.all([
    classOf(server, title).then((address) => address.split('/').at(-1)!),
    fetch(`${server.address}/api/people`).then((r) => r.json() as Promise<{ id: string }[]>),
  ])
  const startsAt = new Date(Date.now() - minutes * 60_000).toISOString().slice(0, 16)
  const booking = { zone: 'UTC', headCount: 14, startsAt, expected: people.map((p) => p.id) }
  const made = await fetch(`${server.address}/api/classes/${id}/sessions`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ booking }),
  })
  return `${server.address}/lead/${((await made.json()) as { id: string }).id}`
}

/** The demo's rotation once more, for the same people, but without its alternatives and with two mats fewer in the room. */
export async function withGaps(server: Server): Promise<string> {
  const read = async <T>(path: string) => (await (await fetch(server.address + path)).json()) as T
  const send = (path: string, body: unknown) =>
    fetch(server.address + path, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    }).then((r) => r.json() as Promise<{ id: string }>)
  const whole = (await classOf(server, 'Six around the loft')).split('/').at(-1)!
  const plan = await read<{
    title: string
    blocks: { stations?: { options: { tier: string }[] }[]; [field: string]: unknown }[]
  }>(`/api/classes/${whole}/file`)
  for (const station of plan.blocks.flatMap((b) => b.stations ?? []))
    station.options = station.options.filter((o) => o.tier !== 'instead')
  plan.blocks.splice(-1, 1, { name: 'Wind down', phase: 'cooldown', format: 'talk', seconds: 384 })
  const { id } = await send('/api/classes/file', { ...plan, title: 'Six with gaps' })
  const [loft] =
    await read<
      { id: string; revision: number; name: string; floor: unknown; stock: { item: string; count: number }[] }[]
    >('/api/rooms')
  if (!loft) throw new Error('There is no room.')
  const stock = loft.stock.map((line) => (line.item === 'mat' ? { ...line, count: 12 } : line))
  const kept = await fetch(`${server.address}/api/rooms/${loft.id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'If-Match': `"${loft.revision}"` },
    body: JSON.stringify({ name: loft.name, floor: loft.floor, stock }),
  })
  expect(kept.status, await kept.text()).toBe(200)
  const { sessions } = await read<{ sessions: { id: string; title: string }[] }>('/api/sessions')
  const planned = sessions.find((session) => session.title === 'Six around the loft')!
  const { booking } = await read<{ booking: unknown }>(`/api/sessions/${planned.id}`)
  await send(`/api/classes/${id}/sessions`, { booking })
  return `${server.address}/classes/${id}`
}

/** Two skips in a moment count as one: so long apart they are two. */
const APART = 650

/** Skips so many stretches of a class under way, one by one. */
export async function skip(
  page: Page,
  times: number,
  wait: (ms: number) => Promise<void> = (ms) => page.waitForTimeout(ms),
) {
  for (let i = 0; i < times; i++) {
    await page.keyboard.press('n')
    await wait(APART)
  }
}

/** Takes something from a menu by its words. */
export async function pick(page: Page, menu: string, item: string) {
  await page.getByRole('button', { name: `${menu}: ` }).click()
  await page.getByRole('menuitem', { name: item, exact: true }).click()
}
