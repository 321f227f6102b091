import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import type { Command, CommandKind, Payload } from '../src/leading/core/fold'
import { apply, fold, positionAt, sceneAt } from '../src/leading/core/fold'

interface Case {
  name: string
  gates?: number[]
  commands: [CommandKind, number, Payload?][]
  now: number
  phase: string
  position: number
  scene: number
}

test('the fold of the screen agrees with the shared cases', () => {
  const cases = JSON.parse(readFileSync('../tests/lead-cases.json', 'utf8')) as Case[]
  for (const { name, gates, commands, now, ...expected } of cases) {
    const scenes = [10, 60, 80].map((end, i) => ({ end, gated: gates?.includes(i) ?? false }))
    const state = fold(
      commands.map(([kind, at, payload], i): Command => ({ id: String(i), kind, at, payload })),
      scenes,
    )
    const position = positionAt(state, now, scenes)
    expect({ name, phase: state.phase, position, scene: sceneAt(position, scenes, state.added) }).toEqual({
      name,
      ...expected,
    })
  }
})

/** In the order of the server's words. */
const kinds: CommandKind[] = [
  'start',
  'pause',
  'resume',
  'skip',
  'back',
  'addTen',
  'finish',
  'go',
  'adjust',
  'lessTen',
  'jump',
  'note',
  'lead',
]
const phases = ['ready', 'running', 'paused', 'finished']

test('both folds agree on a hundred thousand sequences', () => {
  const { seed, sequences, ...expected } = JSON.parse(readFileSync('../tests/lead-fuzz.json', 'utf8')) as {
    seed: number
    sequences: number
    sum: number
  }
  let x = seed
  let sum = 2166136261
  const next = (below: number) => ((x = (Math.imul(x, 1664525) + 1013904223) >>> 0) >>> 8) % below
  const add = (value: number) => (sum = Math.imul(sum ^ value, 16777619) >>> 0)
  for (let i = 0; i < sequences; i++) {
    let at = 0
    let end = 0
    const scenes = Array.from({ length: 1 + next(6) }, () => ({ end: (end += 1 + next(40)), gated: next(4) === 0 }))
    let state = fold([], scenes)
    for (let taps = next(14); taps > 0; taps--) {
      at += next(30_000) - 2000
      const kind = kinds[next(13)]!
      const shifts = Array.from({ length: next(4) }, () => ({ scene: next(7), by: next(60_000) - 40_000 }))
      const payload = { shifts, scene: next(8) - 1 }
      state = apply(state, { id: '', kind, at, device: String(next(3)), payload }, scenes)
    }
    add(phases.indexOf(state.phase))
    add(state.position)
    add(state.at)
    add(state.opened)
    add(state.leader === null ? -1 : Number(state.leader))
    add(positionAt(state, at + 7000, scenes))
    state.added.forEach(add)
  }
  expect(sum).toBe(expected.sum)
})
