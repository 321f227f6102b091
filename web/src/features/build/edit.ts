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

export type Shape = 'circuit' | 'every' | 'sets' | 'rotation' | 'ownPace' | 'talk'

export const shapeOf = (block: PlanBlock): Shape =>
  block.format === 'talk'
    ? 'talk'
    : block.format === 'rotation'
      ? 'rotation'
      : block.startEverySeconds !== undefined
        ? 'every'
        : (block.order ?? 'circuit')

/** Fields that only some shapes of block take: they go when the shape changes. */
const ofOneShape = [
  'order',
  'format',
  'windowSeconds',
  'startEverySeconds',
  'betweenSets',
  'betweenRounds',
  'sidePass',
  'seconds',
  'goalReps',
  'goalShared',
] as const

/** A block done another way. What both ways know is kept. */
export function reshaped(block: PlanBlock, shape: Exclude<Shape, 'talk'>): PlanBlock {
  const kept = { ...block }
  const rest = block.betweenRounds ?? block.betweenSets
  const side = block.sidePass
  for (const key of ofOneShape) delete kept[key]
  kept.format = shape === 'rotation' ? 'rotation' : 'together'
  if (shape === 'sets' || shape === 'ownPace') kept.order = shape
  if (shape === 'ownPace') {
    for (const key of ['rounds', 'betweenStations', 'optionalRounds'] as const) delete kept[key]
    kept.seconds = block.seconds ?? 300
  } else if (rest !== undefined) {
    kept[shape === 'sets' ? 'betweenSets' : 'betweenRounds'] = rest
  }
  if (shape === 'every') {
    kept.startEverySeconds = 60
    delete kept.betweenStations
  }
  if (side === 'alternate' && (shape === 'circuit' || shape === 'rotation')) kept.sidePass = side
  if (side === 'round' && shape === 'circuit') kept.sidePass = side
  kept.stations = kept.stations?.map((station) => suited(station, kept))
  return kept
}

/** A station without what its block does not take. */
export function suited(station: PlanStation, block: PlanBlock): PlanStation {
  const own = { ...station }
  const shape = shapeOf(block)
  if (shape === 'rotation' || shape === 'ownPace') {
    delete own.changeSeconds
    delete own.demoSeconds
  }
  if (shape === 'every') delete own.changeSeconds
  if (shape === 'ownPace') {
    delete own.sharing
    delete own.waiting
  }
  if (block.sidePass === 'round' || block.sidePass === 'alternate') {
    delete own.sides
    delete own.chunk
    own.dose = own.dose.map((part) => withField(part, 'side', undefined))
  }
  return own
}

/** Moves a station within its block or into another one; nothing where a block would be left empty or too full. */
export function moveStation(
  plan: Plan,
  from: { block: number; station: number },
  to: { block: number; station: number },
): Plan {
  const source = plan.blocks[from.block]
  const target = plan.blocks[to.block]
  const station = source?.stations?.[from.station]
  if (!source || !target || !station || target.format === 'talk') return plan
  if (from.block === to.block) {
    const at = to.station > from.station ? to.station - 1 : to.station
    return setBlock(plan, from.block, (b) => ({ ...b, stations: moved(b.stations ?? [], from.station, at) }))
  }
  if ((source.stations?.length ?? 0) < 2 || (target.stations?.length ?? 0) >= 16) return plan
  const without1 = setBlock(plan, from.block, (b) => ({ ...b, stations: without(b.stations ?? [], from.station) }))
  return setBlock(without1, to.block, (b) => ({
    ...b,
    stations: [
      ...(b.stations ?? []).slice(0, to.station),
      suited(station, target),
      ...(b.stations ?? []).slice(to.station),
    ],
  }))
}
