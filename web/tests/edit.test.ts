import { describe, expect, test } from 'vitest'
import type { Plan, PlanBlock, PlanStation } from '../src/api/client'
import type { Shape, SideHabit } from '../src/plan/edit'
import {
  blockOf,
  keptSides,
  moveBlock,
  moved,
  moveStation,
  nudged,
  reshaped,
  shapeOf,
  sidesFor,
  sidesOf,
  suited,
  tiesTo,
  withField,
  withSides,
} from '../src/plan/edit'
import { copyOfBlock, withIds, withoutLost } from '../src/plan/ids'

/** A random number below n, the same in every run. */
function random(seed: number) {
  let x = seed
  return (below: number) => ((x = (Math.imul(x, 1664525) + 1013904223) >>> 0) >>> 8) % below
}

const shapes = ['circuit', 'onTheClock', 'sets', 'rotation', 'ownPace'] as const
const maybe = <T>(next: (n: number) => number, value: T): T | undefined => (next(2) ? value : undefined)

/** What a station may carry in a circuit of its own sides. */
function stationOf(next: (n: number) => number, id: string): PlanStation {
  const station: PlanStation = {
    id,
    dose: [{ kind: 'time', amount: 20 + next(40) }],
    options: [{ id: `${id}o`, tier: 'main', move: 'squat' }],
  }
  const extra = {
    changeSeconds: maybe(next, 12),
    demoSeconds: maybe(next, 15),
    betweenSets: maybe(next, 45),
    say: maybe(next, { text: 'Slowly.', seconds: 4 }),
    sides: maybe(next, 'each' as const),
    startSide: maybe(next, 'right' as const),
    sharing: maybe(next, 'turns' as const),
    withNext: maybe(next, true),
    note: maybe(next, 'kept'),
  }
  return JSON.parse(JSON.stringify({ ...station, ...extra })) as PlanStation
}

function planOf(next: (n: number) => number): Plan {
  const blocks = Array.from({ length: 2 + next(3) }, (_, b): PlanBlock => {
    const circuit: PlanBlock = {
      id: `b${b}`,
      name: `Block ${b}`,
      phase: 'main',
      rounds: 2,
      betweenStations: 10,
      betweenRounds: 30,
      stations: Array.from({ length: 1 + next(4) }, (_, s) => stationOf(next, `b${b}s${s}`)),
    }
    return next(5) === 0
      ? { id: `b${b}`, name: 'Talk', phase: 'talk', format: 'talk', seconds: 60 }
      : reshaped({ ...circuit, ...maybe(next, { sidePass: 'round' as const }) }, shapes[next(shapes.length)]!)
  })
  return { format: 'halterion-class', version: 1, title: 'Random', slotMinutes: 45, blocks } as unknown as Plan
}

const idsOf = (plan: Plan) => plan.blocks.flatMap((b) => (b.stations ?? []).map((s) => s.id!)).sort()

/** By hand from plan-language.md: what a station of a block of each shape may not carry. */
const refused: Record<Shape, (keyof PlanStation)[]> = {
  circuit: ['betweenSets'],
  onTheClock: ['betweenSets', 'changeSeconds', 'withNext'],
  sets: [],
  rotation: ['betweenSets', 'changeSeconds', 'demoSeconds', 'withNext', 'say'],
  ownPace: ['betweenSets', 'changeSeconds', 'demoSeconds', 'withNext', 'say', 'sharing', 'waiting'],
  talk: [],
}
const ofSides = ['sides', 'chunk', 'startSide', 'withNext'] as const

function fits(block: PlanBlock) {
  for (const station of block.stations ?? []) {
    const bySides = block.sidePass === 'round' || block.sidePass === 'alternate' ? ofSides : []
    const wrong = [...refused[shapeOf(block)], ...bySides].filter((field) => station[field] !== undefined)
    expect({ shape: shapeOf(block), sidePass: block.sidePass, wrong }).toEqual({
      shape: shapeOf(block),
      sidePass: block.sidePass,
      wrong: [],
    })
  }
}

