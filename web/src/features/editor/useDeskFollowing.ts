import { useEffect } from 'react'
import type { Session } from '../../api/client'
import { answer, api } from '../../api/client'
import { useDesk } from '../desk/useDesk'
import type { ClassEditor } from './ClassEditor'

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
