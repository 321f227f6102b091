import type { Plan, PlanBlock, PlanStation } from '../api/client'
import { bounds } from '../api/language'
import { moveBlock, moveStation, nudged, partId, setBlock, suited } from './edit'
import { copyOfBlock, copyOfStation } from './ids'

/** A block, or a station of one, by their ids. */
export interface Spot {
  block: string
  station?: string
}

/** What was copied, within a class or for another one. */
export type Copied = { kind: 'blocks'; items: PlanBlock[] } | { kind: 'stations'; items: PlanStation[] }

export const same = (a: Spot, b: Spot) => a.block === b.block && a.station === b.station

const isBlock = (spot: Spot | undefined) => spot?.station === undefined

/** All blocks or all stations, in the order of the class. */
const everything = (plan: Plan, stations: boolean): Spot[] =>
  plan.blocks.flatMap((block) =>
    stations
      ? (block.stations ?? []).map((station) => ({ block: partId(block), station: partId(station) }))
      : [{ block: partId(block) }],
  )

/** What of the chosen is still there, in the order of the class. */
export const stillThere = (plan: Plan, chosen: Spot[]): Spot[] =>
  plan.blocks.flatMap((block) => [
    ...chosen.filter((spot) => isBlock(spot) && spot.block === block.id),
    ...(block.stations ?? [])
      .filter((station) => chosen.some((spot) => spot.station === station.id))
      .map((station) => ({ block: partId(block), station: partId(station) })),
  ])

/** What is chosen once one thing more is taken or let go of; with an anchor, all from it to that thing. */
export function choosing(plan: Plan, before: Spot[], spot: Spot, anchor: Spot | null): Spot[] {
  if (anchor) {
    const all = everything(plan, !isBlock(spot))
    const [from, to] = [all.findIndex((s) => same(s, anchor)), all.findIndex((s) => same(s, spot))]
    if (from >= 0 && to >= 0) return all.slice(Math.min(from, to), Math.max(from, to) + 1)
  }
  if (before.some((s) => same(s, spot))) return before.filter((s) => !same(s, spot))
  // Blocks and stations are not chosen together: what is done with them differs.
  return [...before.filter((s) => isBlock(s) === isBlock(spot)), spot]
}

/** The things that are chosen; null: none. */
export function itemsOf(plan: Plan, chosen: Spot[]): Copied | null {
  if (chosen.length === 0) return null
  return isBlock(chosen[0])
    ? { kind: 'blocks', items: plan.blocks.filter((b) => chosen.some((s) => s.block === b.id)) }
    : {
        kind: 'stations',
        items: plan.blocks.flatMap((b) => (b.stations ?? []).filter((x) => chosen.some((s) => s.station === x.id))),
      }
}

/** Copies behind the last block, or behind the last station of a block; no more than the class or the block takes. */
export function pasted(plan: Plan, what: Copied, into?: string): Plan {
  if (what.kind === 'blocks') {
    return { ...plan, blocks: [...plan.blocks, ...what.items.map(copyOfBlock)].slice(0, bounds.ClassPlan.blocks.max) }
  }
  const block = into ?? plan.blocks.filter((b) => b.format !== 'talk').at(-1)?.id
  if (block === undefined) return plan
  return setBlock(plan, block, (b) => ({
    ...b,
    stations: [...(b.stations ?? []), ...what.items.map((station) => suited(copyOfStation(station), b))].slice(
      0,
      bounds.PlanBlock.stations.max,
    ),
  }))
}

export function removed(plan: Plan, chosen: Spot[]): Plan {
  if (isBlock(chosen[0])) {
    return { ...plan, blocks: plan.blocks.filter((b) => !chosen.some((s) => s.block === b.id)) }
  }
  return {
    ...plan,
    blocks: plan.blocks.map((block) => {
      const left = block.stations?.filter((s) => !chosen.some((g) => g.station === s.id))
      // A block without stations is no block: its last one stays.
      return left && left.length > 0 ? { ...block, stations: left } : block
    }),
  }
}

/** Changes every station that is chosen, or that stands in a block that is chosen. */
export const eachChosen = (
  plan: Plan,
  chosen: Spot[],
  then: (station: PlanStation, block: PlanBlock) => PlanStation,
): Plan => ({
  ...plan,
  blocks: plan.blocks.map((block) => {
    if (!block.stations) return block
    const all = chosen.some((s) => s.block === block.id && isBlock(s))
    return {
      ...block,
      stations: block.stations.map((station) =>
        all || chosen.some((s) => s.station === station.id) ? then(station, block) : station,
      ),
    }
  }),
})

/** What stands behind a thing among its neighbours; undefined: it is the last. */
const next = (items: { id?: string }[], id: string): string | undefined =>
  items[items.findIndex((item) => item.id === id) + 1]?.id

/** Puts a block or a station before or behind another; a station dropped on a block is its first. */
export function dropped(plan: Plan, from: Spot, at: Spot, after: boolean): Plan {
  if (from.station === undefined) return moveBlock(plan, from.block, after ? next(plan.blocks, at.block) : at.block)
  const stations = plan.blocks.find((b) => b.id === at.block)?.stations ?? []
  const before = at.station === undefined ? stations[0]?.id : after ? next(stations, at.station) : at.station
  return moveStation(plan, from.station, at.block, before)
}

/** Moves a block among the blocks, or a station within its block, up or down by one. */
export const nudgedAt = (plan: Plan, { block, station }: Spot, by: -1 | 1): Plan =>
  station === undefined
    ? { ...plan, blocks: nudged(plan.blocks, block, by) }
    : setBlock(plan, block, (b) => ({ ...b, stations: nudged(b.stations ?? [], station, by) }))
