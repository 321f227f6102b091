import { createContext, useContext, useEffect, useMemo } from 'react'
import { useStore } from 'zustand'
import type { Booking, Evaluation, Fault, Plan, Session } from '../../api/client'
import type { Checks } from './useChecks'
import { useChecks } from './useChecks'
import type { ClassEditor, Preview } from './ClassEditor'

export interface Draft {
  plan: Plan
  booking: Booking
}

export interface Editor extends Draft {
  id: string
  core: ClassEditor
  /** The occasion whose screens these are, and all others of the class. */
  session: Session | null
  sessions: Session[]
  evaluation: Evaluation | null
  /** What the checks say of it, a moment after it was changed last. */
  checks: Checks
  faults: Fault[]
  canUndo: boolean
  canRedo: boolean
  /** Changes the class; changes under one label in quick succession undo as one. */
  change: (label: string, next: (draft: Draft) => Draft, evaluation?: Evaluation) => void
  undo: () => void
  redo: () => void
  flush: () => Promise<boolean>
  preview: Preview | null
  setPreview: (preview: Preview | null) => void
}

/** A class without a session is booked by nobody yet. */
const unbooked: Booking = { zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'Etc/UTC', headCount: 12 }

/** The editor of a class as the screens of one of its sessions see it. */
export function useEditor(core: ClassEditor, session: Session | null, sessions: Session[]): Editor {
  const state = useStore(core.store)
  const known = useStore(core.looker.store)
  const id = session?.id
  const change = useMemo<Editor['change']>(
    () => (label, next, evaluation) =>
      core.change(
        label,
        (now) => {
          const before = { plan: now.plan, booking: (id && now.bookings[id]) || unbooked }
          const after = next(before)
          return after.plan === before.plan && after.booking === before.booking
            ? now
            : { plan: after.plan, bookings: id ? { ...now.bookings, [id]: after.booking } : now.bookings }
        },
        evaluation,
      ),
    [core, id],
  )
  const booking = (id && state.now.bookings[id]) || unbooked
  const checks = useChecks(core.looker, state.now.plan, session ? booking : null)
  useEffect(() => core.looker.about(id ? { session: id, booking } : null), [core, id, booking])
  return {
    id: core.id,
    core,
    checks,
    session,
    sessions,
    plan: state.now.plan,
    booking,
    evaluation: known.evaluation,
    faults: known.faults,
    canUndo: state.past.length > 0,
    canRedo: state.future.length > 0,
    change,
    undo: core.undo,
    redo: core.redo,
    flush: core.flush,
    preview: state.preview,
    setPreview: core.setPreview,
  }
}

export const EditorContext = createContext<Editor | null>(null)

/** The editor of the class whose screens these are. */
export function useClassEditor(): Editor {
  const editor = useContext(EditorContext)
  if (!editor) throw new Error('No class is open.')
  return editor
}

/** What a block adds up to as the screen in question has it; undefined before the first evaluation. */
export function useOutline(block: string): Evaluation['outline'][number] | undefined {
  return useClassEditor().evaluation?.outline.find((o) => o.id === block)
}

/** When a block begins, in seconds; null before the first evaluation. It alone is drawn anew when blocks before it change. */
export function useBlockStart(id: string): number | null {
  const { core } = useClassEditor()
  return useStore(core.looker.store, (s) => s.evaluation?.outline.find((o) => o.id === id)?.start ?? null)
}
