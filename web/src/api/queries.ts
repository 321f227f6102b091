import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answer, api } from './client'

const unchanging = { staleTime: Infinity, gcTime: Infinity }

export const useMoves = () =>
  useQuery({ queryKey: ['moves'], queryFn: async () => (await answer(api.GET('/api/moves'))).moves, ...unchanging })

/** Which moves are the user's own. */
export const useOwnIds = () =>
  useQuery({
    queryKey: ['moves', 'own'],
    queryFn: async () => (await answer(api.GET('/api/moves'))).own,
    ...unchanging,
  })

/** The roster, by name. */
export const usePeople = () => useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })

/** A window of the classes, what comes next first; with their next dates and the last one where those are asked for. */
export const useClasses = (search = '', take = 50, dates = false) =>
  useQuery({
    queryKey: ['classes', search, take, dates],
    queryFn: () => answer(api.GET('/api/classes', { params: { query: { search: search || undefined, take, dates } } })),
    placeholderData: keepPreviousData,
  })

export const useStarters = () =>
  useQuery({ queryKey: ['starters'], queryFn: () => answer(api.GET('/api/starters')), ...unchanging })

/** A ready station for a move; with the bell of the rotation that it goes into dosed to fill it, else like its neighbours. */
export const stationStarter = (move: string, window?: number, roundGivesSide?: boolean, like?: string) => ({
  queryKey: ['station', move, window, roundGivesSide, like],
  queryFn: () =>
    answer(
      api.GET('/api/moves/{id}/station', { params: { path: { id: move }, query: { window, roundGivesSide, like } } }),
    ),
  ...unchanging,
})

export const useDoseForms = () =>
  useQuery({ queryKey: ['dose-forms'], queryFn: () => answer(api.GET('/api/plans/dose-forms')), ...unchanging })

/** How long each move may be shown in a walk-through. */
export const useWalkThroughPaces = () =>
  useQuery({
    queryKey: ['walk-through-paces'],
    queryFn: () => answer(api.GET('/api/plans/walk-through-paces')),
  })

export const useSettings = () =>
  useQuery({ queryKey: ['settings'], queryFn: () => answer(api.GET('/api/settings')), staleTime: 60_000 })

/** The 12- or 24-hour clock, as the instructor likes it. */
export const useClockFormat = () => useSettings().data?.preferences.clock ?? 'h24'

export const useTemplates = () =>
  useQuery({ queryKey: ['templates'], queryFn: () => answer(api.GET('/api/templates')) })

export const fetchClass = (id: string) => answer(api.GET('/api/classes/{id}', { params: { path: { id } } }))
