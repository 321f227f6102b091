import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { Booking, ClassView, Evaluation, Fault, Plan } from '../../api/client'
import { answer, api, Refused } from '../../api/client'
import type { KeptDraft } from './drafts'
import { forgetDraft, keepDraft } from './drafts'

export interface Draft {
  plan: Plan
  booking: Booking
}

export type SaveState = 'saved' | 'saving' | 'unsaved' | 'offline' | 'conflict'

export interface Editor extends Draft {
  id: string
  evaluation: Evaluation | null
  faults: Fault[]
  save: SaveState
  /** What another tab made of the class meanwhile. */
  theirs: ClassView | null
  canUndo: boolean
  canRedo: boolean
  /** Changes the class; changes under one label in quick succession undo as one. */
  change: (label: string, next: (draft: Draft) => Draft) => void
  undo: () => void
  redo: () => void
  /** Ends a conflict: mine over theirs, or theirs over mine. */
  keepMine: () => void
  takeTheirs: () => void
  flush: () => Promise<boolean>
  /** A class that is looked at on the tape before it is taken. */
  preview: Preview | null
  setPreview: (preview: Preview | null) => void
}

export interface Preview {
  plan: Plan
  evaluation: Evaluation
}

const SAVE_AFTER = 600
const EVALUATE_AFTER = 10
const JOIN_WITHIN = 900

interface History {
  past: Draft[]
  now: Draft
  future: Draft[]
}

/** Whether another writer already saved just this, such as this very tab before it was closed. */
const sameDraft = (a: Draft, b: Draft) => JSON.stringify([a.plan, a.booking]) === JSON.stringify([b.plan, b.booking])

/** Holds one class while it is edited: undo, autosave with a version check, and its evaluation. */
export function useEditor(loaded: ClassView, restored: KeptDraft | null): Editor {
  const queries = useQueryClient()
  const id = loaded.id
  const server: Draft = { plan: loaded.plan, booking: loaded.booking }
  const [history, setHistory] = useState<History>(() =>
    restored
      ? { past: [server], now: { plan: restored.plan, booking: restored.booking }, future: [] }
      : { past: [], now: server, future: [] },
  )
  const [result, setResult] = useState({ evaluation: loaded.evaluation ?? null, faults: loaded.faults })
  const [save, setSave] = useState<SaveState>(restored ? 'unsaved' : 'saved')
  const [preview, setPreview] = useState<Preview | null>(null)
  const [theirs, setTheirs] = useState<ClassView | null>(null)
  // A draft left behind is saved against the version it was made from, so that it cannot overwrite a later one.
  const version = useRef(restored?.version ?? loaded.version)
  const saved = useRef<Draft>(server)
  const latest = useRef<Draft>(history.now)
  const lastChange = useRef({ label: '', at: 0 })
  const running = useRef<Promise<boolean> | null>(null)
  const conflicted = useRef(false)

  const put = useCallback(async (): Promise<boolean> => {
    while (latest.current !== saved.current) {
      if (conflicted.current) return false
      const draft = latest.current
      setSave('saving')
      try {
        const view = (await answer(
          api.PUT('/api/classes/{id}', {
            params: { path: { id } },
            headers: { 'If-Match': `"${version.current}"` },
            body: draft,
          }),
        )) as ClassView
        version.current = view.version
        saved.current = draft
      } catch (error) {
        const current = error instanceof Refused && error.status === 412 ? error.problem.current : undefined
        if (current && sameDraft(current, draft)) {
          version.current = current.version
          saved.current = draft
          continue
        }
        if (current) {
          conflicted.current = true
          setTheirs(current)
          setSave('conflict')
        } else {
          setSave('offline')
        }
        return false
      }
    }
    forgetDraft(id)
    setSave('saved')
    void queries.invalidateQueries({ queryKey: ['classes'] })
    return true
  }, [id, queries])

  const flush = useCallback((): Promise<boolean> => {
    running.current ??= put().finally(() => {
      running.current = null
    })
    return running.current
  }, [put])

  // Autosave, and a copy in the browser at once, so that nothing typed is lost if either end stops.
  useEffect(() => {
    latest.current = history.now
    if (history.now === saved.current) {
      void flush()
      return
    }
    keepDraft(id, { ...history.now, version: version.current })
    if (conflicted.current) return
    const timer = setTimeout(() => {
      void flush()
    }, SAVE_AFTER)
    return () => clearTimeout(timer)
  }, [history.now, id, flush])

  useEffect(() => {
    if (save !== 'offline') return
    const timer = setInterval(() => void flush(), 3000)
    return () => clearInterval(timer)
  }, [save, flush])

  useEffect(() => () => void flush(), [flush])

  useEffect(() => {
    const stop = new AbortController()
    const timer = setTimeout(() => {
      answer(api.POST('/api/plans/evaluate', { body: history.now.plan as never, signal: stop.signal })).then(
        (evaluation) => setResult({ evaluation, faults: [] }),
        (error: unknown) => {
          if (error instanceof Refused && error.status === 422) {
            setResult((before) => ({ evaluation: before.evaluation, faults: error.problem.errors ?? [] }))
          }
        },
      )
    }, EVALUATE_AFTER)
    return () => {
      clearTimeout(timer)
      stop.abort()
    }
  }, [history.now.plan])

  const touch = useCallback(() => setSave((s) => (s === 'saved' ? 'unsaved' : s)), [])

  const change = useCallback(
    (label: string, next: (draft: Draft) => Draft) => {
      touch()
      setPreview(null)
      const at = Date.now()
      const joins = lastChange.current.label === label && at - lastChange.current.at < JOIN_WITHIN
      lastChange.current = { label, at }
      setHistory((h) => {
        const now = next(h.now)
        return { past: joins && h.past.length > 0 ? h.past : [...h.past, h.now], now, future: [] }
      })
    },
    [touch],
  )

  const undo = useCallback(() => {
    touch()
    lastChange.current = { label: '', at: 0 }
    setHistory((h) =>
      h.past.length === 0 ? h : { past: h.past.slice(0, -1), now: h.past.at(-1)!, future: [h.now, ...h.future] },
    )
  }, [touch])

  const redo = useCallback(() => {
    touch()
    lastChange.current = { label: '', at: 0 }
    setHistory((h) =>
      h.future.length === 0 ? h : { past: [...h.past, h.now], now: h.future[0]!, future: h.future.slice(1) },
    )
  }, [touch])

  const settle = useCallback((current: ClassView) => {
    version.current = current.version
    saved.current = { plan: current.plan, booking: current.booking }
    conflicted.current = false
    setTheirs(null)
  }, [])

  const keepMine = useCallback(() => {
    if (!theirs) return
    settle(theirs)
    void flush()
  }, [theirs, settle, flush])

  const takeTheirs = useCallback(() => {
    if (!theirs) return
    settle(theirs)
    const now = saved.current
    setHistory((h) => ({ past: [...h.past, h.now], now, future: [] }))
    forgetDraft(id)
    setSave('saved')
  }, [theirs, settle, id])

  return {
    id,
    ...history.now,
    ...result,
    save,
    theirs,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    change,
    undo,
    redo,
    keepMine,
    takeTheirs,
    flush,
    preview,
    setPreview,
  }
}
