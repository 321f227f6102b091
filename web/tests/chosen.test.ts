import { describe, expect, test } from 'vitest'
import type { Plan, PlanBlock } from '../src/api/client'
import type { Spot } from '../src/plan/chosen'
import { choosing, dropped, eachChosen, itemsOf, nudgedAt, pasted, removed, stillThere } from '../src/plan/chosen'

const station = (id: string) => ({ id, dose: [{ kind: 'time' as const, amount: 40 }], options: [] })
const block = (id: string, stations: string[], more: Partial<PlanBlock> = {}): PlanBlock => ({
  id,
  name: id,
  phase: 'main',
  stations: stations.map(station),
  ...more,
})
const plan = {
  format: 'halterion-class',
  version: 1,
  title: 'Chosen',
  slotMinutes: 45,
  blocks: [
    block('b1', ['a', 'b', 'c']),
    { id: 'talk', name: 'Talk', phase: 'talk', format: 'talk', seconds: 60 },
    block('b2', ['d'], { format: 'rotation' }),
  ],
} as Plan

const at = (b: string, s?: string): Spot => (s === undefined ? { block: b } : { block: b, station: s })
const shapeOf = (p: Plan) => p.blocks.map((b) => `${b.id}:${(b.stations ?? []).map((s) => s.id).join('')}`).join(' ')

describe('choosing', () => {
  test('takes one thing more, and lets go of it', () => {
    const one = choosing(plan, [], at('b1', 'a'), null)
    expect(one).toEqual([at('b1', 'a')])
    expect(choosing(plan, one, at('b1', 'b'), null)).toEqual([at('b1', 'a'), at('b1', 'b')])
    expect(choosing(plan, one, at('b1', 'a'), null)).toEqual([])
  })

  test('with an anchor takes all between, over blocks and in either direction', () => {
    const all = [at('b1', 'b'), at('b1', 'c'), at('b2', 'd')]
    expect(choosing(plan, [], at('b2', 'd'), at('b1', 'b'))).toEqual(all)
    expect(choosing(plan, [], at('b1', 'b'), at('b2', 'd'))).toEqual(all)
    expect(choosing(plan, [], at('b2'), at('b1'))).toEqual([at('b1'), at('talk'), at('b2')])
  })

  test('an anchor that is gone, or of the other kind, is none', () => {
    expect(choosing(plan, [], at('b1', 'b'), at('b1', 'gone'))).toEqual([at('b1', 'b')])
    expect(choosing(plan, [at('b1')], at('b1', 'b'), at('b1'))).toEqual([at('b1', 'b')])
  })

  test('blocks and stations are never chosen together', () => {
    expect(choosing(plan, [at('b1')], at('b2', 'd'), null)).toEqual([at('b2', 'd')])
    expect(choosing(plan, [at('b2', 'd')], at('b1'), null)).toEqual([at('b1')])
  })

  test('what is gone is chosen no more, and the rest stands in the order of the class', () => {
    expect(stillThere(plan, [at('b2', 'd'), at('b1', 'gone'), at('b1', 'a')])).toEqual([at('b1', 'a'), at('b2', 'd')])
  })
})

describe('what is done with the chosen', () => {
  test('is copied in the order of the class, whatever the order of choosing', () => {
    expect(itemsOf(plan, [])).toBeNull()
    const items = itemsOf(plan, [at('b2', 'd'), at('b1', 'a')])
    expect([items?.kind, items?.items.map((i) => i.id)]).toEqual(['stations', ['a', 'd']])
    expect(itemsOf(plan, [at('talk')])?.items).toEqual([plan.blocks[1]])
  })

  test('is pasted under new ids and without what the block does not take', () => {
    const next = pasted(
      plan,
      { kind: 'stations', items: [{ ...station('a'), say: { text: 'Low', seconds: 3 } }] },
      'b2',
    )
    const [own, copy] = next.blocks[2]!.stations!
    expect(own!.id).toBe('d')
    expect(copy!.id).not.toBe('a')
    expect(copy).not.toHaveProperty('say')
    expect(plan.blocks[2]!.stations).toHaveLength(1)
  })

  test('goes into the last block with stations where none is said, and nowhere in a class of talks', () => {
    const what = { kind: 'stations' as const, items: [station('x')] }
    expect(pasted(plan, what).blocks[2]!.stations).toHaveLength(2)
    const talks = { ...plan, blocks: [plan.blocks[1]!] }
    expect(pasted(talks, what)).toBe(talks)
  })

  test('never fills a block or a class past what it takes', () => {
    const many = { kind: 'stations' as const, items: Array.from({ length: 20 }, (_, i) => station(`x${i}`)) }
    expect(pasted(plan, many, 'b1').blocks[0]!.stations).toHaveLength(16)
    const blocks = { kind: 'blocks' as const, items: Array.from({ length: 40 }, (_, i) => block(`y${i}`, ['z'])) }
    expect(pasted(plan, blocks).blocks).toHaveLength(30)
  })

  test('is taken away, but for the last station of a block', () => {
    expect(shapeOf(removed(plan, [at('b1', 'a'), at('b2', 'd')]))).toBe('b1:bc talk: b2:d')
    expect(shapeOf(removed(plan, [at('b1'), at('talk')]))).toBe('b2:d')
  })

  test('changes the stations chosen, and all of a block chosen, and no other', () => {
    const named = (chosen: Spot[]) =>
      eachChosen(plan, chosen, (s) => ({ ...s, name: 'New' }))
        .blocks.flatMap((b) => b.stations ?? [])
        .filter((s) => s.name === 'New')
        .map((s) => s.id)
    expect(named([at('b1', 'b'), at('b2', 'd')])).toEqual(['b', 'd'])
    expect(named([at('b1')])).toEqual(['a', 'b', 'c'])
    expect(named([])).toEqual([])
  })
})

describe('what is dragged', () => {
  test.each([
    ['b1', 'c', 'b1', 'a', false, 'b1:cab talk: b2:d'],
    ['b1', 'a', 'b1', 'c', true, 'b1:bca talk: b2:d'],
    ['b1', 'a', 'b2', 'd', true, 'b1:bc talk: b2:da'],
    ['b1', 'a', 'b2', undefined, false, 'b1:bc talk: b2:ad'],
    // A block is not left empty, and a talk takes no station.
    ['b2', 'd', 'b1', 'a', false, 'b1:abc talk: b2:d'],
    ['b1', 'a', 'talk', undefined, false, 'b1:abc talk: b2:d'],
  ])('station %s/%s dropped at %s/%s, behind it: %s', (b, s, toBlock, to, after, shape) => {
    expect(shapeOf(dropped(plan, at(b, s), at(toBlock, to), after))).toBe(shape)
  })

  test('a block is dropped before or behind another, or at the end', () => {
    expect(shapeOf(dropped(plan, at('b2'), at('b1'), false))).toBe('b2:d b1:abc talk:')
    expect(shapeOf(dropped(plan, at('b1'), at('b2'), true))).toBe('talk: b2:d b1:abc')
  })

  test('moves by one among its neighbours, and stops at either end', () => {
    expect(shapeOf(nudgedAt(plan, at('b1', 'b'), -1))).toBe('b1:bac talk: b2:d')
    expect(shapeOf(nudgedAt(plan, at('b1', 'a'), -1))).toBe(shapeOf(plan))
    expect(shapeOf(nudgedAt(plan, at('b2'), 1))).toBe(shapeOf(plan))
    expect(shapeOf(nudgedAt(plan, at('talk'), 1))).toBe('b1:abc b2:d talk:')
  })
})
