import type { Move, Plan, PlanBlock, PlanOption, PlanPart, PlanStation } from '../api/client'
import { bounds, taken } from '../api/language'

/** Changes to a plan, each from plan to plan. Fields that no screen shows are kept as they are. */

export const setBlock = (plan: Plan, id: string, next: (block: PlanBlock) => PlanBlock): Plan => ({
  ...plan,
  blocks: plan.blocks.map((block) => (block.id === id ? next(block) : block)),
})

export const setStation = (plan: Plan, id: string, next: (station: PlanStation) => PlanStation): Plan => ({
  ...plan,
  blocks: plan.blocks.map((block) =>
    block.stations?.some((station) => station.id === id)
      ? { ...block, stations: block.stations.map((station) => (station.id === id ? next(station) : station)) }
      : block,
  ),
})

/** The block in which a station stands. */
export const blockOf = (plan: Plan, station: string): PlanBlock | undefined =>
  plan.blocks.find((block) => block.stations?.some((s) => s.id === station))

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

/** Sets a field to a word picked from the list of that very field, or leaves it out. */
export function withWord<T extends object>(target: T, key: keyof T, word: string | undefined): T {
  const next = { ...target, [key]: word }
  if (word === undefined) delete next[key]
  return next
}

export function moved<T>(items: T[], from: number, to: number): T[] {
  if (to < 0 || to >= items.length) return items
  const next = [...items]
  const [item] = next.splice(from, 1)
  next.splice(to, 0, item!)
  return next
}

/** Moves what has an id up or down by one. */
export const nudged = <T extends { id?: string }>(items: T[], id: string, by: -1 | 1): T[] => {
  const from = items.findIndex((item) => item.id === id)
  return moved(items, from, from + by)
}

/** A copy behind the thing itself. */
export const doubled = <T extends { id?: string }>(items: T[], id: string, copy: (item: T) => T): T[] =>
  items.flatMap((item) => (item.id === id ? [item, copy(item)] : [item]))

export const without = <T>(items: T[], at: number): T[] => items.filter((_, i) => i !== at)

export const lacking = <T extends { id?: string }>(items: T[], id: string): T[] =>
  items.filter((item) => item.id !== id)

export const mainOption = (station: PlanStation): PlanOption | undefined =>
  station.options.find((option) => option.tier === 'main')

/** The options as they stand under each other on screen: harder above, easier below. */
const order = ['harder', 'instead', 'main', 'easier'] as const

export const inOrder = (options: PlanOption[]): { option: PlanOption; index: number }[] =>
  options
    .map((option, index) => ({ option, index }))
    .sort((a, b) => order.indexOf(a.option.tier) - order.indexOf(b.option.tier) || a.index - b.index)

/** Writes the ids of the parts of a plan that a screen shows by them. */
export const partId = (part: { id?: string | null }): string => part.id ?? ''

export type Shape = keyof typeof taken.block

/** A thing without the fields that belong elsewhere; one that the language does not know is not ours to drop. */
function only<T extends object, W extends string>(thing: T, takes: Record<W, readonly string[]>, where: W): T {
  const elsewhere = Object.values<readonly string[]>(takes).flat()
  return Object.fromEntries(
    Object.entries(thing).filter(([key]) => takes[where].includes(key) || !elsewhere.includes(key)),
  ) as T
}

/** Whether a block of a shape takes a field. */
export const blockTakes = (shape: Shape, field: keyof PlanBlock): boolean =>
  (taken.block[shape] as readonly string[]).includes(field)

/** Whether a station takes a field in a block of a shape. */
export const stationTakes = (shape: Shape, field: keyof PlanStation): boolean =>
  (taken.station[shape] as readonly string[]).includes(field)

/** Whether a part takes a field. */
export const partTakes = (part: PlanPart, field: keyof PlanPart): boolean =>
  (taken.part[part.kind] as readonly string[]).includes(field)

/** A part of another kind, with what that kind takes. */
export const ofKind = (part: PlanPart, kind: PlanPart['kind']): PlanPart => only({ ...part, kind }, taken.part, kind)

const mostStations = bounds.PlanBlock.stations.max

export const shapeOf = (block: PlanBlock): Shape =>
  block.format === 'talk'
    ? 'talk'
    : block.format === 'rotation'
      ? 'rotation'
      : block.startEverySeconds !== undefined
        ? 'onTheClock'
        : (block.order ?? 'circuit')

/**
 * A block done another way. What both ways know is kept.
 * @param seconds What it takes now: at one's own pace it goes on for as long.
 */
export function reshaped(block: PlanBlock, shape: Exclude<Shape, 'talk'>, seconds = 300): PlanBlock {
  const kept = only(block, taken.block, shape)
  delete kept.order
  kept.format = shape === 'rotation' ? 'rotation' : 'together'
  if (shape === 'sets' || shape === 'ownPace') kept.order = shape
  const rest = block.betweenRounds ?? block.betweenSets
  if (rest !== undefined) {
    if (blockTakes(shape, 'betweenSets')) kept.betweenSets = rest
    if (blockTakes(shape, 'betweenRounds')) kept.betweenRounds = rest
  }
  if (shape === 'ownPace') {
    // Rounds were planned; in an own-pace block they would be a goal.
    delete kept.rounds
    if (kept.gate === 'rests') kept.gate = 'block'
    kept.seconds = block.seconds ?? Math.min(bounds.PlanBlock.seconds.max, Math.max(1, seconds))
  }
  if (shape === 'onTheClock') {
    kept.startEverySeconds = 60
    delete kept.betweenStations
  }
  const gives = { circuit: ['round', 'alternate'], rotation: ['alternate'], onTheClock: [], sets: [], ownPace: [] }
  if (kept.sidePass && !gives[shape].includes(kept.sidePass as never)) delete kept.sidePass
  kept.stations = kept.stations?.map((station) => suited(station, kept))
  return kept
}

