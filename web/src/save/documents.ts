import { hashKey } from '@tanstack/react-query'
import type { Schemas } from '../api/client'
import { answer, api } from '../api/client'
import { client } from './client'
import { leftBehind } from './kept'
import type { Draft, Theirs } from './Saver'
import { Saver } from './Saver'

/*
 * Documents that are changed in one place at a time: a person, a room, a group, a choice, the settings. Each is shown from what was
 * fetched, changed there at once, and saved by a Saver of its own. (A class with its dates, and a log, have theirs with their screens.)
 */

type Person = Schemas['Person']
type Hall = Schemas['StoredHall']
type Circle = Schemas['Circle']
type Chosen = Schemas['SessionRoomView']
type Settings = Schemas['SettingsView']
type Template = Schemas['Template']
type OwnMoves = Schemas['OwnMovesView']

/** What is out of date when a move of one's own has changed. */
export const ofMoves = ['moves', 'move', 'figures', 'search', 'station']

const headers = (version: number, change: string) => ({ 'If-Match': `"${version}"`, 'Change-Id': change })
const of = (id: string, version: number, change: string) => ({
  params: { path: { id } },
  headers: headers(version, change),
})

interface Kind<V> {
  name: string
  says: string
  put: (id: string, value: V, version: number, change: string) => Promise<Schemas['Kept']>
  theirs: (current: unknown, id: string) => Theirs<V> | null
  /** Where it is shown from; null: nothing that was fetched holds it itself. */
  at: ((id: string) => string[]) | null
  /** Puts what was saved, or what somebody else saved, where it is shown. */
  show: (id: string, value: V, version: number) => void
  /** What else is out of date then. */
  changes: string[]
}

const withoutRevision = <T extends { revision?: number }>(all: T): Omit<T, 'revision'> => {
  const rest: Omit<T, 'revision'> & { revision?: number } = { ...all }
  delete rest.revision
  return rest
}

/** A document that says its revision itself. */
const itself = <T extends { revision?: number }>(current: unknown): Theirs<Omit<T, 'revision'>> | null => {
  const stands = current as T | null
  return stands ? { value: withoutRevision(stands), version: stands.revision ?? 1 } : null
}

const kind = <V>(its: Kind<V>) => its

const inList =
  <T extends { id: string }>(key: string[]) =>
  (id: string, value: Omit<T, 'revision'>, revision: number) =>
    client.setQueryData<T[]>(key, (all) =>
      all?.map((one) => (one.id === id ? ({ ...value, revision } as unknown as T) : one)),
    )

const setSettings = (next: Partial<Settings>) =>
  client.setQueryData<Settings>(['settings'], (old) => old && { ...old, ...next })

