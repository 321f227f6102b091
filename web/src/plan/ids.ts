import type { Plan, PlanBlock, PlanOption, PlanStation } from '../api/client'
import { USUAL_TALK, withField } from './edit'

/*
 * Blocks, stations and options are known by their ids. New things get random ones, copies get new ones, what is moved
 * keeps its own.
 */

export const newId = (): string => `x${crypto.randomUUID().replaceAll('-', '').slice(0, 11)}`

const named = <T extends { id?: string }>(item: T, again: boolean): T =>
  item.id === undefined || again ? { ...item, id: newId() } : item

const nameAll = <T>(items: T[], name: (item: T) => T): T[] => {
  const next = items.map(name)
  return next.every((item, i) => item === items[i]) ? items : next
}

function option(item: PlanOption, again: boolean): PlanOption {
  return named(item, again)
}

function station(item: PlanStation, again: boolean): PlanStation {
  const own = named(item, again)
  const options = nameAll(own.options, (o) => option(o, again))
  const waiting = own.waiting && nameAll(own.waiting, (o) => option(o, again))
  return options === own.options && waiting === own.waiting ? own : { ...own, options, ...(waiting ? { waiting } : {}) }
}

function block(item: PlanBlock, again: boolean): PlanBlock {
  const own = named(item, again)
  const stations = own.stations && nameAll(own.stations, (s) => station(s, again))
  const recovery = own.recovery && nameAll(own.recovery, (o) => option(o, again))
  return stations === own.stations && recovery === own.recovery
    ? own
    : { ...own, ...(stations ? { stations } : {}), ...(recovery ? { recovery } : {}) }
}

/** The same plan with every part named; the very same object where nothing was missing. */
export function withIds(plan: Plan): Plan {
  const blocks = nameAll(plan.blocks, (b) => block(b, false))
  return blocks === plan.blocks ? plan : { ...plan, blocks }
}

/**
 * The same plan with nothing in a walk-through that is not there any more, be it a station or the option it began with; the
 * very same object where nothing was lost.
 */
export function withoutLost(plan: Plan): Plan {
  const tiers = new Map(
    plan.blocks.flatMap((b) => (b.stations ?? []).map((s) => [s.id, s.options.map((o) => o.tier)] as const)),
  )
  const blocks = nameAll(plan.blocks, (b) => {
    const show =
      b.show &&
      nameAll(
        b.show.filter((s) => tiers.has(s.station)),
        (showing) =>
          showing.first && !tiers.get(showing.station)!.includes(showing.first)
            ? withField(showing, 'first', undefined)
            : showing,
      )
    if (!show || (show.length === b.show!.length && show.every((s, i) => s === b.show![i]))) return b
    return show.length > 0 ? { ...b, show } : withField({ ...b, seconds: b.seconds ?? USUAL_TALK }, 'show', undefined)
  })
  return blocks === plan.blocks ? plan : { ...plan, blocks }
}

/** A copy with ids of its own. */
export const copyOfBlock = (item: PlanBlock): PlanBlock => block(structuredClone(item), true)
export const copyOfStation = (item: PlanStation): PlanStation => station(structuredClone(item), true)
export const copyOfOption = (item: PlanOption): PlanOption => option(structuredClone(item), true)

/** Options without their ids, to see whether two are done alike. */
export function withoutId(item: PlanOption): Omit<PlanOption, 'id'> {
  const rest = { ...item }
  delete rest.id
  return rest
}
