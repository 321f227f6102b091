import { createContext, useCallback, useContext, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import type { Plan } from '../../api/client'
import { useClassEditor } from '../editor/context'
import type { Copied } from './clipboard'
import { copyOut, keptCopy, readCopied } from './clipboard'
import { moved, moveStation, setBlock, suited } from './edit'

/** A block, or a station of one. */
export interface Spot {
  block: number
  station?: number
}

/** What can be done on the bench. It stays the same object, so that no card is drawn anew for it. */
export interface Bench {
  toggle: (spot: Spot) => void
  clear: () => void
  copy: () => void
  duplicate: () => void
  remove: () => void
  paste: (into?: number) => void
  /** What is being dragged. */
  dragged: () => Spot | null
  drag: (spot: Spot | null) => void
  /** Drops what is dragged before this spot; a station may be dropped behind the last one. */
  drop: (before: Spot) => void
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

/** Choosing, copying, pasting and moving of blocks and stations. */
export function useBench(): { bench: Bench; selected: Spot[]; copied: Copied | null } {
  const { plan, change } = useClassEditor()
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
    (label: string, next: (plan: Plan) => Plan) => {
      setSelected([])
      change(label, (draft) => ({ ...draft, plan: next(draft.plan) }))
    },
    [change],
  )

  const clear = useCallback(() => setSelected([]), [])
  const toggle = useCallback(
    (spot: Spot) =>
      setSelected((before) => {
        if (before.some((s) => same(s, spot))) return before.filter((s) => !same(s, spot))
        // Blocks and stations are not chosen together: what is done with them differs.
        const alike = before.filter((s) => (s.station === undefined) === (spot.station === undefined))
        return [...alike, spot]
      }),
    [],
  )

  const inOrder = useMemo(
    () => [...selected].sort((a, b) => a.block - b.block || (a.station ?? 0) - (b.station ?? 0)),
    [selected],
  )
  const ofBlocks = inOrder[0]?.station === undefined
  const items = (): Copied | null => {
    if (inOrder.length === 0) return null
    return ofBlocks
      ? { kind: 'blocks', items: inOrder.map((s) => plan.blocks[s.block]!) }
      : { kind: 'stations', items: inOrder.map((s) => plan.blocks[s.block]!.stations![s.station!]!) }
  }

  const insert = (what: Copied, into?: number) => {
    const fresh = structuredClone(what)
    if (fresh.kind === 'blocks') {
      edit('paste blocks', (p) => ({ ...p, blocks: [...p.blocks, ...fresh.items].slice(0, 30) }))
      return
    }
    const last = plan.blocks.map((b) => b.format !== 'talk').lastIndexOf(true)
    const block = into ?? last
    if (block < 0) return
    edit('paste stations', (p) =>
      setBlock(p, block, (b) => ({
        ...b,
        stations: [...(b.stations ?? []), ...fresh.items.map((station) => suited(station, b))].slice(0, 16),
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
      if (typing(event.target) || selected.length === 0) return
      event.preventDefault()
      copy()
    }
    const onCut = (event: ClipboardEvent) => {
      if (typing(event.target) || selected.length === 0) return
      event.preventDefault()
      copy()
      remove()
    }
    const onPaste = (event: ClipboardEvent) => {
      if (typing(event.target)) return
      const what = readCopied(event.clipboardData?.getData('text/plain') ?? null)
      if (!what) return
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
    const gone = inOrder
    edit('remove', (p) =>
      ofBlocks
        ? { ...p, blocks: p.blocks.filter((_, b) => !gone.some((s) => s.block === b)) }
        : {
            ...p,
            blocks: p.blocks.map((block, b) => {
              const left = block.stations?.filter((_, s) => !gone.some((g) => g.block === b && g.station === s))
              // A block without stations is no block: its last one stays.
              return left && left.length > 0 ? { ...block, stations: left } : block
            }),
          },
    )
  }

  function duplicate() {
    const what = items()
    if (what) insert(what, ofBlocks ? undefined : inOrder.at(-1)!.block)
  }

  function drop(before: Spot) {
    const from = held.current
    held.current = null
    if (!from) return
    if (from.station === undefined) {
      const to = before.block > from.block ? before.block - 1 : before.block
      if (before.station === undefined) edit('move block', (p) => ({ ...p, blocks: moved(p.blocks, from.block, to) }))
    } else {
      const to = { block: before.block, station: before.station ?? 0 }
      edit('move station', (p) => moveStation(p, { block: from.block, station: from.station! }, to))
    }
  }

  function nudge(spot: Spot, by: -1 | 1) {
    const { block, station } = spot
    edit(station === undefined ? 'move block' : 'move station', (p) =>
      station === undefined
        ? { ...p, blocks: moved(p.blocks, block, block + by) }
        : setBlock(p, block, (b) => ({ ...b, stations: moved(b.stations ?? [], station, station + by) })),
    )
    const to = station === undefined ? `block-${block + by}` : `station-${block}-${station + by}`
    requestAnimationFrame(() => document.getElementById(to)?.focus({ preventScroll: false }))
  }

  const now: Bench = {
    toggle,
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
    toggle: (spot) => live.current.toggle(spot),
    clear: () => live.current.clear(),
    copy: () => live.current.copy(),
    duplicate: () => live.current.duplicate(),
    remove: () => live.current.remove(),
    paste: (into) => live.current.paste(into),
    dragged: () => live.current.dragged(),
    drag: (spot) => live.current.drag(spot),
    drop: (before) => live.current.drop(before),
    nudge: (spot, by) => live.current.nudge(spot, by),
  }))
  return { bench, selected: inOrder, copied }
}
