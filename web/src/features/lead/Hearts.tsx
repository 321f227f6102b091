import { useMutation, useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { client } from '../../save/client'
import css from './Stage.module.css'

const useHearts = (fast: boolean) =>
  useQuery({
    queryKey: ['hearts'],
    queryFn: () => answer(api.GET('/api/hearts')),
    refetchInterval: fast ? 2000 : 15_000,
    retry: false,
  })

/** A quiet row of people by the share of their estimated maximum; nothing where nobody wears a belt. */
export function Hearts({ who }: { who: Schemas['LeadPerson'][] }) {
  const hearts = useHearts(true).data?.hearts ?? []
  if (hearts.length === 0) return null
  return (
    <ul className={css.hearts} aria-label="Heart rates, % of estimated maximum">
      {hearts.map((heart) => (
        <li key={heart.person} data-hard={(heart.share ?? 0) > 0.85}>
          <b>{who.find((person) => person.id === heart.person)?.initials ?? '?'}</b>{' '}
          {heart.share == null ? heart.trouble : `${Math.round(heart.share * 100)} %`}
        </li>
      ))}
    </ul>
  )
}

/** Simulated belts, to try the row without any. */
export function BeltSwitch({ session }: { session: string }) {
  const on = useHearts(false).data?.simulated ?? false
  const act = useMutation({
    mutationFn: (next: boolean) =>
      answer(api.PUT('/api/sessions/{id}/belts', { params: { path: { id: session } }, body: { on: next } })),
    onSettled: () => client.invalidateQueries({ queryKey: ['hearts'] }),
  })
  return (
    <p>
      <label>
        <input
          type="checkbox"
          checked={act.isPending ? act.variables : on}
          onChange={(e) => act.mutate(e.currentTarget.checked)}
        />{' '}
        Simulated heart-rate straps for everyone expected
      </label>
    </p>
  )
}
