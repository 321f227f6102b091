import { Button } from '@mantine/core'
import { useMutationState } from '@tanstack/react-query'
import { troubleWords } from '../api/client'
import { actSays } from './acts'
import { client } from './client'
import css from './SaveNote.module.css'
import { useReachable } from './connection'

/** What was sent from any screen and did not arrive: told until it is tried again or let go. */
export function Notices() {
  const reachable = useReachable()
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
  const waiting = acts.filter((act) => act.status === 'pending' && act.waits).length
  const failed = acts.filter((act) => act.status === 'error' && act.says !== null)
  if (failed.length === 0 && (reachable || waiting === 0)) return null
  return (
    <div className={css.notices} role="alert" data-screen-only>
      {waiting > 0 && (
        <p>
          {waiting === 1 ? 'One change waits' : `${waiting} changes wait`} for the server. Kept in this browser, sent
          when it answers.
        </p>
      )}
      {failed.map((act) => (
        <p key={act.id}>
          {act.says} {act.trouble}
          <Button size="compact-xs" variant="default" onClick={() => tryAgain(act.id)}>
            Try again
          </Button>
          <Button size="compact-xs" variant="default" onClick={() => letGo(act.id)}>
            Let it go
          </Button>
        </p>
      ))}
    </div>
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
