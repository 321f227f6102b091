import { useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import type { Schemas } from '../api/client'
import { answer, api } from '../api/client'
import { client } from '../save/client'

type Card = Schemas['StationCard']

const of = (session: string, { option, part, side, view }: Card) => ({
  queryKey: ['film', session, option, part ?? null, side, view ?? null],
  queryFn: () =>
    answer(
      api.GET('/api/wall/{id}/film', {
        params: {
          path: { id: session },
          query: {
            option: option!,
            ...(part != null && { part }),
            ...(side && side !== 'both' && { side }),
            ...(view && { view }),
          },
        },
      }),
    ),
  staleTime: Infinity,
  gcTime: Infinity,
  retry: false,
})

/** What is shown, in motion: in its part, on its side, at its tempo there. */
export const useFilm = (session: string, card: Card | undefined) =>
  useQuery({ ...of(session, card ?? ({ side: 'both' } as Card)), enabled: card?.option != null }).data

/** Fetches every film of a class one after the other, so that none is missing when the server is. */
export function useFilmsAhead(session: string, scenes: Schemas['Scene'][], cards: Card[]) {
  useEffect(() => {
    let stopped = false
    const run = async () => {
      const single = scenes.flatMap((scene) => (scene.cards.length === 1 ? scene.cards : []))
      for (const card of new Set(single)) {
        if (stopped) return
        if (cards[card]?.option != null) await client.prefetchQuery(of(session, cards[card]))
      }
    }
    void run()
    return () => {
      stopped = true
    }
  }, [session, scenes, cards])
}

/** How many times faster than the film its reps are done here, so that a count and the figure agree. */
export const pace = ({ film, reps }: Schemas['StationFilm'], repSeconds: number | null | undefined): number =>
  repSeconds ? film.seconds / (reps * repSeconds) : 1
