import { MutationObserver } from '@tanstack/react-query'
import type { StoreApi } from 'zustand'
import { createStore } from 'zustand'
import type { Fault, Schemas } from '../api/client'
import { Refused, troubleWords } from '../api/client'
import { client } from './client'
import { forget, keep } from './kept'

export type SaveState =
  | 'untouched'
  | 'saved'
  | 'saving'
  /** Nobody answers; it is kept here and sent again. */
  | 'waiting'
  /** Somebody else changed it meanwhile. */
  | 'conflict'
  | 'refused'
  | 'full'
  | 'failed'

export type Difference = Schemas['Difference']

export interface Saving {
  state: SaveState
  /** What happened and what to do, where it went wrong. */
  words: string
  /** After a conflict: where what stands there differs from what is here. */
  differences: Difference[]
  /** After a refusal: what of it is wrong, place by place. */
  faults: Fault[]
}

/** What a tab keeps of a change that has not arrived: the same change is sent again after a reload. */
export interface Draft<V> {
  value: V
  version: number
  /** What it was made from: by this it is told whether somebody else changed it meanwhile. */
  base?: V | null
  change?: string
  /** What was sent and not answered, before more was typed. */
  sent?: V[]
}

/** What somebody else saved meanwhile. */
export interface Theirs<V> {
  value: V
  version: number
}

export interface SaverOptions<V> {
  kind: string
  id: string
  /** What it is called where it is said that it was changed elsewhere: "this class". */
  name: string
  version: number
  /** What the server has already; null: nothing that was saved. */
  saved: V | null
  send: (value: V, version: number, change: string) => Promise<{ version: number }>
  /** The other one's value and version, from a refusal with 412. */
  theirs: (current: unknown) => Theirs<V> | null
  /** The user kept theirs: what is shown becomes that. */
  onTheirs?: (theirs: Theirs<V>) => void
  /** The user kept their own over what stood there. */
  onMine?: (theirs: Theirs<V>) => void
  onSaved?: (value: V, version: number) => void
  /** Saved so long after the last change, in milliseconds. */
  after?: number
}

const SAVE_AFTER = 600
const MOST_UNANSWERED = 4

/** Every document that this tab has open for saving. */
const open = new Set<Saver<never>>()
const changed = createStore<{ count: number }>(() => ({ count: 0 }))

/** All of them, and a sign when one of them changes how it stands. */
export const savers = {
  subscribe: changed.subscribe,
  count: () => changed.getState().count,
  all: () => [...open] as unknown as Saver<unknown>[],
}

/**
 * Saves one document: a while after the last change, one request at a time, each against the version before it and with an id of its
 * own, so that one whose answer was lost is not taken for somebody else's. The draft is kept with the tab until it has arrived.
 */
export class Saver<V> {
  readonly store: StoreApi<Saving>
  private latest: V | null
  private saved: V | null
  private version: number
  private timer: ReturnType<typeof setTimeout> | undefined
  private other: Theirs<V> | null = null
  private change: { value: V; id: string } | null = null
  /** What was sent and not answered: it may have arrived, and is then what stands there. */
  private unanswered: V[] = []
  private readonly mutation: MutationObserver<void, Error, void>

  constructor(private readonly options: SaverOptions<V>) {
    this.latest = options.saved
    this.saved = options.saved
    this.version = options.version
    this.store = createStore<Saving>(() => ({
      state: options.saved === null ? 'untouched' : 'saved',
      words: '',
      differences: [],
      faults: [],
    }))
    this.mutation = new MutationObserver(client, {
      mutationKey: [options.kind, options.id],
      scope: { id: `${options.kind}:${options.id}` },
      mutationFn: () => this.push(),
    })
    this.mutation.subscribe((result) => {
      if (result.isPending) this.set(result.isPaused || result.failureCount > 0 ? 'waiting' : 'saving')
      else if (result.isError) this.failed(result.error)
    })
    open.add(this as unknown as Saver<never>)
    this.store.subscribe(() => changed.setState((s) => ({ count: s.count + 1 })))
  }

  get kind() {
    return this.options.kind
  }

  get id() {
    return this.options.id
  }

  get name() {
    return this.options.name
  }

  /** Takes up a draft that an earlier tab left behind, against the version it was made from. */
  restore(draft: Draft<V>) {
    this.version = draft.version
    this.saved = draft.base ?? null
    if (draft.change) this.change = { value: draft.value, id: draft.change }
    this.unanswered = draft.sent ?? []
    this.put(draft.value)
  }

  put(value: V) {
    this.latest = value
    clearTimeout(this.timer)
    if (same(value, this.saved)) {
      forget(this.options.kind, this.options.id)
      if (this.store.getState().state !== 'conflict') this.set('saved')
      return
    }
    this.keep()
    if (this.store.getState().state === 'conflict') return
    this.set(this.mutation.getCurrentResult().isPaused ? 'waiting' : 'saving')
    this.timer = setTimeout(() => void this.flush(), this.options.after ?? SAVE_AFTER)
  }

  /** Saves now; false where it could not be, or not yet. */
  flush(): Promise<boolean> {
    clearTimeout(this.timer)
    if (same(this.latest, this.saved)) return Promise.resolve(true)
    if (this.store.getState().state === 'conflict') return Promise.resolve(false)
    const running = this.mutation.getCurrentResult()
    if (!running.isPending) this.mutation.mutate().catch(() => undefined)
    return new Promise((resolve) => {
      const look = () => {
        const now = this.mutation.getCurrentResult()
        if (now.isPending && !now.isPaused && now.failureCount === 0) return
        stop()
        resolve(now.isSuccess && same(this.latest, this.saved))
      }
      const stop = this.mutation.subscribe(look)
      look()
    })
  }

