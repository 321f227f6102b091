import { keepPreviousData, useIsMutating, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Plan, Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { change, withoutRevision } from '../../save/documents'
import { useClassEditor } from '../editor/context'

export type Room = Schemas['RoomView']
export type RoomCell = Schemas['RoomCell']
export type FloorSpot = Schemas['FloorSpot']

const of = (id: string) => ({ params: { path: { id } } })

/** The room of the session whose screens these are, as the class stands on the screen now. */
export function useRoom() {
  const { plan, session, booking, flush } = useClassEditor()
  const queries = useQueryClient()
  const id = session?.id ?? ''
  const key = ['room', id, plan, booking.headCount, booking.expected]
  const [told, setTold] = useState('')
  const room = useQuery({
    queryKey: key,
    queryFn: async () => {
      // Who is expected stands in the booking: it is saved before the room is asked for.
      await flush()
      return answer(api.POST('/api/sessions/{id}/room', { ...of(id), body: { class: plan } }))
    },
    enabled: id !== '',
    placeholderData: keepPreviousData,
    retry: false,
  })

  const put = (next: Room) => queries.setQueryData(key, next)

  /** Pins an option for somebody; without one the choice goes back to the planner. */
  async function pin(person: string, station: string, option: string | null, reason?: string) {
    const body = { class: plan, person, station, option: option ?? undefined, reason: reason ?? null }
    const result = await answer(api.POST('/api/sessions/{id}/pins', { ...of(id), body }))
    put(result.room)
    setTold(result.told)
  }

  async function group(block: string, groups: string[][] | null) {
    put(await answer(api.POST('/api/sessions/{id}/groups', { ...of(id), body: { class: plan, block, groups } })))
  }

  return { id, plan, room, pin, group, told, setTold }
}

/** What is chosen for the session: its room, where stations were put, which looks are done. */
export function useChosen(id: string) {
  const queries = useQueryClient()
  const key = ['chosen', id]
  const chosen = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET('/api/sessions/{id}/chosen', of(id))),
    enabled: id !== '',
  })
  /** Shown at once; sent in order, and kept until it has arrived. */
  function choose(next: Partial<Schemas['SessionRoomView']>) {
    const now = queries.getQueryData<Schemas['SessionRoomView']>(key)
    if (!now) return
    const shown = withoutRevision(now)
    change('chosen', id, shown, now.revision, { ...shown, ...next })
  }
  return { chosen, choose }
}

/** The rooms; while changes are on their way, what the server has is older than what is shown. */
export function useHalls() {
  const busy = useIsMutating({ mutationKey: ['room'] })
  return useQuery({
    queryKey: ['rooms'],
    queryFn: () => answer(api.GET('/api/rooms')),
    enabled: busy === 0,
    staleTime: Infinity,
    refetchOnMount: 'always',
  })
}

export function useFloor(id: string, plan: Plan, block: string, rest: unknown) {
  const { flush } = useClassEditor()
  return useQuery({
    queryKey: ['floor', id, plan, block, rest],
    queryFn: async () => {
      await flush()
      return answer(api.POST('/api/sessions/{id}/floor', { ...of(id), body: { class: plan, block } }))
    },
    enabled: id !== '' && block !== '',
    placeholderData: keepPreviousData,
    retry: false,
  })
}
