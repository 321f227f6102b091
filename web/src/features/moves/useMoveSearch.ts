import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Family, Move, Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { useMoves } from '../../api/queries'

export interface Sieve {
  q: string
  family?: Family
  position?: Move['position']
  plane?: Move['plane']
  kit?: string
  limit?: Schemas['Limit']
  strict?: boolean
  /** Where nothing is typed, what is most like it comes first. */
  near?: string
  /** Only what asks less, or more, than that. */
  than?: 'easier' | 'harder'
}

/** What a move can be kind to. */
export const limits: [Schemas['Limit'], string][] = [
  ['knee', 'a sore knee'],
  ['lowerBack', 'a sore lower back'],
  ['balance', 'unsteady balance'],
  ['pregnancy', 'pregnancy'],
  ['ankle', 'a stiff or sore ankle'],
  ['wrist', 'sore wrists'],
  ['hip', 'a sore hip'],
  ['neck', 'a sore neck'],
  ['shoulder', 'a sore shoulder'],
  ['pelvicFloor', 'pelvic floor care'],
]

export const families: [Family, string][] = [
  ['squat', 'Squat'],
  ['lunge', 'Lunge'],
  ['hinge', 'Hinge'],
  ['bridge', 'Bridge'],
  ['activation', 'Activation'],
  ['recovery', 'Active recovery'],
  ['core', 'Core and upper body'],
  ['stretch', 'Stretch'],
]

/** The moves that fit, the best first. Searching is the server's: it forgives typing mistakes. */
export function useMoveSearch(sieve: Sieve) {
  const moves = useMoves()
  const ids = useQuery({
    queryKey: ['search', sieve],
    queryFn: () => answer(api.GET('/api/moves/search', { params: { query: { ...sieve, q: sieve.q || undefined } } })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  })
  const byId = new Map((moves.data ?? []).map((move) => [move.id, move]))
  return {
    // A sieve that fails shows why, never everything.
    found: ids.isError ? [] : (ids.data ?? []).flatMap((id) => byId.get(id) ?? []),
    total: byId.size,
    pending: moves.isPending || ids.isPending,
    failed: moves.error ?? ids.error,
  }
}

/** Of which moves only an option is kind to a limit, and which. */
export function useKindOptions(limit?: Schemas['Limit'], strict?: boolean) {
  return useQuery({
    queryKey: ['kind', limit, strict],
    queryFn: () => answer(api.GET('/api/moves/kind', { params: { query: { limit: limit!, strict } } })),
    enabled: limit !== undefined,
    staleTime: Infinity,
    select: (list) => new Map(list.map((kind) => [kind.move, kind.words])),
  }).data
}

/** Every figure, small: fetched once. */
export function useThumbs() {
  const query = useQuery({
    queryKey: ['figures'],
    queryFn: () => answer(api.GET('/api/moves/figures')),
    staleTime: Infinity,
    gcTime: Infinity,
    select: (list) => new Map(list.map((thumb) => [thumb.id, thumb])),
  })
  return query.data
}
