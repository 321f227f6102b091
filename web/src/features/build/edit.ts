import type { Plan, PlanBlock, PlanOption, PlanPart, PlanStation } from '../../api/client'

/** Changes to a plan, each from plan to plan. Fields that no screen shows are kept as they are. */

export const setBlock = (plan: Plan, b: number, next: (block: PlanBlock) => PlanBlock): Plan => ({
  ...plan,
  blocks: plan.blocks.map((block, i) => (i === b ? next(block) : block)),
})

export const setStation = (plan: Plan, b: number, s: number, next: (station: PlanStation) => PlanStation): Plan =>
  setBlock(plan, b, (block) => ({
    ...block,
    stations: block.stations?.map((station, i) => (i === s ? next(station) : station)),
  }))

export const setPart = (station: PlanStation, p: number, next: (part: PlanPart) => PlanPart): PlanStation => ({
  ...station,
  dose: station.dose.map((part, i) => (i === p ? next(part) : part)),
})

/** Sets a field, or leaves it out where the value is undefined. */
export function withField<T extends object, K extends keyof T>(target: T, key: K, value: T[K] | undefined): T {
  const next = { ...target }
  if (value === undefined) delete next[key]
  else next[key] = value
  return next
}

export function moved<T>(items: T[], from: number, to: number): T[] {
  if (to < 0 || to >= items.length) return items
  const next = [...items]
  const [item] = next.splice(from, 1)
  next.splice(to, 0, item!)
  return next
}

export const copied = <T>(items: T[], at: number): T[] => [
  ...items.slice(0, at + 1),
  structuredClone(items[at]!),
  ...items.slice(at + 1),
]

export const without = <T>(items: T[], at: number): T[] => items.filter((_, i) => i !== at)

export const mainOption = (station: PlanStation): PlanOption | undefined =>
  station.options.find((option) => option.tier === 'main')

/** The options as they stand under each other on screen: harder above, easier below. */
const order = ['harder', 'instead', 'main', 'easier'] as const

export const inOrder = (options: PlanOption[]): { option: PlanOption; index: number }[] =>
  options
    .map((option, index) => ({ option, index }))
    .sort((a, b) => order.indexOf(a.option.tier) - order.indexOf(b.option.tier) || a.index - b.index)
