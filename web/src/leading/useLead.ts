import { useEffect, useMemo, useState } from 'react'
import { useStore } from 'zustand'
import type { Command, CommandKind, LeadState, Payload } from './core/fold'
import { fold } from './core/fold'
import type { LeadView } from './LeadKeeper'
import { LeadKeeper } from './LeadKeeper'

export interface Lead {
  id: string
  classId: string
  session: string
  script: LeadView['script']
  /** When the booked slot is over, in milliseconds since 1970. */
  endsAt: number | null
  /** When it is booked to begin, likewise. */
  startsAt: number | null
  state: LeadState
  /** All taps, those not sent yet too. */
  commands: Command[]
  unsent: number
  connected: boolean
  /** Why a tap was refused; empty: none was. */
  trouble: string
  /** How many taps made here wait for a word, since another screen led meanwhile. */
  asked: number
  answerAsked: (send: boolean) => void
  /** For how long this machine slept, in milliseconds. */
  slept: number
  sleepSeen: () => void
  send: (kind: CommandKind, payload?: Payload) => void
}

/** The lead of a session, while it is on the screen. */
export function useLead(session: string, role: 'lead' | 'wall' = 'lead'): { lead: Lead | null; problem: Error | null } {
  const [keeper] = useState(() => new LeadKeeper(session, role))
  const { held, problem, connected, trouble, asked, slept } = useStore(keeper.store)
  useEffect(() => {
    keeper.start()
    return () => keeper.stop()
  }, [keeper])

  const script = held?.lead.script
  const stored = held?.lead.commands
  const unsent = held?.unsent
  const commands = useMemo(() => (stored && unsent ? [...stored, ...unsent] : null), [stored, unsent])
  const state = useMemo(() => (script && commands ? fold(commands, script.scenes) : null), [script, commands])
  const running = state?.phase === 'running'
  useEffect(() => {
    if (!running) return
    const timer = setInterval(keeper.tick, 1000)
    return () => clearInterval(timer)
  }, [running, keeper])

  if (!held || !script || !state || !commands) return { lead: null, problem }
  return {
    lead: {
      id: held.lead.id,
      classId: held.lead.classId,
      session,
      script,
      endsAt: held.lead.endsAt ?? null,
      startsAt: held.lead.startsAt ?? null,
      state,
      commands,
      unsent: held.unsent.length,
      connected,
      trouble,
      asked: asked?.length ?? 0,
      answerAsked: keeper.answerAsked,
      slept,
      sleepSeen: keeper.sleepSeen,
      send: keeper.send,
    },
    problem,
  }
}
