// How soon forty screens that follow one class hear of a tap, and whether the server's memory stays flat over an hour of them.
// node bench/live.mjs, with the app built.
import { spawn } from 'node:child_process'
import { readFileSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const FOLLOWERS = 40
const TAPS = 200
const AIM = 50
const folder = mkdtempSync(join(tmpdir(), 'halterion-live-'))
const server = spawn('dotnet', [
  join(import.meta.dirname, '../.build/app/Halterion.Web.dll'),
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
const post = async (path, body) =>
  (
    await fetch(address + path, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
  ).json()
const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))[1]) / 1024

try {
  const { sessions } = await (await fetch(`${address}/api/sessions?take=1`)).json()
  const session = sessions[0].id
  const lead = await post(`/api/sessions/${session}/lead`, {})
  const heard = Array.from({ length: FOLLOWERS }, () => 0)
  const waits = []
  const streams = await Promise.all(
    heard.map(async (_, i) => {
      const answer = await fetch(`${address}/api/${i % 2 ? 'wall' : 'sessions'}/${session}/events`)
      const reader = answer.body.getReader()
      void (async () => {
        let text = ''
        for (;;) {
          const { done, value } = await reader.read().catch(() => ({ done: true }))
          if (done) return
          text += Buffer.from(value).toString()
          for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
            if (text.slice(0, end).includes('event: lead')) {
              heard[i]++
              waits.forEach((wait) => wait(i))
            }
            text = text.slice(end + 2)
          }
        }
      })()
      return reader
    }),
  )
  while (heard.some((n) => n < 1)) await new Promise((resolve) => setTimeout(resolve, 20))

  let known = lead.commands.length
  const tap = (kind) =>
    post(`/api/leads/${lead.id}/commands`, {
      expected: known++,
      commands: [{ id: crypto.randomUUID(), kind, at: Date.now(), device: 'bench' }],
    })
  await tap('start')
  await new Promise((resolve) => setTimeout(resolve, 500))
  const times = []
  for (let n = 0; n < TAPS; n++) {
    const missing = new Set(heard.keys())
    const began = performance.now()
    const all = new Promise((resolve) => {
      waits.push((i) => {
        missing.delete(i)
        if (missing.size === 0) resolve(performance.now() - began)
      })
    })
    await tap(n % 2 ? 'resume' : 'pause')
    times.push(await all)
    waits.length = 0
  }
  times.sort((a, b) => a - b)
  const p95 = times[Math.floor(times.length * 0.95)]
  console.log(
    `a tap to ${FOLLOWERS} screens     ${times[times.length >> 1].toFixed(1)} ms median, ${p95.toFixed(1)} ms 95th, aim ${AIM} ms`,
  )

  // Hours of signs and taps, as fast as they go. The first warms the server up; what each one after it leaves behind is what counts.
  const after = []
  for (let hour = 0; hour < 4; hour++) {
    for (let n = 0; n < 1800; n++) await fetch(`${address}/api/wall/time`)
    for (let n = 0; n < TAPS / 4; n++) await tap(n % 2 ? 'resume' : 'pause')
    after.push(memory())
  }
  console.log(`memory after simulated hours   ${after.map((mb) => mb.toFixed(0)).join(' → ')} MB`)
  streams.forEach((reader) => void reader.cancel())
} finally {
  server.kill()
  rmSync(folder, { recursive: true, force: true })
}
