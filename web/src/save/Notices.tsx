import { Button } from '@mantine/core'
import { useMutationState } from '@tanstack/react-query'
import { lazy, Suspense, useSyncExternalStore } from 'react'
import { troubleWords } from '../api/client'
import { many } from '../ui/words'
import { actSays } from './acts'
import { client } from './client'
import { documentSays } from './documents'
import css from './SaveNote.module.css'
import type { Saver } from './Saver'
import { savers } from './Saver'
import { useReachable } from '../api/connection'

// Seldom needed: what a dialog takes is fetched when there is one.
const ConflictDialog = lazy(async () => ({ default: (await import('./ConflictDialog')).ConflictDialog }))

/** What was sent from any screen and did not arrive: told until it is tried again or let go; and what was changed by two tabs. */
export function Notices() {
  const reachable = useReachable()
  useSyncExternalStore(savers.subscribe, savers.count)
  const documents = savers.all().filter((saver) => documentSays(saver.kind) !== null)
  // Mutations change in place: only what is picked out of them tells that they did.
  const acts = useMutationState(
    {
      filters: { predicate: (m) => m.meta?.['act'] === true },
      select: ({ mutationId, state, options }) => ({
        id: mutationId,
        says: actSays(options.mutationKey?.[0]),
        status: state.status,
        waits: state.isPaused,
        trouble: state.error ? troubleWords(state.error) : '',
      }),
    },
    client,
  )
  const state = (saver: Saver<unknown>) => saver.store.getState().state
  const waiting =
    acts.filter((act) => act.status === 'pending' && act.waits).length +
    documents.filter((saver) => state(saver) === 'waiting').length
  const failed = acts.filter((act) => act.status === 'error' && act.says !== null)
  const stuck = documents.filter((saver) => ['refused', 'full', 'failed'].includes(state(saver)))
  const conflict = documents.find((saver) => state(saver) === 'conflict')
  return (
    <>
      <Suspense>{conflict && <ConflictDialog saver={conflict} />}</Suspense>
      {(failed.length > 0 || stuck.length > 0 || (!reachable && waiting > 0)) && (
        <div className={css.notices} role="alert" data-screen-only>
          {waiting > 0 && (
            <p>
              {many(waiting, 'change', 'changes')} not saved yet: Halterion is not answering. Kept in this browser and
              sent when it is back.
            </p>
          )}
          {stuck.map((saver) => (
            <p key={`${saver.kind}:${saver.id}`}>
              {documentSays(saver.kind)} {saver.store.getState().words}
              <Button size="compact-xs" variant="default" onClick={() => void saver.flush()}>
                Try again
              </Button>
              <Button size="compact-xs" variant="default" onClick={() => saver.discard()}>
                Discard
              </Button>
            </p>
          ))}
          {failed.map((act) => (
            <p key={act.id}>
              {act.says} {act.trouble}
              <Button size="compact-xs" variant="default" onClick={() => tryAgain(act.id)}>
                Try again
              </Button>
              <Button size="compact-xs" variant="default" onClick={() => letGo(act.id)}>
                Discard
              </Button>
            </p>
          ))}
        </div>
      )}
    </>
  )
}

const find = (id: number) =>
  client
    .getMutationCache()
    .getAll()
    .find((m) => m.mutationId === id)

function letGo(id: number) {
  const mutation = find(id)
  if (mutation) client.getMutationCache().remove(mutation)
}

function tryAgain(id: number) {
  const mutation = find(id)
  if (!mutation) return
  letGo(id)
  void client
    .getMutationCache()
    .build(client, client.defaultMutationOptions({ mutationKey: mutation.options.mutationKey }))
    .execute(mutation.state.variables)
    .catch(() => undefined)
}