const kinds = {
  person: kind<Omit<Person, 'revision'>>({
    name: 'This person',
    says: 'The change to that person could not be saved.',
    put: (id, body, version, change) => answer(api.PUT('/api/people/{id}', { ...of(id, version, change), body })),
    theirs: itself<Person>,
    at: (id) => ['person', id],
    show: (id, value, revision) => {
      client.setQueryData<Person>(['person', id], { ...value, revision } as Person)
    },
    changes: ['people'],
  }),
  room: kind<Omit<Hall, 'revision'>>({
    name: 'This room',
    says: 'The change to that room could not be saved.',
    put: (id, { name, floor, stock }, version, change) =>
      answer(api.PUT('/api/rooms/{id}', { ...of(id, version, change), body: { name, floor, stock } })),
    theirs: itself<Hall>,
    at: () => ['rooms'],
    show: inList<Hall>(['rooms']),
    changes: ['room', 'floor'],
  }),
  circle: kind<Omit<Circle, 'revision'>>({
    name: 'This group',
    says: 'The change to that group could not be saved.',
    put: (id, { name, together, people }, version, change) =>
      answer(api.PUT('/api/circles/{id}', { ...of(id, version, change), body: { name, together, people } })),
    theirs: itself<Circle>,
    at: () => ['circles'],
    show: inList<Circle>(['circles']),
    changes: [],
  }),
  chosen: kind<Omit<Chosen, 'revision'>>({
    name: 'What is chosen for the room',
    says: 'Your choice for the room could not be saved.',
    put: (id, body, version, change) =>
      answer(api.PUT('/api/sessions/{id}/chosen', { ...of(id, version, change), body })),
    theirs: itself<Chosen>,
    at: (id) => ['chosen', id],
    show: (id, value, revision) => {
      client.setQueryData<Chosen>(['chosen', id], { ...value, revision } as Chosen)
    },
    changes: ['floor', 'room'],
  }),
  preferences: kind<Schemas['Preferences']>({
    name: 'The settings',
    says: 'The settings could not be saved.',
    put: (_, body, version, change) =>
      answer(api.PUT('/api/settings/preferences', { headers: headers(version, change), body })),
    theirs: (current) => {
      const stands = current as Settings | null
      return stands ? { value: stands.preferences, version: stands.preferencesRevision } : null
    },
    at: () => ['settings'],
    show: (_, preferences, preferencesRevision) => {
      setSettings({ preferences, preferencesRevision })
    },
    changes: ['starters', 'station'],
  }),
  fit: kind<Schemas['FitTerms']>({
    name: 'What fitting may change',
    says: 'The limits for fitting the time could not be saved.',
    put: (_, body, version, change) =>
      answer(api.PUT('/api/settings/fit', { headers: headers(version, change), body })),
    theirs: (current) => {
      const stands = current as Settings | null
      return stands ? { value: stands.fit, version: stands.fitRevision } : null
    },
    at: () => ['settings'],
    show: (_, fit, fitRevision) => {
      setSettings({ fit, fitRevision })
    },
    changes: [],
  }),
  template: kind<{ name: string; block: Template['block'] }>({
    name: 'This template',
    says: 'The template could not be saved.',
    put: (id, body, version, change) => answer(api.PUT('/api/templates/{id}', { ...of(id, version, change), body })),
    theirs: (current) => {
      const stands = current as Template | null
      return stands ? { value: { name: stands.name, block: stands.block }, version: stands.revision } : null
    },
    at: () => ['templates'],
    show: (id, value, revision) =>
      client.setQueryData<Template[]>(['templates'], (all) =>
        all?.map((t) => (t.id === id ? { ...t, ...value, revision } : t)),
      ),
    changes: [],
  }),
  /** Some of one's own moves, which are one document; its id has theirs. */
  ownMoves: kind<Schemas['PlanMove'][]>({
    name: 'This move of your own',
    says: 'Your move could not be saved.',
    put: (_, moves, version, change) =>
      answer(api.PUT('/api/own-moves', { headers: headers(version, change), body: { moves } })),
    theirs: (current, id) => {
      const stands = current as OwnMoves | null
      return stands ? { value: ownMovesOf(stands, id), version: stands.revision } : null
    },
    at: () => ['own-moves'],
    show: (id, value, revision) =>
      client.setQueryData<OwnMoves>(
        ['own-moves'],
        (all) => all && { moves: [...all.moves.filter((m) => !parts(id).includes(m.id)), ...value], revision },
      ),
    changes: ofMoves,
  }),
  /** One tick; its id is the session's and the tick's. (Not “tick”: under that name a class under way notes its time.) */
  ticked: kind<boolean>({
    name: 'This tick',
    says: 'That could not be ticked off.',
    put: (id, done, version, change) => {
      const [session, key] = parts(id)
      return answer(api.PUT('/api/sessions/{id}/ticks', { ...of(session, version, change), body: { key, done } }))
    },
    theirs: (current, id) => {
      const stands = current as Schemas['SessionTicks'] | null
      return stands ? { value: stands.ticks.includes(parts(id)[1]), version: stands.revision } : null
    },
    at: null,
    show: () => void client.invalidateQueries({ queryKey: ['ready'] }),
    changes: [],
  }),
  /** The reason why one finding is accepted for a session; null: it is not. Its id is the session's, the check's and the place's. */
  waiver: kind<string | null>({
    name: 'The reason for accepting this',
    says: 'It was not accepted.',
    put: (id, reason, version, change) => {
      const [session, code, place] = parts(id) as [string, string, string]
      return answer(
        api.PUT('/api/sessions/{id}/waivers', { ...of(session, version, change), body: { code, place, reason } }),
      )
    },
    theirs: (current, id) => {
      const stands = current as Schemas['SessionWaivers'] | null
      const [, code, place] = parts(id)
      if (!stands) return null
      const there = stands.waivers.find((w) => w.code === code && w.place === place)
      return { value: there?.reason ?? null, version: stands.revision }
    },
    at: null,
    show: () => {
      void client.invalidateQueries({ queryKey: ['ready'] })
    },
    changes: [],
  }),
} as const

