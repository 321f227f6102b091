import assert from 'node:assert/strict'
import type { Plan, PlanBlock, PlanStation } from '../../web/src/api/client'
import {
  blockOf,
  doubled,
  lacking,
  moveBlock,
  moveStation,
  reshaped,
  setBlock,
  setStation,
  tiesTo,
  withSides,
} from '../../web/src/plan/edit'
import { copyOfBlock, copyOfStation, newId, withIds, withoutLost } from '../../web/src/plan/ids'
import { expect, test } from './studio'

/*
 * What is known by its id says the same whatever happens around it: random edits with the editor's own functions, and
 * after each of them the waivers, read by the server, and the log of a class that was held before.
 */

/** Numbers that look random and are the same every time (mulberry32). */
function dice(seed: number) {
  return (below: number) => {
    seed = (seed + 0x6d2b79f5) | 0
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) % below
  }
}

const moves = ['squat', 'split-squat', 'hip-hinge', 'glute-bridge', 'side-lunge']
let made = 0

const station = (move: string): PlanStation => ({
  id: newId(),
  name: `Station ${++made}`,
  dose: [{ kind: 'time', amount: 30 }],
  options: [{ id: newId(), tier: 'main', move }],
})

const first = (): Plan =>
  withIds({
    format: 'halterion-class',
    version: 1,
    title: 'Edited',
    slotMinutes: 60,
    blocks: ['A', 'B', 'C'].map((name, b) => ({
      name,
      phase: 'main',
      rounds: 2,
      stations: [0, 1, 2].map((s) => station(moves[(b + s) % 5]!)),
    })),
  } as Plan)

const stationsOf = (plan: Plan) => plan.blocks.flatMap((block) => block.stations ?? [])

function edited(plan: Plan, roll: (below: number) => number): Plan {
  const stations = stationsOf(plan)
  const one = stations[roll(stations.length)]!
  const home = blockOf(plan, one.id!)!
  const other = plan.blocks[roll(plan.blocks.length)]!
  switch (roll(7)) {
    case 0: {
      const at = roll((other.stations?.length ?? 0) + 1)
      return (other.stations?.length ?? 0) > 9
        ? plan
        : setBlock(plan, other.id!, (b) => ({ ...b, stations: b.stations!.toSpliced(at, 0, station(moves[roll(5)]!)) }))
    }
    case 1:
      return moveStation(plan, one.id!, other.id!, other.stations?.[roll(other.stations.length)]?.id)
    case 2:
      return moveBlock(plan, other.id!, plan.blocks[roll(plan.blocks.length)]!.id)
    case 3:
      return (home.stations?.length ?? 0) < 2
        ? plan
        : setBlock(plan, home.id!, (b) => ({ ...b, stations: lacking(b.stations!, one.id!) }))
    case 4:
      return plan.blocks.length < 2 ? plan : { ...plan, blocks: lacking(plan.blocks, other.id!) }
    case 5:
      return (home.stations?.length ?? 0) > 9
        ? plan
        : setBlock(plan, home.id!, (b) => ({ ...b, stations: doubled(b.stations!, one.id!, copyOfStation) }))
    default:
      return plan.blocks.length > 5 ? plan : { ...plan, blocks: doubled(plan.blocks, other.id!, copyOfBlock) }
  }
}

interface Finding {
  code: string
  place: string
  waived?: string | null
}

