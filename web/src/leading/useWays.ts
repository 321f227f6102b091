import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import type { Schemas } from '../api/client'
import { answer, api } from '../api/client'
import { lastTaken } from './core/taken'
import type { Clock } from './useClock'
import type { Lead } from './useLead'

export type Way = Schemas['WayBack']

/** Late by less than this is how a class runs; by more, ways to catch up are offered. In milliseconds. */
const LATE = 30_000
/** So much in hand is worth a thought. */
const IN_HAND = 120_000
/** What was put away comes back when so much more is lost, or won. */
const MORE = 30_000

/** Whether a class that stands so to its booked end is worth an offer. */
function isWorthIt(behind: number, now: number, endsAt: number): boolean {
  return behind >= LATE || (behind > 0 && now > endsAt) || behind < -IN_HAND
}

/** Ways to catch up while the class runs late, or what to do with time in hand; and the last one taken, to take it back. */
export function useWays(lead: Lead, clock: Clock) {
  const { commands, script } = lead
  const taken = useMemo(() => lastTaken(commands, script.scenes), [commands, script.scenes])
  const [seen, setSeen] = useState('')
  const [away, setAway] = useState<number | null>(null)
  const behind = lead.endsAt === null ? 0 : clock.now + clock.end - clock.position - lead.endsAt
  // A class that was led on another day is not late, it is rehearsed.
  const near = Math.abs(behind) < 3 * 3600_000
  const isAway = away !== null && (behind > 0 ? behind < away + MORE : behind > away - MORE)
  const worth = !clock.over && lead.endsAt !== null && near && !isAway && isWorthIt(behind, clock.now, lead.endsAt)
  // A pause is the instructor's own: it opens nothing, and takes away nothing that is open.
  const [open, setOpen] = useState(worth)
  if (clock.phase !== 'paused' && open !== worth) setOpen(worth)
  const asks = clock.phase === 'paused' ? open && !isAway : worth
  const ways = useQuery({
    queryKey: ['ways', lead.id, clock.index, lead.commands.length, lead.unsent > 0],
    queryFn: async () => (await answer(api.GET('/api/leads/{id}/ways', { params: { path: { id: lead.id } } }))) ?? null,
    enabled: asks && lead.unsent === 0,
    refetchInterval: 10_000,
    placeholderData: (before) => before,
    retry: false,
  })

  const take = (way: Way) => lead.send('adjust', { shifts: way.shifts, text: way.title })
  const undo = () => {
    if (taken) lead.send('adjust', { shifts: taken.back, text: '' })
  }
  const mark = taken ? `${taken.title} ${commands.length}` : ''

  return {
    // An offer made for another moment is none.
    found: asks && lead.connected && lead.unsent === 0 && !ways.isPlaceholderData ? (ways.data ?? null) : null,
    failed: asks && (ways.isError || !lead.connected),
    /** Takes back the last one, however long ago it was taken. */
    taken,
    /** It was taken just now, and nobody has said that it is good. */
    fresh: taken !== null && seen !== taken.title,
    take,
    undo,
    seen: () => setSeen(taken?.title ?? mark),
    putAway: () => setAway(behind),
    behind: near ? behind : null,
  }
}

export type Ways = ReturnType<typeof useWays>
