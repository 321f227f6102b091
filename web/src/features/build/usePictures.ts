import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answer, api } from '../../api/client'
import { useClassEditor } from '../editor/context'

/** The figure of every option by its id; those of before while a change is drawn. */
export function usePictures() {
  const { plan } = useClassEditor()
  // Only what a figure shows: a new dose draws nothing anew.
  const shown = JSON.stringify(
    plan.blocks.map((block) => (block.stations ?? []).map((station) => [station.id, station.options])),
  )
  return useQuery({
    queryKey: ['pictures', shown],
    queryFn: () => answer(api.POST('/api/plans/figures', { body: plan })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
    select: (list) => new Map(list.map((picture) => [picture.option, picture.figure])),
  }).data
}