test('waivers and logs say the same through a hundred random sequences of edits', async ({ studio }) => {
  const send = async <T>(method: string, path: string, body?: unknown, version?: number): Promise<T> => {
    const response = await fetch(studio.address + path, {
      method,
      headers: {
        'Content-Type': 'application/json',
        ...(version === undefined ? {} : { 'If-Match': `"${version}"` }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    assert.ok(response.ok, `${method} ${path}: ${response.status}`)
    return (await response.json()) as T
  }

  const person = await send<{ id: string }>('POST', '/api/people', { name: 'Ada' })
  const begun = await send<{ id: string; sessions: { id: string }[] }>('POST', '/api/classes/file', first())
  const address = `/api/sessions/${begun.sessions[0]!.id}/log`
  const open = await send<{ rows: { row: { personId: string } }[] }>('GET', address)
  expect(open.rows.map((r) => r.row.personId)).toEqual([person.id])
  await send('PUT', address, { log: { rows: open.rows.map((r) => r.row), note: '' } }, 0)
  const logged = await send<{ rows: unknown; stations: unknown }>('GET', address)

  let version = 1
  for (let seed = 1; seed <= 100; seed++) {
    const roll = dice(seed)
    let now = first()
    const names = new Map(stationsOf(now).map((s) => [s.id, s.name]))
    // Every second station of the beginning is waived, and the reason is its own name.
    const waivers = stationsOf(now)
      .filter((_, i) => i % 2 === 0)
      .map((s) => ({ code: 'options.missing', place: s.id!, reason: s.name! }))
    now = { ...now, waivers }
    const past: Plan[] = []
    for (let step = 0; step < 12; step++) {
      if (past.length > 0 && roll(5) === 0) {
        now = past.pop()!
      } else {
        past.push(now)
        now = edited(now, roll)
      }
      const stations = stationsOf(now)
      assert.equal(new Set(stations.map((s) => s.id)).size, stations.length, `seed ${seed}`)
      for (const s of stations) {
        if (names.has(s.id)) assert.equal(s.name, names.get(s.id))
        else names.set(s.id, s.name)
      }
    }

    const { findings } = await send<{ findings: Finding[] }>('POST', '/api/plans/evaluate', now)
    const missing = findings.filter((f) => f.code === 'options.missing')
    expect(missing.map((f) => f.place).sort(), `seed ${seed}`).toEqual(
      stationsOf(now)
        .map((s) => s.id!)
        .sort(),
    )
    for (const finding of missing) {
      const waiver = waivers.find((w) => w.place === finding.place)
      assert.equal(finding.waived ?? undefined, waiver?.reason, `seed ${seed}`)
    }
    if (seed % 10 === 0) {
      version = (await send<{ version: number }>('PUT', `/api/classes/${begun.id}`, { plan: now }, version)).version
      expect(await send('GET', address)).toEqual(logged)
    }
  }
})

test('a block of any shape may be done in any other, and back', async ({ studio }) => {
  const faultsOf = async (block: PlanBlock): Promise<unknown[]> => {
    const plan = { format: 'halterion-class', version: 1, title: 'Shapes', slotMinutes: 60, blocks: [block] }
    const response = await fetch(`${studio.address}/api/plans/evaluate`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(plan),
    })
    return response.status === 200 ? [] : ((await response.json()) as { errors: unknown[] }).errors
  }

  const starters = (await (await fetch(`${studio.address}/api/starters`)).json()) as {
    name: string
    block: PlanBlock
  }[]
  const full: PlanBlock = {
    name: 'Full',
    phase: 'main',
    rounds: 3,
    optionalRounds: 1,
    betweenStations: 10,
    betweenRounds: [60, 30],
    gate: 'rests',
    recovery: [{ tier: 'main', move: 'march' }],
    recoveryIn: 'all',
    stations: ['split-squat', 'reverse-lunge'].map((move, i) => ({
      sides: 'each',
      changeSeconds: 12,
      demoSeconds: 20,
      startSide: 'right',
      say: { text: 'Slowly', seconds: 5 },
      ...(i === 0 ? { withNext: true } : {}),
      dose: [{ kind: 'reps', amount: 8 }],
      options: [{ tier: 'main', move }],
    })),
  }
  const shapes = ['circuit', 'onTheClock', 'sets', 'rotation', 'ownPace'] as const
  const blocks = [full, ...starters.map((s) => s.block).filter((b) => b.format !== 'talk')]
  for (const block of blocks) {
    for (const shape of shapes) {
      const other = reshaped(block, shape)
      expect(await faultsOf(other), `${block.name} as ${shape}`).toEqual([])
      for (const back of shapes)
        expect(await faultsOf(reshaped(other, back)), `${block.name}: ${shape}, ${back}`).toEqual([])
    }
  }
})

test('a walk-through loses what is gone from the class, and nothing else', () => {
  const plan = first()
  const [one, two] = stationsOf(plan)
  const shown: Plan = {
    ...plan,
    blocks: [
      {
        id: 'talk',
        name: 'Welcome',
        phase: 'talk',
        format: 'talk',
        show: [
          { station: one!.id!, seconds: 45, first: 'main' },
          { station: two!.id!, seconds: 15 },
        ],
      },
      ...plan.blocks,
    ],
  }
  expect(withoutLost(shown)).toBe(shown)
  const without = (...ids: string[]): Plan => ({
    ...shown,
    blocks: shown.blocks.map((b) =>
      b.stations ? { ...b, stations: b.stations.filter((s) => !ids.includes(s.id!)) } : b,
    ),
  })
  expect(withoutLost(without(one!.id!)).blocks[0]!.show).toEqual([{ station: two!.id, seconds: 15 }])

  // With nothing left to show it is a talk again, of some length; an option that went is not shown first any more.
  const talk = withoutLost(without(one!.id!, two!.id!)).blocks[0]!
  expect(talk).not.toHaveProperty('show')
  expect(talk.seconds).toBeGreaterThan(0)
  const eased = setStation(shown, one!.id!, (s) => ({ ...s, options: [{ ...s.options[0]!, tier: 'easier' }] }))
  expect(withoutLost(eased).blocks[0]!.show![0]).toEqual({ station: one!.id, seconds: 45 })
})

test('sides are set as the language takes them, and a string only where it can be one', () => {
  const timed = station('split-squat')
  expect(withSides(timed, 'split')).toMatchObject({ sides: 'split' })
  const alternating = withSides(timed, 'alternate')
  expect(alternating.dose[0]).toMatchObject({ side: 'alternate' })
  expect(withSides(alternating, 'each')).toEqual({ ...timed, sides: 'each' })
  const reps: PlanStation = { ...timed, dose: [{ kind: 'reps', amount: 12 }], chunk: 5, sides: 'each', withNext: true }
  expect(withSides(reps, 'split')).toBe(reps)
  expect(withSides(reps, 'asWritten')).not.toHaveProperty('withNext')

  const [a, b] = [withSides(station('split-squat'), 'each'), withSides(station('side-lunge'), 'each')]
  const block = { id: 'x', name: 'X', phase: 'main', stations: [a, b] } as PlanBlock
  expect(tiesTo(block, a)).toBe(true)
  expect(tiesTo(block, b)).toBe(false)
  expect(tiesTo({ ...block, stations: [a, station('squat')] }, a)).toBe(false)
  expect(tiesTo({ ...block, sidePass: 'round' }, a)).toBe(false)
  expect(tiesTo({ ...block, format: 'rotation' }, a)).toBe(false)
})