describe('over three hundred random classes', () => {
  test('a station that is moved takes nothing along that its new block refuses; none is lost, none doubled', () => {
    let went = 0
    for (let seed = 1; seed <= 300; seed++) {
      const next = random(seed)
      let plan = planOf(next)
      const ids = idsOf(plan)
      for (let step = 0; step < 12; step++) {
        const before = structuredClone(plan)
        const id = ids[next(ids.length)]!
        const to = plan.blocks[next(plan.blocks.length)]!
        const beside = to.stations?.[next(to.stations.length)]?.id
        const after = moveStation(plan, id, to.id!, maybe(next, beside))
        expect(plan).toEqual(before)
        if (after !== plan) went++
        expect(idsOf(after)).toEqual(ids)
        expect(after.blocks.every((b) => b.format === 'talk' || b.stations!.length > 0)).toBe(true)
        after.blocks.forEach(fits)
        plan = after
      }
    }
    expect(went).toBeGreaterThan(1000)
  })

  test('a block that is done another way has its shape, fits, and is the same when it is done so again', () => {
    for (let seed = 1; seed <= 300; seed++) {
      const next = random(seed)
      for (const block of planOf(next).blocks.filter((b) => b.format !== 'talk')) {
        const shape = shapes[next(shapes.length)]!
        const other = reshaped(block, shape)
        expect(shapeOf(other)).toBe(shape)
        fits(other)
        expect(other.stations!.map((s) => [s.id, s.options, (s as { note?: string }).note])).toEqual(
          block.stations!.map((s) => [s.id, s.options, (s as { note?: string }).note]),
        )
        expect(reshaped(other, shape)).toEqual(other)
        expect(other.stations!.map((s) => suited(s, other))).toEqual(other.stations)
      }
    }
  })

  test('sides are what was chosen, wherever that can be', () => {
    const habits: SideHabit[] = ['asWritten', 'alternate', 'each', 'split']
    for (let seed = 1; seed <= 300; seed++) {
      const next = random(seed)
      const station = stationOf(next, 's')
      const rule = habits[next(4)]!
      const other = withSides(station, rule)
      expect(sidesOf(other)).toBe(rule)
      if (rule !== 'each') expect(other.withNext).toBeUndefined()
      expect(withSides(other, rule)).toEqual(other)
    }
  })
})

test('half a side needs one timed part: else nothing changes', () => {
  const station: PlanStation = { id: 's', dose: [{ kind: 'reps', amount: 8 }], options: [] }
  expect(withSides(station, 'split')).toBe(station)
})

test('a full block takes no more, and an only station does not go', () => {
  const next = random(7)
  const full = Array.from({ length: 16 }, (_, i) => stationOf(next, `f${i}`))
  const block = (id: string, stations: PlanStation[]): PlanBlock => ({ id, name: id, phase: 'main', stations })
  const plan = {
    blocks: [
      block('a', [stationOf(next, 'one')]),
      block('b', full),
      block('c', [stationOf(next, 'x'), stationOf(next, 'y')]),
    ],
  } as Plan
  expect(moveStation(plan, 'one', 'c')).toBe(plan)
  expect(moveStation(plan, 'x', 'b')).toBe(plan)
  expect(blockOf(moveStation(plan, 'x', 'a', 'one'), 'x')?.stations?.map((s) => s.id)).toEqual(['x', 'one'])
  // Within a full block it may still go elsewhere.
  expect(moveStation(plan, 'f0', 'b').blocks[1]!.stations!.map((s) => s.id)).toEqual([
    ...full.slice(1).map((s) => s.id),
    'f0',
  ])
})

test('blocks and items move, and nothing moves past an end', () => {
  const plan = { blocks: ['a', 'b', 'c'].map((id) => ({ id })) } as unknown as Plan
  const order = (p: Plan) => p.blocks.map((b) => b.id).join('')
  expect(order(moveBlock(plan, 'c', 'a'))).toBe('cab')
  expect(order(moveBlock(plan, 'a'))).toBe('bca')
  expect(moveBlock(plan, 'b', 'b')).toBe(plan)
  expect(moved([1, 2, 3], 0, 2)).toEqual([2, 3, 1])
  expect(moved([1, 2, 3], 0, 3)).toEqual([1, 2, 3])
  expect(nudged([{ id: 'a' }, { id: 'b' }], 'a', -1).map((x) => x.id)).toEqual(['a', 'b'])
  expect(withField({ a: 1, b: 2 }, 'b', undefined)).toEqual({ a: 1 })
})

test('two stations make a string only where both are whole and each of its sides', () => {
  const next = random(3)
  const each = (id: string): PlanStation => ({ ...stationOf(next, id), sides: 'each', sharing: undefined })
  const [a, b] = [each('a'), each('b')]
  const block = (change: object): PlanBlock => ({ id: 'x', name: 'X', phase: 'main', stations: [a, b], ...change })
  expect(tiesTo(block({}), a)).toBe(true)
  expect(tiesTo(block({}), b)).toBe(false)
  expect(tiesTo(block({ order: 'ownPace' }), a)).toBe(false)
  expect(tiesTo(block({ sidePass: 'round' }), a)).toBe(false)
  expect(tiesTo(block({ stations: [a, { ...b, chunk: 5 }] }), a)).toBe(false)
  expect(tiesTo(block({ stations: [a, { ...b, sharing: 'turns' }] }), a)).toBe(false)
})

