// How close the bells of a class are to its plan: a class of an hour is led in a browser, what it rings is recorded from its sound, and
// each onset is held against the cue. In real time: node bench/bells.mjs [MINUTES], with the app built.
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const require = createRequire(new URL('../tests/browser/package.json', import.meta.url))
const { chromium } = require('@playwright/test')
const MINUTES = Number(process.argv[2] ?? 60)
const AIM = 10
const folder = mkdtempSync(join(tmpdir(), 'halterion-bells-'))
const server = spawn('dotnet', [
  join(import.meta.dirname, '../.build/app/Halterion.Web.dll'),
  '--port',
  '0',
  '--data',
  folder,
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

/** Two stations of 30 s with 15 s between, a minute and a half a round with its rest. */
const plan = {
  format: 'halterion-class',
  version: 1,
  title: 'Bells',
  slotMinutes: Math.min(180, MINUTES + 5),
  blocks: Array.from({ length: Math.ceil(MINUTES / 15) }, (_, i) => ({
    name: `Part ${i + 1}`,
    phase: 'main',
    rounds: 10,
    betweenStations: 15,
    betweenRounds: 15,
    stations: ['squat', 'glute-bridge'].map((move) => ({
      dose: [{ kind: 'time', amount: 30 }],
      options: [{ tier: 'main', move }],
    })),
  })),
}

/**
 * Records onsets in the page: the moment at which each sound that follows a tenth of a second of silence is heard, in milliseconds since
 * 1970. A bell takes 5 ms to be as loud as is looked for.
 */
const record = () => {
  const onsets = []
  Object.assign(window, { onsets })
  const taps = new WeakMap()
  const connect = AudioNode.prototype.connect
  AudioNode.prototype.connect = function (to, ...rest) {
    if (to instanceof AudioDestinationNode && !(this instanceof ScriptProcessorNode)) {
      const { context } = this
      if (!taps.has(context)) {
        // When what lies where on the context's clock is heard, as the browser says; its late answers are passed over.
        const readings = []
        setInterval(() => {
          const { contextTime, performanceTime } = context.getOutputTimestamp()
          readings.push(contextTime * 1000 - performance.timeOrigin - performanceTime)
          if (readings.length > 100) readings.shift()
        }, 10)
        const tap = context.createScriptProcessor(1024, 1, 1)
        // What a recorder says of its own time differs by its buffers: a sound at a known moment shows by how much.
        const known = context.createConstantSource()
        const knownAt = context.currentTime + 0.2
        known.start(knownAt)
        known.stop(knownAt + 0.02)
        connect.call(known, tap)
        let late = null
        let quiet = context.sampleRate
        tap.onaudioprocess = (event) => {
          const heard = event.inputBuffer.getChannelData(0)
          for (let i = 0; i < heard.length; i++) {
            if (Math.abs(heard[i]) < 0.01) quiet++
            else {
              const at = event.playbackTime + i / context.sampleRate
              if (quiet > context.sampleRate / 10 && late === null) late = at - knownAt
              else if (quiet > context.sampleRate / 10) onsets.push((at - late) * 1000 - Math.max(...readings))
              quiet = 0
            }
          }
        }
        connect.call(tap, context.destination)
        taps.set(context, tap)
      }
      connect.call(this, taps.get(context))
    }
    return connect.call(this, to, ...rest)
  }
}

try {
  const view = await post('/api/classes/file', plan)
  const session = view.sessions[0].id
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'],
  })
  const page = await browser.newPage()
  await page.addInitScript(record)
  await page.goto(`${address}/lead/${session}`)
  await page.getByRole('button', { name: 'Start the class' }).click()
  await page.waitForTimeout(MINUTES * 60_000)
  const lead = await post(`/api/sessions/${session}/lead`, {})
  const start = lead.commands.find((c) => c.kind === 'start').at
  const onsets = await page.evaluate(() => window.onsets)
  await browser.close()

  const until = Date.now() - 3000
  const cues = lead.script.cues.map((c) => start + c.at * 1000).filter((at) => at > start + 3000 && at < until)
  const off = cues.map((at) =>
    onsets.map((o) => o - at).reduce((a, b) => (Math.abs(b) < Math.abs(a) ? b : a), Infinity),
  )
  const heard = off.filter((ms) => Math.abs(ms) < 400)
  const sorted = [...heard].sort((a, b) => a - b)
  const median = sorted[sorted.length >> 1]
  // The way through the machine is the same for all of them; what changes is what is heard as being off the beat.
  const spread = heard.map((ms) => Math.abs(ms - median)).sort((a, b) => a - b)
  const p99 = spread[Math.floor(spread.length * 0.99)]
  const half = heard.length >> 1
  const mean = (list) => list.reduce((a, b) => a + b, 0) / list.length
  console.log(
    `bells over ${MINUTES} min           ${heard.length} of ${cues.length} heard, ${median.toFixed(1)} ms behind the plan, ` +
      `99th ${p99.toFixed(1)} ms from that, aim ${AIM} ms`,
  )
  if (process.env.ALL) console.log(heard.map((ms) => ms.toFixed(1)).join(' '))
  console.log(
    `drift                         ${(mean(heard.slice(half)) - mean(heard.slice(0, half))).toFixed(2)} ms ` +
      'from the first half to the second',
  )
} finally {
  server.kill()
  rmSync(folder, { recursive: true, force: true })
}
