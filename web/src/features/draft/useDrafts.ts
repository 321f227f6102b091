import { useEffect, useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'

type Request = Schemas['StudioDraftRequest']

/** What is shown of a search: under way, done, or why there is nothing. */
export interface Drafting {
  busy: boolean
  answer: Schemas['StudioDrafted'] | null
  trouble: string
}

const nothing: Drafting = { busy: false, answer: null, trouble: '' }

/** Asks for drafts: one search at a time, which can be stopped. Each further one draws others. */
export function useDrafts() {
  const [state, setState] = useState(nothing)
  const seed = useRef(0)
  const search = useRef<AbortController | null>(null)
  useEffect(() => () => search.current?.abort(), [])

  /** What is shown of an earlier search stays until there is other, unless it was for something else. */
  async function ask(request: Request, anew = false) {
    search.current?.abort()
    const own = new AbortController()
    search.current = own
    seed.current += 1
    setState((s) => ({ answer: anew ? null : s.answer, busy: true, trouble: '' }))
    try {
      const found = await answer(
        api.POST('/api/drafts', {
          body: { ...request, brief: { ...request.brief, seed: seed.current } },
          signal: own.signal,
        }),
      )
      if (!own.signal.aborted) setState({ busy: false, answer: found, trouble: '' })
    } catch (error) {
      if (!own.signal.aborted) setState((s) => ({ ...s, busy: false, trouble: troubleWords(error) }))
    }
  }

  /** What was there before stays. */
  function stop() {
    search.current?.abort()
    setState((s) => ({ ...s, busy: false }))
  }

  return { ...state, ask, stop }
}
