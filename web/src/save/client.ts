import type { DehydratedState } from '@tanstack/react-query'
import { hydrate, notifyManager, QueryClient } from '@tanstack/react-query'
import { persistQueryClientSubscribe } from '@tanstack/react-query-persist-client'
import { Refused, Unreachable } from '../api/client'
import { onReached } from '../api/connection'
import { keep, leftBehind } from './kept'

/*
 * One client for all that is asked and sent. What is sent goes through mutations: in order within their scope, again
 * with growing pauses while nobody answers, and kept with the tab until they have arrived.
 */

const KEPT = 'queue'

/** Nobody answered, or the store was busy: worth another try. What was refused, or failed, is not. */
export const isPassing = (error: unknown) =>
  error instanceof Unreachable || (error instanceof Refused && error.status === 503)

export const pause = (failures: number) => Math.min(8000, 500 * 2 ** failures)

// What is put in at a press is shown before the next frame: a chosen button never jumps back for a moment.
notifyManager.setScheduler(queueMicrotask)

export const client = new QueryClient({
  defaultOptions: {
    queries: { networkMode: 'always', retry: (count, error) => isPassing(error) && count < 1 },
    mutations: {
      networkMode: 'online',
      retry: (count, error) => isPassing(error) && (error instanceof Unreachable || count < 4),
      retryDelay: pause,
    },
  },
})

// What could not be fetched while nobody answered is asked for again when somebody does.
onReached(() => void client.refetchQueries({ type: 'active', predicate: ({ state }) => isPassing(state.error) }))

/** Keeps what waits with the tab, and sends what an earlier tab has left waiting. */
export async function carryOn() {
  persistQueryClientSubscribe({
    queryClient: client,
    persister: {
      persistClient: (state) => keep(KEPT, 'all', state.clientState),
      restoreClient: () => undefined,
      removeClient: () => undefined,
    },
    dehydrateOptions: {
      shouldDehydrateQuery: () => false,
      // Documents keep their drafts themselves; these are the single acts.
      shouldDehydrateMutation: (mutation) => mutation.state.status === 'pending' && mutation.meta?.['act'] === true,
    },
  })
  const left = await leftBehind<DehydratedState>(KEPT, 'all')
  for (const { value } of left) {
    // What was under way when its tab went is not under way any more: it waits, and is sent from here.
    for (const { state } of value.mutations) state.isPaused = true
    hydrate(client, value)
  }
  await client.resumePausedMutations()
  if (left.length > 0) await client.invalidateQueries()
}
