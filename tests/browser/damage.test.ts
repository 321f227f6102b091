import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, Server, test } from './studio'

/** The published program, really listening: what runs only then is seen by no test in process. */
const harms: Record<string, (file: string) => void> = {
  'zeros at its head': (file) =>
    writeFileSync(file, Buffer.concat([Buffer.alloc(100), readFileSync(file).subarray(100)])),
  'zeros in its middle': (file) => {
    const bytes = readFileSync(file)
    bytes.fill(0, 8192, bytes.length - 8192)
    writeFileSync(file, bytes)
  },
  'its end missing': (file) => writeFileSync(file, readFileSync(file).subarray(0, 20_000)),
  'text in its place': (file) => writeFileSync(file, 'Dear Halterion, I am not a database.'),
  'nothing in it': (file) => writeFileSync(file, ''),
  'no file at all': (file) => rmSync(file),
}

for (const [name, harm] of Object.entries(harms)) {
  test(`a data file with ${name}: said on every screen and by every answer, and put back with one button`, async ({
    page,
  }) => {
    const server = new Server(true)
    try {
      await server.start()
      const file = join(server.folder, 'halterion.db')
      // The copy of the day is made soon after the start.
      await expect(async () => expect(copiesOf(server)).toHaveLength(1)).toPass()
      const port = await server.kill()
      for (const beside of ['-wal', '-shm']) rmSync(file + beside, { force: true })
      harm(file)
      await server.start(port)

      for (const path of ['/api/people', '/api/classes', '/api/health', '/api/moves', '/api/people']) {
        const answer = await fetch(server.address + path)
        expect(answer.status).toBe(503)
        expect(((await answer.json()) as { detail: string }).detail).toMatch(
          /^The data file .* Nothing was changed\. The newest good copy is .*day-.*\.db\. .*\.\/halterion restore /,
        )
      }
      if (name === 'no file at all') expect(existsSync(file)).toBe(false)
      for (const path of ['/', '/people', '/rooms', '/settings']) {
        await page.goto(server.address + path)
        await expect(page.getByRole('heading', { name: 'The data cannot be opened' })).toBeVisible()
        await expect(page.getByText('The newest good copy is day-')).toBeVisible()
      }
      await page.getByRole('button', { name: /^Restore day-/ }).click()
      await page.getByRole('button', { name: 'Carry on' }).click()
      await page.getByRole('link', { name: 'People' }).click()
      await expect(page.getByRole('link', { name: 'Ada Quill' })).toBeVisible()
      expect((await fetch(`${server.address}/api/health`)).status).toBe(200)
      await server.kill()
      await server.start(port)
      expect((await fetch(`${server.address}/api/health`)).status).toBe(200)
    } finally {
      await server.dispose()
    }
  })
}

test('a file that vanishes while it is in use is said at the next answer', async ({ page, demo }) => {
  await page.goto(`${demo.address}/people`)
  await expect(page.getByRole('link', { name: 'Ada Quill' })).toBeVisible()
  rmSync(join(demo.folder, 'halterion.db'))
  await page.getByLabel('Name of a new person').fill('Too Late')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'The data cannot be opened' })).toBeVisible()
  await expect(page.getByText('is gone')).toBeVisible()
})

const copiesOf = (server: Server) => {
  const folder = join(server.folder, 'copies')
  return existsSync(folder) ? readdirSync(folder).filter((f) => f.endsWith('.db')) : []
}
