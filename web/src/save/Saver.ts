import { MutationObserver } from '@tanstack/react-query'
import type { StoreApi } from 'zustand'
import { createStore } from 'zustand'
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

export interface Saving<T> {
  state: SaveState
  /** What happened and what to do, where it went wrong. */
  words: string
  /** What stands there now, after a conflict. */
  theirs: T | null
}

export interface Draft<V> {
  value: V
  version: number
}

interface Options<V, T> {
  kind: string
  id: string
  version: number
  /** What the server has already; null: nothing that was saved. */
  saved: V | null
  send: (value: V, version: number) => Promise<{ version: number }>
  /** The other one's value and version, from a refusal with 412. */
  theirs: (current: unknown) => { value: V; version: number; shown: T } | null
  onSaved?: () => void
}

const SAVE_AFTER = 600

/**
 * Saves one document that is typed over and over: a while after the last change, one request at a time, each against the
 * version before it. The draft is kept with the tab until it has arrived.
 */
export class Saver<V, T> {
  readonly store: StoreApi<Saving<T>>
  private latest: V | null
  private saved: V | null
  private version: number
  private timer: ReturnType<typeof setTimeout> | undefined
  private other: { value: V; version: number } | null = null
  private readonly mutation: MutationObserver<void, Error, void>

  constructor(private readonly options: Options<V, T>) {
    this.latest = options.saved
    this.saved = options.saved
    this.version = options.version
    this.store = createStore<Saving<T>>(() => ({
      state: options.saved === null ? 'untouched' : 'saved',
      words: '',
      theirs: null,
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
  }

  /** Takes up a draft that an earlier tab left behind, against the version it was made from. */
  restore(draft: Draft<V>) {
    this.version = draft.version
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
    keep(this.options.kind, this.options.id, { value, version: this.version } satisfies Draft<V>)
    if (this.store.getState().state === 'conflict') return
    this.set(this.mutation.getCurrentResult().isPaused ? 'waiting' : 'saving')
    this.timer = setTimeout(() => void this.flush(), SAVE_AFTER)
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

  /** Saves it even where nothing was changed, such as a log that was right as it was filled in. */
  async saveAsIs(value: V): Promise<boolean> {
    if (this.saved === null) this.put(value)
    return this.flush()
  }

  /** The version that was read or saved here last. */
  get base(): number {
    return this.version
  }

  /** What has arrived last. */
  get arrived(): V | null {
    return this.saved
  }

  /** It was saved another way, and is now this. */
  at(value: V, version: number) {
    this.latest = this.saved = value
    this.version = version
    clearTimeout(this.timer)
    forget(this.options.kind, this.options.id)
    this.set('saved')
  }

  /** Ends a conflict with mine over theirs. */
  keepMine() {
    this.settle()
    void this.flush()
  }

  /** Ends a conflict with theirs; returns it. */
  takeTheirs(): V | null {
    const theirs = this.other?.value ?? null
    this.settle()
    this.latest = this.saved
    forget(this.options.kind, this.options.id)
    this.set('saved')
    return theirs
  }

  private settle() {
    if (!this.other) return
    this.version = this.other.version
    this.saved = this.other.value
    this.other = null
    this.store.setState({ state: 'saving', theirs: null, words: '' })
  }

  private async push() {
    while (!same(this.latest, this.saved)) {
      const value = this.latest as V
      try {
        const { version } = await this.options.send(value, this.version)
        this.version = version
      } catch (error) {
        const theirs =
          error instanceof Refused && error.status === 412 ? this.options.theirs(error.problem.current) : null
        // This very tab may have saved it before it was cut off.
        if (!theirs || !same(theirs.value, value)) throw error
        this.version = theirs.version
      }
      this.saved = value
    }
    forget(this.options.kind, this.options.id)
    this.set('saved')
    this.options.onSaved?.()
  }

  private failed(error: Error) {
    if (error instanceof Refused && error.status === 412) {
      const theirs = this.options.theirs(error.problem.current)
      if (theirs) {
        this.other = theirs
        this.store.setState({ state: 'conflict', theirs: theirs.shown, words: error.message })
        return
      }
    }
    const status = error instanceof Refused ? error.status : 0
    this.set(status === 507 ? 'full' : status >= 500 || status === 0 ? 'failed' : 'refused', troubleWords(error))
  }

  private set(state: SaveState, words = '') {
    const now = this.store.getState()
    if (now.state !== state || now.words !== words) this.store.setState({ state, words })
  }
}

const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b)
