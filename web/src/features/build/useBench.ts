import { createContext, useContext, useLayoutEffect, useMemo, useRef, useState } from 'react'
import type { Plan, PlanBlock, PlanStation } from '../../api/client'
import type { Copied, Spot } from '../../plan/chosen'
import { choosing, dropped, eachChosen, itemsOf, nudgedAt, pasted, removed, stillThere } from '../../plan/chosen'
import { useClassEditor } from '../editor/context'
import { useClipboardKeys, useCopied } from './clipboard'

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
  /** Looks at a text as a list of moves to add; an empty one: no more. */
  takeList: (text: string) => void
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

/** A text of at most so many characters is looked at as a list of moves. */
const LONGEST_LIST = 4000

/** What can be done, as one object that stays the same while each act of it is always that of the latest drawing. */
class Steady<T extends object> {
  readonly acts: T

  constructor(private latest: T) {
    const act = (key: string) =>
      [key, (...all: unknown[]) => (this.latest[key as keyof T] as (...args: unknown[]) => unknown)(...all)] as const
    this.acts = Object.fromEntries(Object.keys(latest).map(act)) as T
  }

  follow(latest: T) {
    this.latest = latest
  }
}

function useSteady<T extends object>(now: T): T {
  const [steady] = useState(() => new Steady(now))
  useLayoutEffect(() => steady.follow(now))
  return steady.acts
}

/** Choosing, copying, pasting and moving of blocks and stations. */
export function useBench(): { bench: Bench; selected: Spot[]; copied: Copied | null; list: string } {
  const { plan, change, core } = useClassEditor()
  const [selected, setSelected] = useState<Spot[]>([])
  const last = useRef<Spot | null>(null)
  const held = useRef<Spot | null>(null)
  const [copied, keep] = useCopied()
  const [list, setList] = useState('')
  const chosen = useMemo(() => stillThere(plan, selected), [plan, selected])

  const edit = (label: string, then: (plan: Plan) => Plan) => {
    setSelected([])
    change(label, (draft) => ({ ...draft, plan: then(draft.plan) }))
  }
  const insert = (what: Copied, into?: string) => edit(`paste ${what.kind}`, (p) => pasted(p, what, into))

  const bench = useSteady<Bench>({
    toggle: (spot, range = false) => {
      const anchor = range ? last.current : null
      last.current = spot
      setSelected((before) => choosing(core.store.getState().now.plan, before, spot, anchor))
    },
    each: (label, then) => change(label, (draft) => ({ ...draft, plan: eachChosen(draft.plan, chosen, then) })),
    clear: () => setSelected([]),
    copy: () => {
      const what = itemsOf(plan, chosen)
      if (!what) return
      keep(what)
      void navigator.clipboard?.writeText(JSON.stringify(what)).catch(() => undefined)
    },
    duplicate: () => {
      const what = itemsOf(plan, chosen)
      if (what) insert(what, what.kind === 'blocks' ? undefined : chosen.at(-1)!.block)
    },
    remove: () => edit('remove', (p) => removed(p, chosen)),
    paste: (into) => copied && insert(copied, into),
    dragged: () => held.current,
    drag: (spot) => {
      held.current = spot
    },
    drop: (at, after) => {
      const from = held.current
      held.current = null
      if (from) edit(from.station === undefined ? 'move block' : 'move station', (p) => dropped(p, from, at, after))
    },
    nudge: (spot, by) => {
      edit(spot.station === undefined ? 'move block' : 'move station', (p) => nudgedAt(p, spot, by))
      const to = spot.station === undefined ? `block-${spot.block}` : `station-${spot.station}`
      requestAnimationFrame(() => document.getElementById(to)?.focus({ preventScroll: false }))
    },
    takeList: (text) => setList(text.slice(0, LONGEST_LIST)),
  })

  useClipboardKeys({
    some: chosen.length > 0,
    copy: bench.copy,
    cut: () => {
      bench.copy()
      bench.remove()
    },
    paste: (what) => insert(what),
    pasteText: bench.takeList,
  })
  return { bench, selected: chosen, copied, list }
}