type Sided = Move['sided']

export type SideHabit = 'asWritten' | 'alternate' | 'each' | 'split'

/** How a station deals with its sides just now. */
export const sidesOf = (station: PlanStation): SideHabit =>
  station.dose[0]?.side === 'alternate' ? 'alternate' : (station.sides ?? 'asWritten')

/** Whether half of its time can go to each side: one part, timed. */
export const splits = (station: PlanStation): boolean =>
  station.dose.length === 1 && (station.dose[0]?.kind === 'time' || station.dose[0]?.kind === 'hold')

/** A station that deals with its sides another way. */
export function withSides(station: PlanStation, rule: SideHabit): PlanStation {
  if (rule === 'split' && !splits(station)) return station
  const bare = withField(
    withField(withField(station, 'sides', undefined), 'chunk', undefined),
    'withNext',
    rule === 'each' ? station.withNext : undefined,
  )
  const dose = station.dose.map((part) =>
    part.kind === 'rest' ? part : withField(part, 'side', rule === 'alternate' ? 'alternate' : undefined),
  )
  return rule === 'each' || rule === 'split' ? { ...bare, dose, sides: rule } : { ...bare, dose }
}

/** A station with another target, which says nothing of sides: they stay as they were, where the target takes them. */
export function keptSides(before: PlanStation, after: PlanStation): PlanStation {
  const was = sidesOf(before)
  if (was === 'asWritten' || sidesOf(after) !== 'asWritten' || after.dose.some((part) => part.side)) return after
  const next = withSides(after, was)
  const counted = next.dose.length === 1 && next.dose[0]?.kind === 'reps'
  return was === 'each' && before.chunk !== undefined && counted ? { ...next, chunk: before.chunk } : next
}

/** A station whose main move is another: a move of both legs has no sides, and one of one leg gets the usual ones. */
export function sidesFor(
  station: PlanStation,
  { was, now, usual }: { was?: Sided; now?: Sided; usual: SideHabit },
): PlanStation {
  if (now === 'twoSided') return withSides(station, 'asWritten')
  if (was === 'twoSided' && sidesOf(station) === 'asWritten') return withSides(station, usual)
  return now === 'oneSided' && sidesOf(station) === 'alternate' ? withSides(station, 'each') : station
}

/** Whether a station can be a string with the next one: both done all of one side and then the other, in one piece. */
export function tiesTo(block: PlanBlock, station: PlanStation): boolean {
  const stations = block.stations ?? []
  const next = stations[stations.findIndex((s) => s.id === station.id) + 1]
  const whole = (s: PlanStation) => s.sides === 'each' && s.chunk === undefined && s.sharing !== 'turns'
  const shape = shapeOf(block)
  return (
    (shape === 'circuit' || shape === 'sets') &&
    (block.sidePass ?? 'station') === 'station' &&
    next !== undefined &&
    whole(station) &&
    whole(next)
  )
}

/** Seconds of a talk that says nothing else. */
export const USUAL_TALK = 120

/** A station without what its block does not take. */
export function suited(station: PlanStation, block: PlanBlock): PlanStation {
  const shape = shapeOf(block)
  const own = only(station, taken.station, shape)
  if (shape === 'onTheClock') {
    delete own.changeSeconds
    delete own.withNext
  }
  if (block.sidePass === 'round' || block.sidePass === 'alternate') {
    delete own.sides
    delete own.chunk
    delete own.startSide
    delete own.withNext
    own.dose = own.dose.map((part) => withField(part, 'side', undefined))
  }
  return own
}

/**
 * Moves a station before another one, or to the end of a block; nothing where a block would be left empty or too full.
 * `before`: a station's id; undefined: behind the last one of `block`.
 */
export function moveStation(plan: Plan, id: string, block: string, before?: string): Plan {
  const source = blockOf(plan, id)
  const target = plan.blocks.find((b) => b.id === block)
  const station = source?.stations?.find((s) => s.id === id)
  if (!source || !target || !station || target.format === 'talk' || before === id) return plan
  if (source !== target && ((source.stations?.length ?? 0) < 2 || (target.stations?.length ?? 0) >= mostStations))
    return plan
  const taken = setBlock(plan, partId(source), (b) => ({ ...b, stations: lacking(b.stations ?? [], id) }))
  return setBlock(taken, block, (b) => {
    const stations = b.stations ?? []
    const found = before === undefined ? -1 : stations.findIndex((s) => s.id === before)
    const at = found < 0 ? stations.length : found
    const own = source === target ? station : suited(station, b)
    return { ...b, stations: [...stations.slice(0, at), own, ...stations.slice(at)] }
  })
}

/** Moves a block before another one, or to the end. */
export function moveBlock(plan: Plan, id: string, before?: string): Plan {
  const block = plan.blocks.find((b) => b.id === id)
  if (!block || before === id) return plan
  const rest = lacking(plan.blocks, id)
  const found = before === undefined ? -1 : rest.findIndex((b) => b.id === before)
  const at = found < 0 ? rest.length : found
  return { ...plan, blocks: [...rest.slice(0, at), block, ...rest.slice(at)] }
}
