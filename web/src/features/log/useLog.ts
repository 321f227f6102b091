import { useCallback, useEffect, useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import { answer, api, Refused } from '../../api/client'

export type LogView = Schemas['LogView']
export type LogRow = Schemas['LogRow']

export type LogSave = 'untouched' | 'saved' | 'saving' | 'offline' | 'conflict'

const SAVE_AFTER = 700

/** Holds a log while it is corrected; every change is saved after a moment. */
export function useLog(classId: string, loaded: LogView) {
  const [rows, setRows] = useState(loaded.rows)
  const [note, setNote] = useState(loaded.note)
  const [save, setSave] = useState<LogSave>(loaded.version > 0 ? 'saved' : 'untouched')
  const version = useRef(loaded.version)
  const latest = useRef({ rows, note })
  const dirty = useRef(false)
  const running = useRef<Promise<boolean> | null>(null)

  const put = useCallback(async (): Promise<boolean> => {
    try {
      while (dirty.current) {
        dirty.current = false
        setSave('saving')
        const sent = latest.current
        const saved = await answer(
          api.PUT('/api/classes/{id}/log', {
            params: { path: { id: classId } },
            body: { version: version.current, log: { rows: sent.rows.map((r) => r.row), note: sent.note } },
          }),
        )
        version.current = saved.version
      }
      setSave('saved')
      return true
    } catch (error) {
      dirty.current = true
      setSave(error instanceof Refused && error.status === 412 ? 'conflict' : 'offline')
      return false
    }
  }, [classId])

  /** Saves the log as it stands, changed or not; tells whether it was saved. */
  const store = useCallback((): Promise<boolean> => {
    dirty.current = true
    running.current ??= put().finally(() => {
      running.current = null
    })
    return running.current
  }, [put])

  const first = useRef(true)
  useEffect(() => {
    latest.current = { rows, note }
    if (first.current) {
      first.current = false
      return
    }
    dirty.current = true
    const timer = setTimeout(() => void store(), SAVE_AFTER)
    return () => clearTimeout(timer)
  }, [rows, note, store])

  useEffect(() => {
    if (save !== 'offline') return
    const timer = setInterval(() => void store(), 3000)
    return () => clearInterval(timer)
  }, [save, store])

  useEffect(
    () => () => {
      if (dirty.current) void store()
    },
    [store],
  )

  const setRow = (personId: string, next: (row: LogRow) => LogRow) =>
    setRows((all) => all.map((r) => (r.row.personId === personId ? { ...r, row: next(r.row) } : r)))

  return { rows, note, save, setNote, setRow, store }
}
