import { useMemo, useState } from 'react'
import type { Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { client } from '../../save/client'
import type { Draft } from '../../save/Saver'
import { Saver } from '../../save/Saver'

export type LogView = Schemas['LogView']
export type LogRow = Schemas['LogRow']
export type Log = Schemas['ClassLog']

/** The log with its rows. */
const whole = (view: LogView): Log => ({ ...view.about, rows: view.rows.map((r) => r.row) })

const savers = new Map<string, Saver<Log>>()

/** The saver of a session's log: the one this tab has, while it holds something that has not arrived. */
function saverOf(session: string, loaded: LogView): Saver<Log> {
  const known = savers.get(session)
  if (known && !known.clean) return known
  const saver = new Saver<Log>({
    kind: 'log',
    name: 'This log',
    id: session,
    version: loaded.version,
    saved: loaded.version > 0 ? whole(loaded) : null,
    send: (log, version, change) =>
      answer(
        api.PUT('/api/sessions/{id}/log', {
          params: { path: { id: session } },
          headers: { 'If-Match': `"${version}"`, 'Change-Id': change },
          body: { log },
        }),
      ),
    theirs: (current) => {
      const stands = current as { version: number; log: Log } | null
      return stands ? { value: stands.log, version: stands.version } : null
    },
    onSaved: () => {
      void client.invalidateQueries({ queryKey: ['classes'] })
      void client.invalidateQueries({ queryKey: ['sessions'] })
    },
  })
  savers.set(session, saver)
  return saver
}

/** Holds a log while it is corrected; every change is saved after a moment, and kept with the tab until it has arrived. */
export function useLog(session: string, loaded: LogView, left: Draft<Log> | null) {
  const saver = useMemo(() => {
    const made = saverOf(session, loaded)
    if (left) made.restore(left)
    return made
  }, [session, loaded, left])
  const [walkIns, setWalkIns] = useState<Schemas['Person'][]>([])
  const names = useMemo(
    () =>
      new Map([
        ...[...loaded.rows, ...loaded.others].map((r) => [r.row.personId, r.name] as const),
        ...walkIns.map((person) => [person.id, person.name] as const),
      ]),
    [loaded, walkIns],
  )
  const [log, setLog] = useState<Log>(() => left?.value ?? whole(loaded))

  const set = (next: Log) => {
    setLog(next)
    saver.put(next)
  }
  return {
    saver,
    rows: log.rows.map((row) => ({ name: names.get(row.personId) ?? '', row })),
    log,
    /** Of the roster, who is not in the log yet. */
    others: [...loaded.rows, ...loaded.others].filter((r) => !log.rows.some((row) => row.personId === r.row.personId)),
    /** What is said of the class. */
    setAbout: (next: Partial<Log>) => set({ ...log, ...next }),
    setRow: (person: string, next: (row: LogRow) => LogRow) =>
      set({ ...log, rows: log.rows.map((row) => (row.personId === person ? next(row) : row)) }),
    /** Changes every row. */
    setAll: (next: (row: LogRow) => LogRow) => set({ ...log, rows: log.rows.map(next) }),
    /** Somebody who was not on the roster when the log was opened. */
    learn: (person: Schemas['Person']) => setWalkIns((before) => [...before, person]),
    add: (row: LogRow) => set({ ...log, rows: [...log.rows, row] }),
    store: () => saver.saveAsIs(log),
    /** What somebody else saved is the log now. */
    takeTheirs: () => {
      saver.takeTheirs()
      if (saver.arrived) setLog(saver.arrived)
    },
  }
}
