import { useEffect, useMemo, useState } from 'react'
import { useStore } from 'zustand'
import type { CommandKind, LeadState } from './fold'
import { fold } from './fold'
import type { LeadView } from './LeadKeeper'
import { LeadKeeper } from './LeadKeeper'

export interface Lead {
  classId: string
  session: string
  script: LeadView['script']
  /** When the booked slot is over, in milliseconds since 1970. */
  endsAt: number | null
  state: LeadState
  unsent: number
  connected: boolean
  /** Why a tap was refused; empty: none was. */
  trouble: string
  send: (kind: CommandKind) => void
}

/** The lead of a session, while it is on the screen. */
export function useLead(session: string): { lead: Lead | null; problem: Error | null } {
  const [keeper] = useState(() => new LeadKeeper(session))
  const { held, problem, connected, trouble } = useStore(keeper.store)
  useEffect(() => {
    keeper.start()
    return () => keeper.stop()
  }, [keeper])

  const script = held?.lead.script
  const commands = held?.lead.commands
  const unsent = held?.unsent
  const state = useMemo(
    () => (script && commands && unsent ? fold([...commands, ...unsent], script.scenes) : null),
    [script, commands, unsent],
  )
  const running = state?.phase === 'running'
  useEffect(() => {
    if (!running) return
    const timer = setInterval(keeper.tick, 1000)
    return () => clearInterval(timer)
  }, [running, keeper])

  if (!held || !script || !state) return { lead: null, problem }
  return {
    lead: {
      classId: held.lead.classId,
      session,
      script,
      endsAt: held.lead.endsAt ?? null,
      state,
      unsent: held.unsent.length,
      connected,
      trouble,
      send: keeper.send,
    },
    problem,
  }
}
