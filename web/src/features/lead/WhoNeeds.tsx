import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../api/client'
import { answer, api, Unreachable } from '../../api/client'
import css from './Stage.module.css'

type People = Schemas['LeadPerson'][]

const KEPT = 'halterion.who.'

/** Who is expected and what each needs; only for whoever leads. A reload without the server still has it; a tab that is closed has not. */
export const useWho = (session: string) =>
  useQuery({
    queryKey: ['who', session],
    queryFn: async () => {
      try {
        const people = await answer(api.GET('/api/sessions/{id}/who', { params: { path: { id: session } } }))
        sessionStorage.setItem(KEPT + session, JSON.stringify(people))
        return people
      } catch (error) {
        const known = sessionStorage.getItem(KEPT + session)
        if (known && error instanceof Unreachable) return JSON.parse(known) as People
        throw error
      }
    },
    staleTime: Infinity,
    gcTime: Infinity,
    retry: false,
  })

/** Initials with the option and the reason, at the stations that are on. */
export function WhoNeeds({ who, cards }: { who: ReturnType<typeof useWho>; cards: Schemas['StationCard'][] }) {
  const stations = cards.flatMap((card) => (card.id ? [card.id] : []))
  const needs = (who.data ?? []).flatMap((person) =>
    person.needs.filter((need) => stations.includes(need.station)).map((need) => ({ person, need })),
  )
  if (needs.length === 0) return null
  if (cards.length > 1) return <Gathered needs={needs} />
  return (
    <ul className={css.who} aria-label="Who needs what here">
      {needs.slice(0, 8).map(({ person, need }) => (
        <li key={person.id + need.station} title={person.called}>
          <b>{person.initials}</b> {need.words}
          {need.why && <span> · {need.why}</span>}
        </li>
      ))}
      {needs.length > 8 && <li>and {needs.length - 8} more</li>}
    </ul>
  )
}

/** Many stations at once: who, by what they do. */
function Gathered({ needs }: { needs: { person: Schemas['LeadPerson']; need: Schemas['PersonNeeds'] }[] }) {
  const by = new Map<string, string[]>()
  for (const { person, need } of needs)
    by.set(need.words, [...new Set([...(by.get(need.words) ?? []), person.initials])])
  return (
    <ul className={css.who} data-many="true" aria-label="Who needs what here">
      {[...by].map(([words, initials]) => (
        <li key={words}>
          <b>{initials.join(' ')}</b> {words}
        </li>
      ))}
    </ul>
  )
}
