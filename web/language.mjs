// Writes src/api/language.ts from the contract: the bounds of the plan language's fields, and what takes which of them.
import { readFileSync, writeFileSync } from 'node:fs'

const contract = JSON.parse(readFileSync(new URL('api.json', import.meta.url), 'utf8'))
const bounds = {}
for (const [name, definition] of Object.entries(contract.components.schemas)) {
  if (!/^(Plan|ClassPlan)/.test(name) || !definition.properties) continue
  for (const [field, schema] of Object.entries(definition.properties)) {
    // A value by round has the bounds of each of its values.
    const one = schema.oneOf?.[0] ?? schema
    const least = one.minimum ?? one.minLength ?? one.minItems
    const most = one.maximum ?? one.maxLength ?? one.maxItems
    if (most !== undefined) (bounds[name] ??= {})[field] = { min: least ?? 0, max: most }
  }
}

writeFileSync(
  new URL('src/api/language.ts', import.meta.url),
  `// Made from the contract by npm run types; not edited by hand.

/** What a field of the plan language may hold: of a number its bounds, of a text or a list its length. */
export const bounds = ${JSON.stringify(bounds, null, 2)} as const

/** The fields that a block and its stations take, by the block's shape, and a part, by its kind. */
export const taken = ${JSON.stringify(contract['x-taken'], null, 2)} as const
`,
)
