import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import type { Evaluation, Plan, Schemas, Session } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'

export type Finding = Evaluation['findings'][number]
export type Offer = Schemas['RepairOffer']

/** Findings settle this long after the last key. */
const SETTLES = 300

/** A value once it has not changed for a while. */
function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), SETTLES)
    return () => clearTimeout(timer)
  }, [value])
  return settled
}

const of = (id: string) => ({ params: { path: { id } } })

export interface Checks {
  findings: Finding[]
  offers: Offer[]
  /** Whether it is ready, as last answered; null while that is not known. */
  ready: boolean | null
  hardest: Schemas['HardestMoment'] | null
  /** The findings are those of the class as it stands on the screen. */
  fresh: boolean
  /** Why nothing is known of people, kit, room and weeks; empty. */
  trouble: string
}

/** What the checks say of a class and its session, a moment after it was changed last. Until the first answer: of the class alone. */
export function useChecks(
  plan: Plan,
  session: Session | null,
  booking: unknown,
  evaluation: Evaluation | null,
  flush: () => Promise<boolean>,
): Checks {
  const settled = useSettled(plan)
  const id = session?.id ?? ''
  const found = useQuery({
    queryKey: ['checks', id, settled, booking],
    queryFn: async ({ signal }) => {
      // Who is expected stands in the booking: it is saved before it is judged by.
      await flush()
      return answer(api.POST('/api/sessions/{id}/checks', { ...of(id), body: { class: settled }, signal }))
    },
    enabled: id !== '' && settled.blocks.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 0,
  })
  const known = found.data
  const fresh = known !== undefined && !found.isPlaceholderData && settled === plan
  // An answer to an older class may come late: what is said of the class itself never goes back behind what was known.
  const ofClass = useSettled(evaluation)?.findings ?? []
  const findings = fresh && known ? known.findings : [...ofClass, ...(known?.findings ?? []).filter((f) => f.ofSession)]
  return {
    findings,
    offers: known?.offers ?? [],
    ready: found.isError ? null : (known?.ready ?? null),
    hardest: known?.hardest ?? null,
    trouble: found.isError ? troubleWords(found.error) : '',
    fresh,
  }
}

/** The rules, with what is well, why, by which source, and what others do. */
export function useRules() {
  return useQuery({ queryKey: ['rules'], queryFn: () => answer(api.GET('/api/checks')), staleTime: Infinity })
}
