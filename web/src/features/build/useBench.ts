import { createContext, useCallback, useContext, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import type { Plan, PlanBlock, PlanStation } from '../../api/client'
import { moveBlock, moveStation, nudged, partId, setBlock, suited } from '../../plan/edit'
import { copyOfBlock, copyOfStation } from '../../plan/ids'
import { useClassEditor } from '../editor/context'
import type { Copied } from './clipboard'
import { copyOut, keptCopy, readCopied } from './clipboard'

/** A block, or a station of one, by their ids. */
export interface Spot {
  block: string
  station?: string
}

/** What can be done on the bench. It stays the same object, so that no card is drawn anew for it. */
export interface Bench {
  /** Chooses a thing or lets go of it; with `range`, all from the one chosen last to it. */
  toggle: (spot: Spot, range?: boolean) => void
  clear: () => void
  copy: () => void
  duplicate: () => void
  remove: () => void
  paste: (into?: string) => void
  /** What is being dragged. */
  dragged: () => Spot | null
  drag: (spot: Spot | null) => void
  /** Drops what is dragged before or behind this spot. */
  drop: (at: Spot, after: boolean) => void
  /** Changes every station that is chosen, or that stands in a block that is chosen; they stay chosen. */
  each: (label: string, then: (station: PlanStation, block: PlanBlock) => PlanStation) => void
  /** Moves a block or a station up or down by one. */
  nudge: (spot: Spot, by: -1 | 1) => void
}

export const BenchContext = createContext<Bench | null>(null)

/** What is chosen, in the order of the class. */
export const SelectedContext = createContext<Spot[]>([])

/** What was copied here or in another class. */
export const CopiedContext = createContext<Copied | null>(null)

export function useBenchContext(): Bench {
  const bench = useContext(BenchContext)
  if (!bench) throw new Error('There is no bench here.')
  return bench
}

export const same = (a: Spot, b: Spot) => a.block === b.block && a.station === b.station

/** What of the chosen is still there, in the order of the class. */
function inOrder(plan: Plan, selected: Spot[]): Spot[] {
  return plan.blocks.flatMap((block) => {
    const id = partId(block)
    const own = selected.filter((spot) => spot.station === undefined && spot.block === id)
    const stations = (block.stations ?? [])
      .filter((station) => selected.some((spot) => spot.station === station.id))
      .map((station) => ({ block: id, station: partId(station) }))
    return [...own, ...stations]
  })
}

/** All blocks or all stations, in the order of the class. */
const everything = (plan: Plan, stations: boolean): Spot[] =>
  plan.blocks.flatMap((block) =>
    stations
      ? (block.stations ?? []).map((station) => ({ block: partId(block), station: partId(station) }))
      : [{ block: partId(block) }],
  )

/** What stands behind a thing among its neighbours; undefined: it is the last. */
const next = (items: { id?: string }[], id: string): string | undefined =>
  items[items.findIndex((item) => item.id === id) + 1]?.id

/** Choosing, copying, pasting and moving of blocks and stations. */
export function useBench(): { bench: Bench; selected: Spot[]; copied: Copied | null } {
  const { plan, change, core } = useClassEditor()
  const last = useRef<Spot | null>(null)
  const [selected, setSelected] = useState<Spot[]>([])
  const held = useRef<Spot | null>(null)
  const [copied, setCopied] = useState<Copied | null>(keptCopy)

  useEffect(() => {
    const refresh = () => setCopied(keptCopy())
    window.addEventListener('halterion-copied', refresh)
    window.addEventListener('storage', refresh)
    return () => {
      window.removeEventListener('halterion-copied', refresh)
      window.removeEventListener('storage', refresh)
    }
  }, [])

  const edit = useCallback(
    (label: string, then: (plan: Plan) => Plan) => {
      setSelected([])
      change(label, (draft) => ({ ...draft, plan: then(draft.plan) }))
    },
    [change],
  )

  const clear = useCallback(() => setSelected([]), [])
  const toggle = useCallback(
    (spot: Spot, range = false) => {
      const anchor = last.current
      last.current = spot
      setSelected((before) => {
        if (range && anchor) {
          const all = everything(core.store.getState().now.plan, spot.station !== undefined)
          const [from, to] = [all.findIndex((s) => same(s, anchor)), all.findIndex((s) => same(s, spot))]
          if (from >= 0 && to >= 0) return all.slice(Math.min(from, to), Math.max(from, to) + 1)
        }
        if (before.some((s) => same(s, spot))) return before.filter((s) => !same(s, spot))
        // Blocks and stations are not chosen together: what is done with them differs.
        const alike = before.filter((s) => (s.station === undefined) === (spot.station === undefined))
        return [...alike, spot]
      })
    },
    [core],
  )

  const chosen = useMemo(() => inOrder(plan, selected), [plan, selected])
  const ofBlocks = chosen[0]?.station === undefined
  const items = (): Copied | null => {
    if (chosen.length === 0) return null
    return ofBlocks
      ? { kind: 'blocks', items: plan.blocks.filter((b) => chosen.some((s) => s.block === b.id)) }
      : {
          kind: 'stations',
          items: plan.blocks.flatMap((b) => (b.stations ?? []).filter((x) => chosen.some((s) => s.station === x.id))),
        }
  }

  const insert = (what: Copied, into?: string) => {
    if (what.kind === 'blocks') {
      edit('paste blocks', (p) => ({ ...p, blocks: [...p.blocks, ...what.items.map(copyOfBlock)].slice(0, 30) }))
      return
    }
    const block = into ?? plan.blocks.filter((b) => b.format !== 'talk').at(-1)?.id
    if (block === undefined) return
    edit('paste stations', (p) =>
      setBlock(p, block, (b) => ({
        ...b,
        stations: [...(b.stations ?? []), ...what.items.map((station) => suited(copyOfStation(station), b))].slice(
          0,
          16,
        ),
      })),
    )
  }

  const copy = () => {
    const what = items()
    if (what) copyOut(what)
  }

  useEffect(() => {
    const typing = (target: EventTarget | null) =>
      target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable]') !== null
    const onCopy = (event: ClipboardEvent) => {
      if (typing(event.target) || chosen.length === 0) return
      event.preventDefault()
      copy()
    }
    const onCut = (event: ClipboardEvent) => {
      if (typing(event.target) || chosen.length === 0) return
      event.preventDefault()
      copy()
      remove()
    }
    const onPaste = (event: ClipboardEvent) => {
      if (typing(event.target)) return
      const text = event.clipboardData?.getData('text/plain') ?? ''
      const what = readCopied(text)
      if (!what) {
        if (text.trim() !== '') window.dispatchEvent(new CustomEvent('halterion-list', { detail: text }))
        return
      }
      event.preventDefault()
      insert(what)
    }
    document.addEventListener('copy', onCopy)
    document.addEventListener('cut', onCut)
    document.addEventListener('paste', onPaste)
    return () => {
      document.removeEventListener('copy', onCopy)
      document.removeEventListener('cut', onCut)
      document.removeEventListener('paste', onPaste)
    }
  })

  function remove() {
    const gone = chosen
    edit('remove', (p) =>
      ofBlocks
        ? { ...p, blocks: p.blocks.filter((b) => !gone.some((s) => s.block === b.id)) }
        : {
            ...p,
            blocks: p.blocks.map((block) => {
              const left = block.stations?.filter((s) => !gone.some((g) => g.station === s.id))
              // A block without stations is no block: its last one stays.
              return left && left.length > 0 ? { ...block, stations: left } : block
            }),
          },
    )
  }

  function duplicate() {
    const what = items()
    if (what) insert(what, ofBlocks ? undefined : chosen.at(-1)!.block)
  }

  function drop(at: Spot, after: boolean) {
    const from = held.current
    held.current = null
    if (!from) return
    if (from.station === undefined) {
      const before = after ? next(plan.blocks, at.block) : at.block
      edit('move block', (p) => moveBlock(p, from.block, before))
      return
    }
    const station = from.station
    const stations = plan.blocks.find((b) => b.id === at.block)?.stations ?? []
    const before = at.station === undefined ? stations[0]?.id : after ? next(stations, at.station) : at.station
    edit('move station', (p) => moveStation(p, station, at.block, before))
  }

  function nudge({ block, station }: Spot, by: -1 | 1) {
    edit(station === undefined ? 'move block' : 'move station', (p) =>
      station === undefined
        ? { ...p, blocks: nudged(p.blocks, block, by) }
        : setBlock(p, block, (b) => ({ ...b, stations: nudged(b.stations ?? [], station, by) })),
    )
    const to = station === undefined ? `block-${block}` : `station-${station}`
    requestAnimationFrame(() => document.getElementById(to)?.focus({ preventScroll: false }))
  }

  function each(label: string, then: (station: PlanStation, block: PlanBlock) => PlanStation) {
    const on = chosen
    change(label, (draft) => ({
      ...draft,
      plan: {
        ...draft.plan,
        blocks: draft.plan.blocks.map((block) => {
          const all = on.some((s) => s.block === block.id && s.station === undefined)
          if (!block.stations) return block
          const stations = block.stations.map((station) =>
            all || on.some((s) => s.station === station.id) ? then(station, block) : station,
          )
          return { ...block, stations }
        }),
      },
    }))
  }

  const now: Bench = {
    toggle,
    each,
    clear,
    copy,
    duplicate,
    remove,
    paste: (into) => copied && insert(copied, into),
    dragged: () => held.current,
    drag: (spot) => {
      held.current = spot
    },
    drop,
    nudge,
  }
  const live = useRef(now)
  useLayoutEffect(() => {
    live.current = now
  })
  const [bench] = useState<Bench>(() => ({
    toggle: (spot, range) => live.current.toggle(spot, range),
    each: (label, then) => live.current.each(label, then),
    clear: () => live.current.clear(),
    copy: () => live.current.copy(),
    duplicate: () => live.current.duplicate(),
    remove: () => live.current.remove(),
    paste: (into) => live.current.paste(into),
    dragged: () => live.current.dragged(),
    drag: (spot) => live.current.drag(spot),
    drop: (at, after) => live.current.drop(at, after),
    nudge: (spot, by) => live.current.nudge(spot, by),
  }))
  return { bench, selected: chosen, copied }
}
