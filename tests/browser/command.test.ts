import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from './studio'

const program = join(import.meta.dirname, '../../.build/app/Halterion.Web.dll')
const run = (...args: string[]) => spawnSync('dotnet', [program, ...args], { encoding: 'utf8', timeout: 20_000 })

test('a taken port, a folder in use or not writable: one clear line and a non-zero exit', async ({ studio }) => {
  const folder = mkdtempSync(join(tmpdir(), 'halterion-browser-'))
  try {
    const port = new URL(studio.address).port
    const taken = run('--port', port, '--data', folder)
    expect(taken.stderr).toBe(`Port ${port} is already in use. Choose another with --port N.\n`)
    expect(taken.status).toBe(1)

    const inUse = run('--port', '0', '--data', studio.folder)
    expect(inUse.stderr).toMatch(/^Another Halterion is using the data folder .*\n$/)
    expect(inUse.status).toBe(1)

    writeFileSync(join(folder, 'file'), '')
    const unwritable = run('--port', '0', '--data', join(folder, 'file', 'below'))
    expect(unwritable.stderr).toMatch(/^The data folder .* cannot be written to .*\n$/)
    expect(unwritable.status).toBe(1)

    const nonsense = run('--port', 'many')
    expect(nonsense.stderr).toMatch(/^“many” is not a port.*\n$/)
    expect(nonsense.status).toBe(2)
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
})
