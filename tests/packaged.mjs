// The packed program, whole, where there is neither .NET nor Node: it starts, keeps, survives a kill, copies and restores.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import assert from 'node:assert/strict'

const locks = () => spawnSync('git', ['status', '--porcelain', '--', ':(glob)**/packages.lock.json']).stdout.toString()
const before = locks()
const packed = spawnSync('./halterion', ['package', 'linux-x64'], {
  encoding: 'utf8',
})
assert.equal(packed.status, 0, packed.stdout + packed.stderr)
const archive = /\.build\/packages\/(\S+)\.tar\.gz/.exec(packed.stdout)
assert.ok(archive, packed.stdout)
assert.equal(locks(), before, 'packing changes no lock file')

const running = new Set()
const home = mkdtempSync(join(tmpdir(), 'halterion-packed-'))
try {
  assert.equal(spawnSync('tar', ['-C', home, '-xzf', archive[0]]).status, 0)
  const folder = join(home, archive[1])
  const program = join(folder, 'halterion')
  // Nothing of this machine: no path to search, no runtime, a home of its own.
  const env = { HOME: home, PATH: '/nowhere' }
  const run = (...args) =>
    spawnSync(program, args, {
      env,
      cwd: home,
      encoding: 'utf8',
      timeout: 60_000,
    })

  assert.match(run('version').stdout, /^Halterion \d+\.\d+\.\d+\n$/)
  assert.match(run('--help').stdout, /halterion demo/)
  const wrong = run('strat')
  assert.equal(wrong.status, 2)
  assert.match(wrong.stderr, /unknown command: strat/)
  assert.match(run('--port').stderr, /--port needs a value/)
  const readme = readFileSync(join(folder, 'README.txt'), 'utf8')
  for (const part of ['FIRST START', 'WHERE YOUR DATA IS', 'BACKUP', 'PHONES AND SCREENS', 'UPDATING'])
    assert.ok(readme.includes(part), part)
  assert.ok(!/[{}]/.test(readme), 'every place of the readme is filled in')
  assert.deepEqual(
    readdirSync(folder).filter((name) => name.endsWith('.pdb') || name === 'halterion.dll'),
    [],
  )

  async function start(...args) {
    const child = spawn(program, [...args, '--port', '0', '--no-browser'], {
      env,
      cwd: home,
    })
    running.add(child)
    let said = ''
    const address = await new Promise((resolve, reject) => {
      child.stdout.on('data', (text) => {
        said += text
        const ready = /running: (http:\/\/\S+)/.exec(said)
        if (ready) resolve(ready[1])
      })
      child.stderr.on('data', (text) => (said += text))
      child.on('exit', (code) => reject(new Error(`It ended with ${code}: ${said}`)))
    })
    const kill = () =>
      new Promise((resolve) => {
        child.once('exit', resolve)
        child.kill('SIGKILL')
      })
    return { address, kill }
  }
  const titles = async (address) => (await (await fetch(`${address}/api/classes`)).json()).classes.map((c) => c.title)

  // Its own studio: where start keeps it, whole after a kill.
  const first = await start()
  const page = await (await fetch(first.address)).text()
  const script = /src="(\/assets\/[^"]+)"/.exec(page)
  assert.ok(script, page)
  assert.equal((await fetch(first.address + script[1])).status, 200)
  assert.equal((await fetch(`${first.address}/api/health`)).status, 200)
  assert.ok((await (await fetch(`${first.address}/api/moves`)).text()).includes('Glute bridge'))
  const file = JSON.parse(
    readFileSync(
      join(
        'demo',
        readdirSync('demo').find((n) => n.endsWith('.json')),
      ),
      'utf8',
    ),
  )
  const made = await fetch(`${first.address}/api/classes/file`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ ...file, title: 'Packed and kept' }),
  })
  assert.equal(made.status, 200, await made.text())
  assert.ok(existsSync(join(home, '.local/share/halterion')), 'where start keeps its data')
  await first.kill()
  const second = await start('start')
  assert.deepEqual(await titles(second.address), ['Packed and kept'])
  assert.equal(run('backup', 'copy.halterion').status, 0, 'a copy while it is in use')
  await second.kill()
  const restored = run('restore', 'copy.halterion')
  assert.equal(restored.status, 0, restored.stderr)
  assert.match(restored.stdout, /Your previous data is in/)
  const third = await start()
  assert.deepEqual(await titles(third.address), ['Packed and kept'])
  await third.kill()

  // The demo studio has a folder of its own.
  const demo = await start('demo')
  assert.ok((await titles(demo.address)).length > 3)
  await demo.kill()
  assert.ok(existsSync(join(home, '.local/share/halterion-demo')))

  writeFileSync(join(home, 'broken.json'), '{"format":"halterion-class"}')
  const checked = run('check', 'broken.json')
  assert.equal(checked.status, 2, checked.stdout + checked.stderr)
  assert.match(checked.stdout, /Should be: /)
} finally {
  for (const child of running) child.kill('SIGKILL')
  rmSync(home, { recursive: true, force: true })
}
