import { readdirSync, readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { expect, test } from './studio'

interface Validator {
  (value: unknown): boolean
  errors?: unknown
}

const require = createRequire(import.meta.url)
const Ajv = require('ajv/dist/2020') as new (options: object) => { compile: (schema: object) => Validator }
const demo = new URL('../../demo/', import.meta.url)
const files = readdirSync(demo).filter((name) => name.endsWith('.halterion.json'))

/** Damage that a schema can see: the fields and their bounds, not the rules that join them. */
const damage: [string, (plan: Record<string, never>) => void][] = [
  ['unknown field', (p) => Object.assign(p, { colour: 1 })],
  ['title too long', (p) => Object.assign(p, { title: 'x'.repeat(121) })],
  ['blank title', (p) => Object.assign(p, { title: '   ' })],
  ['slot too short', (p) => Object.assign(p, { slotMinutes: 4 })],
  ['slot not whole', (p) => Object.assign(p, { slotMinutes: 30.5 })],
  ['unknown aim', (p) => Object.assign(p, { aim: 'glory' })],
  ['no blocks', (p) => Object.assign(p, { blocks: [] })],
  ['null', (p) => Object.assign(p, { notes: null })],
  ['rounds', (p) => Object.assign(p['blocks']![2]!, { rounds: 21 })],
  ['window', (p) => Object.assign(p['blocks']![2]!, { windowSeconds: [40, 4] })],
  ['tempo', (p) => Object.assign(p['blocks']![1]!['stations']![0]!['options']![0]!, { tempo: '2-0-1' })],
  ['scale', (p) => Object.assign(p['blocks']![1]!['stations']![0]!['options']![0]!, { scale: 3 })],
  ['depth', (p) => Object.assign(p['blocks']![1]!['stations']![0]!['options']![0]!, { depth: 'abyss' })],
  ['amount', (p) => Object.assign(p['blocks']![1]!['stations']![0]!['dose']![0]!, { amount: 0 })],
  ['three decimals', (p) => Object.assign(p['blocks']![1]!['stations']![0]!['dose']![0]!, { loadKg: 1.005 })],
]

test('the published schema and the program agree on fields and bounds', async ({ studio }) => {
  const schema = (await (await fetch(`${studio.address}/api/schema/class`)).json()) as object
  const valid = new Ajv({ strict: true, allErrors: true, multipleOfPrecision: 9 }).compile(schema)
  const evaluate = async (plan: unknown) =>
    (
      await fetch(`${studio.address}/api/plans/evaluate`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(plan),
      })
    ).status
  const starters = (await (await fetch(`${studio.address}/api/starters`)).json()) as { block: unknown }[]
  const whole = [
    ...files.map((name) => JSON.parse(readFileSync(new URL(name, demo), 'utf8')) as Record<string, never>),
    { format: 'halterion-class', version: 1, title: 'All', slotMinutes: 60, blocks: starters.map((s) => s.block) },
  ]
  for (const plan of whole) {
    expect(valid(plan), JSON.stringify(valid.errors)).toBe(true)
    expect(await evaluate(plan)).toBe(200)
  }
  for (const [name, harm] of damage) {
    const plan = structuredClone(whole[0]) as Record<string, never>
    harm(plan)
    expect(valid(plan), name).toBe(false)
    expect(await evaluate(plan), name).toBe(422)
  }
})
