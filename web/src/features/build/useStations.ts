import { useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import type { PlanBlock, PlanStation } from '../../api/client'
import { stationStarter, useMoves } from '../../api/queries'
import { blockOf, mainOption, partId, setBlock, setStation, sidesFor, sidesOf } from '../../plan/edit'
import { copyOfBlock, copyOfStation } from '../../plan/ids'
import { useClassEditor } from '../editor/context'

/** A class takes no more. */
export const MOST_BLOCKS = 30

/** A block takes no more. */
export const MOST_STATIONS = 16

let lastAdded: Promise<unknown> = Promise.resolve()

/** Stations made by the server, dosed like those that stand there. */
export function useStations() {
  const { core, change } = useClassEditor()
  const queries = useQueryClient()
  const library = useMoves().data
  const wanted = useRef('')

  /** How the stations of a block are dosed, for a new one among them. */
  function like(
    block: PlanBlock,
    evaluation = core.looker.store.getState().evaluation,
  ): { window?: number; roundGivesSide: boolean; like?: string } {
    const outline = evaluation?.outline.find((o) => o.id === block.id)
    const window = block.windowSeconds
    return {
      window: typeof window === 'number' ? window : undefined,
      roundGivesSide: block.sidePass === 'round' || block.sidePass === 'alternate',
      like: outline?.stations.at(-1)?.dose,
    }
  }

  /** Adds stations to a block, behind one of its own or last; gives the id of the first. */
  function put(block: string, stations: PlanStation[], behind?: string): string {
    const fresh = stations.map(copyOfStation)
    change('add station', (draft) => ({
      ...draft,
      plan: setBlock(draft.plan, block, (b) => {
        const old = b.stations ?? []
        const found = old.findIndex((s) => s.id === behind)
        const at = found < 0 ? old.length : found + 1
        return { ...b, stations: [...old.slice(0, at), ...fresh, ...old.slice(at)].slice(0, MOST_STATIONS) }
      }),
    }))
    return partId(fresh[0]!)
  }

  /** How a list of stations goes into a block and into new ones like it: how many into each, and how many do not fit. */
  function spread(block: PlanBlock, stations: PlanStation[]): { parts: number[]; left: number } {
    const { plan } = core.store.getState().now
    const blocks = MOST_BLOCKS - plan.blocks.length
    let left = stations.length
    const parts: number[] = []
    const room = MOST_STATIONS - (block.stations ?? []).length
    for (let i = 0; left > 0 && i <= blocks; i++) {
      const taken = Math.min(left, i === 0 ? room : MOST_STATIONS)
      parts.push(taken)
      left -= taken
    }
    return { parts, left }
  }

  /** Adds them all, as one step; gives the id of the first, if there is any. */
  function putAll(block: string, stations: PlanStation[]): string | undefined {
    const fresh = stations.map(copyOfStation)
    change('add stations', (draft) => {
      const at = draft.plan.blocks.findIndex((b) => b.id === block)
      const old = draft.plan.blocks[at]
      if (!old) return draft
      const { parts } = spread(old, stations)
      let next = 0
      const take = (count: number) => fresh.slice(next, (next += count))
      const filled = { ...old, stations: [...(old.stations ?? []), ...take(parts[0] ?? 0)] }
      const more = parts.slice(1).map((count, i) => {
        const like = { ...copyOfBlock({ ...old, stations: take(count) }), name: `${old.name.slice(0, 110)} ${i + 2}` }
        delete like.show
        return like
      })
      return {
        ...draft,
        plan: {
          ...draft.plan,
          blocks: [...draft.plan.blocks.slice(0, at), filled, ...more, ...draft.plan.blocks.slice(at + 1)],
        },
      }
    })
    return fresh[0] && partId(fresh[0])
  }

  async function made(block: PlanBlock, move: string, behind?: string): Promise<string> {
    const as = like(block, await core.looker.settled())
    const { station } = await queries.fetchQuery(stationStarter(move, as.window, as.roundGivesSide, as.like))
    return put(partId(block), [station], behind)
  }

  /** Stations that are asked for quickly come in the order in which they were asked for. */
  function add(block: PlanBlock, move: string, behind?: string): Promise<string> {
    const next = lastAdded.then(() => made(block, move, behind))
    lastAdded = next.catch(() => undefined)
    return next
  }

  /** Another main move: its own usual options come with it, the dose stays. */
  async function swap(id: string, to: string) {
    wanted.current = to
    const starter = await queries.fetchQuery(stationStarter(to))
    // Searching the list with the keyboard passes over others on the way.
    if (wanted.current !== to) return
    const sided = (move: string | undefined) => library?.find((m) => m.id === move)?.sided
    const usual = sidesOf(starter.station)
    change('swap move', (draft) => ({
      ...draft,
      plan: setStation(draft.plan, id, (old) => {
        // The main option stays the one it is, done with another move.
        const main = mainOption(old)
        const options = structuredClone(starter.station.options).map((option) =>
          option.tier === 'main' && main?.id ? { ...option, id: main.id } : option,
        )
        const next = { ...old, options }
        delete next.name
        const given = draft.plan.blocks.find((b) => b.stations?.some((s) => s.id === id))?.sidePass
        return (given ?? 'station') === 'station'
          ? sidesFor(next, { was: sided(main?.move), now: sided(to), usual })
          : next
      }),
    }))
  }

  const current = (id: string) => blockOf(core.store.getState().now.plan, id)

  return { add, put, putAll, spread, swap, like, current }
}
