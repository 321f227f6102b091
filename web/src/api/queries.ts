import { useQuery } from '@tanstack/react-query'
import type { ClassView, PlanBlock, PlanOption, PlanStation } from './client'
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

export const useClasses = () => useQuery({ queryKey: ['classes'], queryFn: () => answer(api.GET('/api/classes')) })

export const useStarters = () =>
  useQuery({
    queryKey: ['starters'],
    queryFn: async () =>
      (await answer(api.GET('/api/starters'))) as unknown as { name: string; words: string; block: PlanBlock }[],
    ...unchanging,
  })

export interface Proposal {
  option: PlanOption
  name: string
  dimension: string
  why: string
}

export interface StationStarter {
  station: PlanStation
  proposals: { easier?: Proposal; harder?: Proposal; instead?: Proposal }
}

/** A ready station for a move; with the bell of the rotation that it goes into, dosed to fill it. */
export const stationStarter = (move: string, window?: number, roundGivesSide?: boolean) => ({
  queryKey: ['station', move, window, roundGivesSide],
  queryFn: async () =>
    (await answer(
      api.GET('/api/moves/{id}/station', { params: { path: { id: move }, query: { window, roundGivesSide } } }),
    )) as unknown as StationStarter,
  ...unchanging,
})

export const useDoseForms = () =>
  useQuery({ queryKey: ['dose-forms'], queryFn: () => answer(api.GET('/api/plans/dose-forms')), ...unchanging })

export const useSettings = () =>
  useQuery({ queryKey: ['settings'], queryFn: () => answer(api.GET('/api/settings')), staleTime: 60_000 })

/** The 12- or 24-hour clock, as the instructor likes it. */
export const useClockFormat = () => useSettings().data?.preferences.clock ?? 'h24'

export const useTemplates = () =>
  useQuery({
    queryKey: ['templates'],
    queryFn: async () =>
      (await answer(api.GET('/api/templates'))) as unknown as { id: string; name: string; block: PlanBlock }[],
  })

export const fetchClass = async (id: string) =>
  (await answer(api.GET('/api/classes/{id}', { params: { path: { id } } }))) as ClassView
