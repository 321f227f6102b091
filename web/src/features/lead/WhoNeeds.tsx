import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../api/client'
import { answer, api, Unreachable } from '../../api/client'
import css from './Stage.module.css'

type People = Schemas['LeadPerson'][]
type Card = Schemas['StationCard']

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

interface Row {
  key: string
  station: Card
  isNext: boolean
  needs: Schemas['PersonNeeds']
  who: Schemas['LeadPerson'][]
}

/** Who needs the same at the same station, those with nothing first, what is on before what is next. */
export function rowsOf(people: People, on: Card[], next: Card[]): Row[] {
  const ids = new Set(on.map((card) => card.id))
  const stations = [...on, ...next.filter((card) => !ids.has(card.id))].filter(
    (card, i, all) => card.id != null && all.findIndex((c) => c.id === card.id) === i,
  )
  const rows = new Map<string, Row>()
  for (const station of stations)
    for (const person of people)
      for (const needs of person.needs.filter((need) => need.station === station.id)) {
        const key = `${station.id} ${needs.kind} ${needs.words} ${needs.why}`
        const row = rows.get(key) ?? { key, station, isNext: !ids.has(station.id), needs, who: [] }
        row.who.push(person)
        rows.set(key, row)
      }
  const rank = (row: Row) => (row.isNext ? 2 : 0) + (row.needs.kind === 'gap' ? 0 : 1)
  return [...rows.values()].sort((a, b) => rank(a) - rank(b))
}

/** Initials with what they do otherwise and why, at what is on and at what is next; in a place of its own that scrolls. */
export function WhoNeeds({ who, on, next }: { who: ReturnType<typeof useWho>; on: Card[]; next: Card[] }) {
  const rows = rowsOf(who.data ?? [], on, next)
  if (rows.length === 0) return null
  const many = on.length > 1
  return (
    <ul className={css.who} aria-label="Who needs what here" tabIndex={0}>
      {rows.map(({ key, station, isNext, needs, who: people }) => (
        <li key={key} data-kind={needs.kind} title={people.map((p) => p.called).join(', ')}>
          <b>{people.map((p) => p.initials).join(' ')}</b> {isNext && <i>next: </i>}
          {many && <i>{station.name}: </i>}
          {needs.kind === 'gap' ? 'nothing here' : needs.words}
          {needs.why && <span> {needs.why}</span>}
        </li>
      ))}
    </ul>
  )
}
