import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schemas } from '../api/client'
import { answer, api } from '../api/client'
import type { Shift } from './core/fold'
import { apply } from './core/fold'
import { steadyNow } from './steady'
import type { Clock } from './useClock'
import type { Lead } from './useLead'

export type Way = Schemas['WayBack']

/** Late by this much is not worth a word: it is how a tap and a clock are. */
const SLIGHT = 1000
/** So much in hand is worth a thought. */
const IN_HAND = 120_000

/** Ways back while the class runs late, or what to do with time in hand; and the last one taken, to take it back. */
export function useWays(lead: Lead, clock: Clock) {
  const [taken, setTaken] = useState<{ way: Way; back: Shift[] } | null>(null)
  const behind = lead.endsAt === null ? 0 : clock.now + clock.end - clock.position - lead.endsAt
  // A class that was led on another day is not late, it is rehearsed.
  const near = Math.abs(behind) < 3 * 3600_000
  const asks = !clock.over && lead.endsAt !== null && near && (behind > SLIGHT || behind < -IN_HAND)
  const ways = useQuery({
    queryKey: ['ways', lead.id, clock.index, lead.commands.length, lead.unsent > 0],
    queryFn: async () => (await answer(api.GET('/api/leads/{id}/ways', { params: { path: { id: lead.id } } }))) ?? null,
    enabled: asks && lead.unsent === 0,
    refetchInterval: 10_000,
    retry: false,
  })

  function take(way: Way) {
    const { state, script } = lead
    const asked = { id: '', kind: 'adjust', at: steadyNow(), payload: { shifts: way.shifts } } as const
    const after = apply(state, asked, script.scenes).added
    lead.send('adjust', { shifts: way.shifts })
    // What it really changes, for nothing gets shorter than what has run.
    setTaken({ way, back: way.shifts.map(({ scene }) => ({ scene, by: state.added[scene]! - after[scene]! })) })
  }

  function undo() {
    if (!taken) return
    lead.send('adjust', { shifts: taken.back })
    setTaken(null)
  }

  return {
    // An offer made for another moment is none.
    found: asks && lead.connected ? (ways.data ?? null) : null,
    failed: asks && (ways.isError || !lead.connected),
    taken,
    take,
    undo,
    seen: () => setTaken(null),
    behind: near ? behind : null,
  }
}
