import { readFileSync } from 'node:fs'
import { beforeEach, describe, expect, test, vi } from 'vitest'
import type { Bell } from '../src/leading/core/bells'
import { ringing } from '../src/leading/core/bells'
import type { CommandKind, Ends, Payload } from '../src/leading/core/fold'
import { fold, positionAt } from '../src/leading/core/fold'
import type { Call, Cue, TimeLeft } from '../src/leading/core/sounding'
import { Caller } from '../src/leading/core/sounding'
import { FakeAudio } from './fakeAudio'

interface SoundCases {
  scenes: Ends[]
  cues: Cue[]
  calls: Call[]
  left: TimeLeft[]
  cases: {
    name: string
    taps: [CommandKind, number, Payload?][]
    until: number
    rings: [number, string][]
    says: [number, string][]
  }[]
}

const { scenes, cues, calls, left, cases } = JSON.parse(readFileSync('../tests/sound-cases.json', 'utf8')) as SoundCases
const kinds = ['count', 'start', 'switch', 'warning', 'end', 'finish'] as const
/** A pitch for each, so that they are told apart. */
const bells: Bell[] = kinds.map((kind, i) => ({ kind, pitch: 100 * (i + 1), length: 0.2, strikes: 1, apart: 0.28 }))
const near = (found: [number, string][], right: [number, string][], off: number) => {
  expect(found.map(([, what]) => what)).toEqual(right.map(([, what]) => what))
  found.forEach(([at], i) => expect(Math.abs(at - right[i]![0]), `${right[i]![1]} at ${at}`).toBeLessThanOrEqual(off))
}

beforeEach(() => {
  vi.useFakeTimers({
    now: 0,
    toFake: ['setInterval', 'clearInterval', 'setTimeout', 'clearTimeout', 'Date', 'performance'],
  })
  return () => vi.useRealTimers()
})

/** Runs the taps as a screen does: each state rings and speaks for itself until the next. */
function run({ taps, until }: SoundCases['cases'][number], latency: number) {
  const audio = new FakeAudio(latency)
  const said: [number, string][] = []
  taps.forEach((_, n) => {
    const state = fold(
      taps.slice(0, n + 1).map(([kind, at, payload], i) => ({ id: String(i), kind, at, payload })),
      scenes,
    )
    const next = taps[n + 1]?.[1] ?? until
    if (state.phase !== 'running') return void vi.advanceTimersByTime(next - performance.now())
    const silence = ringing({ bells, cues, scenes }, state, audio as unknown as AudioContext, () => performance.now())
    const place = () => positionAt(state, performance.now(), scenes)
    const caller = new Caller(calls, scenes, state, place() - 1, left)
    const timer = setInterval(() => {
      const call = caller.at(place())
      if (call) said.push([performance.now(), call.text])
    }, 50)
    vi.advanceTimersByTime(next - performance.now())
    clearInterval(timer)
    silence()
  })
  const rung = audio.heard.map(({ pitch, at }): [number, string] => [at, kinds[pitch / 100 - 1]!])
  return { rung: rung.filter(([at]) => at <= until), said }
}

describe.each(cases)('$name', (it) => {
  test('rings when it should', () => near(run(it, 0).rung, it.rings, 1))

  test('rings then also through a device that is late; what a tap calls for at once is as late as the device', () => {
    const late = run(it, 40).rung
    expect(late.map(([, what]) => what)).toEqual(it.rings.map(([, what]) => what))
    late.forEach(([at], i) => {
      const atOnce = it.taps.some(([, tapped]) => Math.abs(it.rings[i]![0] - tapped) < 40)
      expect(Math.abs(at - it.rings[i]![0])).toBeLessThanOrEqual(atOnce ? 41 : 1)
    })
  })

  test('says what it should', () => near(run(it, 0).said, it.says, 50))
})

test('a hidden tab whose timers are held back misses no bell', () => {
  const usual = setInterval
  vi.stubGlobal('setInterval', (act: () => void, every: number) => usual(act, Math.max(1900, every)))
  expect(run(cases[0]!, 0).rung).toHaveLength(7)
})

test('a machine that slept rings nothing of what it slept through', () => {
  const audio = new FakeAudio()
  const state = fold([{ id: '', kind: 'start', at: 0 }], scenes)
  let slept = 0
  const now = () => performance.now() + slept
  const silence = ringing({ bells, cues, scenes }, state, audio as unknown as AudioContext, now)
  vi.advanceTimersByTime(3000)
  slept = 50_000
  vi.advanceTimersByTime(20_000)
  silence()
  expect(audio.heard.map(({ pitch }) => kinds[pitch / 100 - 1])).toEqual(['end'])
})

test('two calls at once: the second is left, and comes back with its next moment', () => {
  const both: Call[] = [
    { at: 1, kind: 'form', text: 'one two three', seconds: 1.2, priority: 1, scene: 0, shift: 0 },
    { at: 2, kind: 'form', text: 'four', seconds: 0.4, priority: 1, scene: 0, shift: 0 },
    { at: 2.2, kind: 'form', text: 'five', seconds: 0.4, priority: 1, scene: 0, shift: 0 },
  ]
  const state = fold([{ id: '', kind: 'start', at: 0 }], scenes)
  const caller = new Caller(both, scenes, state, -1)
  const said = Array.from({ length: 60 }, (_, i) => caller.at(i * 50)?.text).filter(Boolean)
  expect(said).toEqual(['one two three', 'five'])
})
