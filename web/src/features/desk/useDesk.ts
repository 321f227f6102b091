import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../api/client'
import { answer, api } from '../../api/client'

export type DeskClass = Schemas['DeskClass']

const EVERY = 4000

/** What the booking desk says, looked at every few seconds. */
export const useDesk = () =>
  useQuery({
    queryKey: ['desk'],
    queryFn: () => answer(api.GET('/api/desk')),
    refetchInterval: EVERY,
    retry: false,
  })
