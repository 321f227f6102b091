// What a machine carries: studios open at once, each a server of its own, with and without a class under way and screens that follow it.
// node bench/scale.mjs [STUDIOS], with the app built. Memory is what each holds for itself (private), files are open handles.
import { spawn } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const STUDIOS = Number(process.argv[2] ?? 6)
const FOLLOWERS = 40
const program = join(import.meta.dirname, '../.build/app/Halterion.Web.dll')
const folders = []
const servers = []

async function open() {
  const folder = mkdtempSync(join(tmpdir(), 'halterion-scale-'))
  folders.push(folder)
  const began = performance.now()
  const child = spawn('dotnet', [program, '--port', '0', '--data', folder, '--demo', 'true'])
  const address = await new Promise((resolve) =>
    child.stdout.on('data', (text) => resolve(/(http:\/\/\S+)/.exec(String(text))?.[1])),
  )
  servers.push({ child, address, started: performance.now() - began })
}

const held = ({ child }) => {
  const rollup = readFileSync(`/proc/${child.pid}/smaps_rollup`, 'utf8')
  const kB = (name) => Number(new RegExp(`${name}:\\s+(\\d+)`).exec(rollup)[1])
  const [, , , , , , , , , , , user, system] = readFileSync(`/proc/${child.pid}/stat`, 'utf8').replace(/\(.*\)/, 'x').split(' ').slice(2)
  return {
    own: (kB('Private_Clean') + kB('Private_Dirty')) / 1024,
    shared: kB('Rss') / 1024,
    files: readdirSync(`/proc/${child.pid}/fd`).length,
    ticks: Number(user) + Number(system),
  }
}

const middle = (numbers) => numbers.sort((a, b) => a - b)[Math.floor(numbers.length / 2)]

function say(what) {
  const all = servers.map(held)
  const of = (name) => middle(all.map((h) => h[name])).toFixed(0)
  console.log(`${what.padEnd(46)} ${of('own')} MB own, ${of('shared')} MB with what is shared, ${of('files')} handles each`)
  return all
}

const post = async (address, path, body) =>
  (
    await fetch(address + path, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
  ).json()

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms))

try {
  for (let n = 0; n < STUDIOS; n++) await open()
  console.log(`${STUDIOS} studios, the slowest started in ${(Math.max(...servers.map((s) => s.started)) / 1000).toFixed(1)} s`)
  await wait(3000)
  const idle = say('open, nobody there')
  await wait(10_000)
  const later = servers.map(held)
  const busy = later.map((h, i) => (h.ticks - idle[i].ticks) / 10)
  console.log(`${'of a processor, each, with nobody there'.padEnd(46)} ${middle(busy).toFixed(2)} %`)

  const readers = []
  for (const { address } of servers) {
    const { classes } = await (await fetch(`${address}/api/classes?next=true`)).json()
    await fetch(`${address}/api/classes/${classes[0].id}`)
    const { sessions } = await (await fetch(`${address}/api/sessions?take=1`)).json()
    const lead = await post(address, `/api/sessions/${sessions[0].id}/lead`, {})
    await post(address, `/api/leads/${lead.id}/commands`, {
      expected: lead.commands.length,
      commands: [{ id: crypto.randomUUID(), kind: 'start', at: Date.now(), device: 'bench' }],
    })
    for (let n = 0; n < FOLLOWERS; n++) {
      const reader = (await fetch(`${address}/api/${n % 2 ? 'wall' : 'sessions'}/${sessions[0].id}/events`)).body.getReader()
      readers.push(reader)
      void (async () => {
        while (!(await reader.read().catch(() => ({ done: true }))).done);
      })()
    }
  }
  await wait(2000)
  const led = say(`a class under way, ${FOLLOWERS} screens follow it`)
  await wait(10_000)
  const now = servers.map(held)
  console.log(`${'of a processor, each, leading'.padEnd(46)} ${middle(now.map((h, i) => (h.ticks - led[i].ticks) / 10)).toFixed(2)} %`)

  for (const { address } of servers) await post(address, '/api/plans/draft', { slotMinutes: 45, headCount: 14 })
  say('and one has drafted a class')
} finally {
  for (const { child } of servers) child.kill()
  await wait(500)
  for (const folder of folders) rmSync(folder, { recursive: true, force: true })
}
