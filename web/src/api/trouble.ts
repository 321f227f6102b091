import { createStore, useStore } from 'zustand'
import type { Schemas } from './client'

type Trouble = Schemas['DataTroubleView']

/** What is wrong with the data file, as the server said last; null: nothing. */
const store = createStore<{ trouble: Trouble | null }>(() => ({ trouble: null }))

/** Any answer tells it, and goes on telling it. */
export function noteTrouble(trouble: Trouble | undefined) {
  if (trouble) store.setState({ trouble })
}

export const useTrouble = () => useStore(store, (s) => s.trouble)
