import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { createContext, useMemo } from 'react'
import type { Plan, Schemas } from '../../api/client'
import { answer, api } from '../../api/client'

/** The figure of every option by its id. */
export type Pictures = Map<string, Schemas['Figure']>

export const PicturesContext = createContext<Pictures | undefined>(undefined)

/** The figures of a class; those of before while a change is drawn. */
export function usePictures(plan: Plan): Pictures | undefined {
  // Only what a figure shows: a new dose draws nothing anew.
  const shown = useMemo(
    () => JSON.stringify(plan.blocks.map((block) => (block.stations ?? []).map((s) => [s.id, s.options]))),
    [plan],
  )
  const list = useQuery({
    queryKey: ['pictures', shown],
    queryFn: () => answer(api.POST('/api/plans/figures', { body: plan })),
    enabled: plan.blocks.some((block) => (block.stations ?? []).length > 0),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  }).data
  return useMemo(() => list && new Map(list.map((picture) => [picture.option, picture.figure])), [list])
}