test('everything gets an id, once; a copy gets others', () => {
  const bare = { blocks: [{ name: 'A', stations: [{ dose: [], options: [{ tier: 'main', move: 'squat' }] }] }] }
  const named = withIds(bare as unknown as Plan)
  const all = (b: PlanBlock) => [b.id, ...(b.stations ?? []).flatMap((s) => [s.id, ...s.options.map((o) => o.id)])]
  expect(new Set(all(named.blocks[0]!)).size).toBe(3)
  expect(withIds(named)).toBe(named)
  const copy = copyOfBlock(named.blocks[0]!)
  expect(all(copy).some((id) => all(named.blocks[0]!).includes(id))).toBe(false)
})

test('a walk-through loses what is not there any more, and a talk of nothing else keeps its time', () => {
  const next = random(4)
  const talk = (show: object[]): PlanBlock =>
    ({ id: 't', name: 'Show', phase: 'talk', format: 'talk', show }) as PlanBlock
  const work: PlanBlock = { id: 'w', name: 'Work', phase: 'main', stations: [stationOf(next, 's')] }
  const plan = (show: object[]) => ({ blocks: [talk(show), work] }) as unknown as Plan
  const whole = plan([{ station: 's', first: 'main' }])
  expect(withoutLost(whole)).toBe(whole)
  expect(withoutLost(plan([{ station: 's', first: 'harder' }])).blocks[0]!.show).toEqual([{ station: 's' }])
  expect(withoutLost(plan([{ station: 'gone' }])).blocks[0]).toMatchObject({ seconds: 120 })
  expect(withoutLost(plan([{ station: 'gone' }])).blocks[0]!.show).toBeUndefined()
})

describe('what a change leaves as it was', () => {
  const station = (fields: Partial<PlanStation>): PlanStation => ({
    id: 's',
    dose: [{ kind: 'time', amount: 40 }],
    options: [{ id: 'o', tier: 'main', move: 'split-squat' }],
    ...fields,
  })

  test('one target for many stations keeps how each deals with its sides, where the target takes it', () => {
    const typed = (dose: PlanStation['dose']) => station({ dose })
    expect(keptSides(station({ sides: 'split' }), typed([{ kind: 'time', amount: 30 }])).sides).toBe('split')
    // Reps cannot be split in half; what cannot be kept is left as it was typed.
    expect(keptSides(station({ sides: 'split' }), typed([{ kind: 'reps', amount: 12 }])).sides).toBeUndefined()
    const chunked = station({ sides: 'each', chunk: 5, dose: [{ kind: 'reps', amount: 20 }] })
    expect(keptSides(chunked, typed([{ kind: 'reps', amount: 30 }]))).toMatchObject({ sides: 'each', chunk: 5 })
    const alternating = station({ dose: [{ kind: 'reps', amount: 16, side: 'alternate' }] })
    expect(keptSides(alternating, typed([{ kind: 'reps', amount: 20 }])).dose[0]?.side).toBe('alternate')
    // What was typed with its sides stands as it was typed.
    const left = typed([{ kind: 'reps', amount: 20, side: 'left' }])
    expect(keptSides(alternating, left)).toBe(left)
  })

  test('a move of both legs has no sides, one of one leg gets the usual ones', () => {
    const alternating = station({ dose: [{ kind: 'reps', amount: 16, side: 'alternate' }] })
    const swapped = sidesFor(alternating, { was: 'alternating', now: 'twoSided', usual: 'asWritten' })
    expect(swapped.dose[0]?.side).toBeUndefined()
    expect(sidesFor(station({}), { was: 'twoSided', now: 'oneSided', usual: 'each' }).sides).toBe('each')
    expect(sidesFor(alternating, { was: 'alternating', now: 'oneSided', usual: 'each' }).sides).toBe('each')
    expect(sidesFor(alternating, { was: 'alternating', now: 'alternating', usual: 'each' })).toBe(alternating)
  })

  test('at one’s own pace a block goes on for as long as it took', () => {
    const block = { id: 'b', name: 'B', phase: 'main', rounds: 3, stations: [station({})] } as PlanBlock
    expect(reshaped(block, 'ownPace', 1200)).toMatchObject({ order: 'ownPace', seconds: 1200 })
    expect(reshaped(block, 'ownPace', 100_000).seconds).toBe(3600)
    expect(reshaped({ ...block, seconds: 240 }, 'ownPace', 1200).seconds).toBe(240)
  })
})