/** Those of one's own moves that are in there, in the order of their ids. */
export const ownMovesOf = (all: OwnMoves, id: string) =>
  parts(id).flatMap((one) => all.moves.filter((move) => move.id === one))

/** Ticks and reasons of a session are one document on the server: the revision of it that was seen last counts for all of them. */
const seen = new Map<string, number>()

/** The revision of the document that a tick or a reason is part of; 0 before anything is known of it. */
export const revisionSeen = (of: 'ticked' | 'waiver', session: string) => seen.get(`${of}:${session}`) ?? 0

const parts = (id: string) => id.split('|') as [string, string, ...string[]]

export const idOf = (...of: string[]) => of.join('|')

type Kinds = typeof kinds
export type DocumentKind = keyof Kinds
type Value<K extends DocumentKind> = Kinds[K] extends Kind<infer V> ? V : never

const known = new Map<string, Saver<never>>()

/** What is said where a document of a kind could not be saved; null: its own screen says it. */
export const documentSays = (of: string) => (of in kinds ? kinds[of as DocumentKind].says : null)

/** The saver of a document, at the revision that is shown unless something of it is still on its way. */
export function saverOf<K extends DocumentKind>(of: K, id: string, shown: Value<K>, revision: number): Saver<Value<K>> {
  const name = `${of}:${id}`
  const its = kinds[of] as unknown as Kind<Value<K>>
  const before = known.get(name) as unknown as Saver<Value<K>> | undefined
  if (before) {
    // What was fetched since may be newer than what was saved here last.
    if (before.clean && revision >= before.base) before.at(shown, revision)
    return before
  }
  const saver = new Saver<Value<K>>({
    kind: of,
    id,
    name: its.name,
    version: revision,
    saved: shown,
    after: 0,
    send: async (value, version, change) => {
      const { revision } = await its.put(id, value, version, change)
      if (of === 'ticked' || of === 'waiver') seen.set(`${of}:${parts(id)[0]}`, revision)
      return { version: revision }
    },
    theirs: (current) => its.theirs(current, id),
    onTheirs: (theirs) => {
      its.show(id, theirs.value, theirs.version)
      refresh(its.changes)
    },
    onSaved: (value, version) => {
      // An answer that was on its way before this was saved is older than it.
      if (its.at) void client.cancelQueries({ queryKey: its.at(id) })
      // What was typed since stays on the screen.
      if (saver.isLatest(value)) its.show(id, value, version)
      refresh(its.changes)
    },
  })
  known.set(name, saver as unknown as Saver<never>)
  return saver
}

/** What is fetched while a change of it is on its way is older than the change, which goes on being shown. */
client.getQueryCache().subscribe((event) => {
  if (event.type !== 'updated' || event.action.type !== 'success' || event.action.manual) return
  for (const saver of known.values() as Iterable<Saver<never>>) {
    const its = kinds[saver.kind as DocumentKind] as unknown as Kind<never>
    if (!saver.clean && its.at && hashKey(its.at(saver.id)) === event.query.queryHash)
      its.show(saver.id, saver.value, saver.base)
  }
})

/** Changes a document: what is shown at once, and what is kept as soon as the server has it. */
export function change<K extends DocumentKind>(
  of: K,
  id: string,
  shown: Value<K>,
  revision: number,
  next: Value<K>,
): Saver<Value<K>> {
  const saver = saverOf(of, id, shown, revision)
  ;(kinds[of] as unknown as Kind<Value<K>>).show(id, next, saver.base)
  saver.put(next)
  return saver
}

export { withoutRevision }

function refresh(keys: string[]) {
  for (const key of keys) void client.invalidateQueries({ queryKey: [key] })
}

/** Sends what earlier tabs could not. */
export async function carryOnDocuments() {
  for (const of of Object.keys(kinds) as DocumentKind[]) {
    for (const { id, value: draft } of await leftBehind<Draft<never>>(of)) {
      const saver = saverOf(of, id, null as never, draft.version)
      saver.restore(draft)
      void saver.flush()
    }
  }
}
