import { useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import type { Schemas, Session } from '../../api/client'
import { answer, api } from '../../api/client'
import type { ClassEditor } from '../editor/ClassEditor'

export type DeskClass = Schemas['DeskClass']

const EVERY = 4000

/** What the booking desk says, looked at every few seconds. */
export const useDesk = () =>
  useQuery({
    queryKey: ['desk'],
    queryFn: () => answer(api.GET('/api/desk')),
    refetchInterval: EVERY,
    retry: false,
  })

/** Who is expected follows the desk while a class is open here. */
export function useDeskFollowing(core: ClassEditor, session: Session | null) {
  const id = session?.id
  const revision = useDesk().data?.classes.find((c) => c.session === id)?.revision ?? 0
  useEffect(() => {
    if (!id || !core.isBehind(id, revision)) return
    answer(api.GET('/api/sessions/{id}', { params: { path: { id } } })).then(
      (theirs) => core.follow(theirs),
      // It is asked again in a few seconds.
      () => undefined,
    )
  }, [core, id, revision])
}