  /** Saves now, and says how it came out: when nothing of it is under way any more, nor in question. */
  async settled(): Promise<Saving> {
    await this.flush()
    const ended = (now: Saving) => !['saving', 'waiting', 'conflict'].includes(now.state)
    return new Promise((resolve) => {
      const look = () => {
        const now = this.store.getState()
        if (!ended(now)) return
        stop()
        resolve(now)
      }
      const stop = this.store.subscribe(look)
      look()
    })
  }

  /** Saves it even where nothing was changed, such as a log that was right as it was filled in. */
  async saveAsIs(value: V): Promise<boolean> {
    if (this.saved === null) this.put(value)
    return this.flush()
  }

  /** The version that was read or saved here last. */
  get base(): number {
    return this.version
  }

  /** As it is here now, saved or not. */
  get value(): V {
    return this.latest as V
  }

  /** What has arrived last. */
  get arrived(): V | null {
    return this.saved
  }

  /** Nothing was changed here since this. */
  isLatest(value: V): boolean {
    return same(this.latest, value)
  }

  /** Nothing of it is still on its way, or in question. */
  get clean(): boolean {
    return ['saved', 'untouched'].includes(this.store.getState().state)
  }

  /** It was saved another way, or read anew, and is now this. */
  at(value: V, version: number) {
    this.latest = this.saved = value
    this.version = version
    this.change = null
    this.unanswered = []
    clearTimeout(this.timer)
    forget(this.options.kind, this.options.id)
    this.set('saved')
  }

  /** Ends a conflict with mine over theirs. */
  keepMine() {
    const theirs = this.settle()
    if (!theirs) return
    this.options.onMine?.(theirs)
    this.keep()
    void this.flush()
  }

  /** Ends a conflict with theirs. */
  takeTheirs() {
    const theirs = this.settle()
    if (!theirs) return
    this.at(theirs.value, theirs.version)
    this.options.onTheirs?.(theirs)
  }

  /** What was refused, or cannot be sent, is given up: what the server has counts again, and is shown. */
  discard() {
    const { saved, version } = this
    if (saved === null) {
      forget(this.options.kind, this.options.id)
      this.set('untouched')
      return
    }
    this.at(saved, version)
    this.options.onTheirs?.({ value: saved, version })
  }

  private settle(): Theirs<V> | null {
    const theirs = this.other
    if (!theirs) return null
    this.version = theirs.version
    this.saved = theirs.value
    this.other = null
    this.change = null
    this.unanswered = []
    this.store.setState({ state: 'saving', differences: [], words: '', faults: [] })
    return theirs
  }

  private async push() {
    while (!same(this.latest, this.saved)) {
      const value = this.latest as V
      const change = this.idOf(value)
      try {
        this.version = (await this.options.send(value, this.version, change)).version
      } catch (error) {
        const theirs = this.theirsIn(error)
        // It stands there already; or what stands there is what this was made from, and only others beside it have changed.
        if (theirs && same(theirs.value, value)) this.version = theirs.version
        else if (theirs && theirs.version !== this.version && same(theirs.value, this.saved)) {
          this.version = theirs.version
          continue
        } else if (theirs && this.unanswered.some((sent) => same(sent, theirs.value))) {
          // It is ours: it had arrived, and its answer was lost while more was typed.
          this.version = theirs.version
          this.saved = theirs.value
          continue
        } else {
          if (!(error instanceof Refused)) this.doubt(value)
          throw error
        }
      }
      this.saved = value
      this.unanswered = []
      // The same value once more, after another has stood there, is another change.
      this.change = null
      this.options.onSaved?.(value, this.version)
    }
    forget(this.options.kind, this.options.id)
    this.set('saved')
  }

  private doubt(value: V) {
    if (this.unanswered.some((sent) => same(sent, value))) return
    this.unanswered = [...this.unanswered, value].slice(-MOST_UNANSWERED)
    this.keep()
  }

  /** One id for as long as the same value is tried. */
  private idOf(value: V): string {
    if (!this.change || !same(this.change.value, value)) this.change = { value, id: crypto.randomUUID() }
    this.keep()
    return this.change.id
  }

  private keep() {
    const draft: Draft<V> = { value: this.latest as V, version: this.version, base: this.saved }
    if (this.change && same(this.change.value, this.latest)) draft.change = this.change.id
    if (this.unanswered.length > 0) draft.sent = this.unanswered
    keep(this.options.kind, this.options.id, draft)
  }

  private theirsIn(error: unknown): Theirs<V> | null {
    return error instanceof Refused && error.status === 412 ? this.options.theirs(error.problem.current) : null
  }

  private failed(error: Error) {
    const theirs = this.theirsIn(error)
    if (theirs) {
      this.other = theirs
      const differences = (error as Refused).problem.differences ?? []
      this.store.setState({ state: 'conflict', words: error.message, differences, faults: [] })
      return
    }
    const status = error instanceof Refused ? error.status : 0
    const faults = error instanceof Refused ? (error.problem.errors ?? []) : []
    this.set(
      status === 507 ? 'full' : status >= 500 || status === 0 ? 'failed' : 'refused',
      troubleWords(error),
      faults,
    )
  }

  private set(state: SaveState, words = '', faults: Fault[] = []) {
    const now = this.store.getState()
    if (now.state !== state || now.words !== words) this.store.setState({ state, words, differences: [], faults })
  }
}

const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b)
