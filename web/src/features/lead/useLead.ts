import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import { answer, api, Refused } from '../../api/client'
import type { Command, CommandKind, LeadState } from './fold'
import { fold } from './fold'

export type LeadView = Schemas['LeadView']

/** What this browser keeps of a lead: all of it, and the taps that the server has not got yet. */
interface Kept {
  lead: LeadView
  unsent: Command[]
}

export interface Lead {
  script: LeadView['script']
  state: LeadState
  unsent: number
  connected: boolean
  send: (kind: CommandKind) => void
  again: () => Promise<void>
}

const RETRY = 2000
const key = (classId: string) => `halterion.lead.${classId}`

function kept(classId: string): Kept | null {
  try {
    const text = localStorage.getItem(key(classId))
    return text === null ? null : (JSON.parse(text) as Kept)
  } catch {
    return null
  }
}

function keep(classId: string, value: Kept) {
  try {
    localStorage.setItem(key(classId), JSON.stringify(value))
  } catch {
    // Without room in the browser the server's own copy still holds; only a time without the server is at risk.
  }
}

async function open(classId: string, again: boolean): Promise<LeadView> {
  return answer(api.POST('/api/classes/{id}/lead', { params: { path: { id: classId } }, body: { again } }))
}

/** Opens the lead of a class and keeps it going, with the server or without. */
export function useLead(classId: string): { lead: Lead | null; problem: Error | null } {
  const [held, setHeld] = useState<Kept | null>(null)
  const [problem, setProblem] = useState<Error | null>(null)
  const [connected, setConnected] = useState(true)
  const sending = useRef(false)
  const current = useRef<Kept | null>(null)

  const hold = useCallback(
    (next: Kept) => {
      current.current = next
      keep(classId, next)
      setHeld(next)
    },
    [classId],
  )

  const load = useCallback(
    async (again: boolean) => {
      const mine = kept(classId)
      try {
        const lead = await open(classId, again)
        // Taps made while the server was away are still owed to it.
        hold({ lead, unsent: mine && mine.lead.id === lead.id ? owed(mine.unsent, lead.commands) : [] })
        setConnected(true)
      } catch (error) {
        if (mine && !again && !(error instanceof Refused)) {
          hold(mine)
          setConnected(false)
        } else {
          setProblem(error as Error)
        }
      }
    },
    [classId, hold],
  )

  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the state is set when the server has answered
    void load(false)
  }, [load])

  const flush = useCallback(async () => {
    const now = current.current
    if (!now || sending.current || now.unsent.length === 0) return
    sending.current = true
    try {
      const { commands } = await answer(
        api.POST('/api/leads/{id}/commands', {
          params: { path: { id: now.lead.id } },
          body: { expected: now.lead.commands.length, commands: now.unsent },
        }),
      )
      settle(commands)
    } catch (error) {
      const theirs = error instanceof Refused && error.status === 409 ? error.problem : null
      // Another screen led meanwhile: what it did came first, ours follows.
      if (theirs) settle((theirs as unknown as { commands: Command[] }).commands)
      else setConnected(false)
    } finally {
      sending.current = false
    }

    function settle(commands: Command[]) {
      const then = current.current
      if (!then) return
      hold({ lead: { ...then.lead, commands }, unsent: owed(then.unsent, commands) })
      setConnected(true)
    }
  }, [hold])

  const unsent = held?.unsent.length ?? 0
  useEffect(() => {
    if (unsent === 0) return
    const soon = setTimeout(() => void flush(), 0)
    const timer = setInterval(() => void flush(), RETRY)
    return () => {
      clearTimeout(soon)
      clearInterval(timer)
    }
  }, [unsent, flush])

  const send = useCallback(
    (kind: CommandKind) => {
      const now = current.current
      if (now) hold({ ...now, unsent: [...now.unsent, { id: crypto.randomUUID(), kind, at: Date.now() }] })
    },
    [hold],
  )

  const again = useCallback(() => load(true), [load])
  const script = held?.lead.script
  const commands = held?.lead.commands
  const waiting = held?.unsent
  const state = useMemo(
    () => (script && commands && waiting ? fold([...commands, ...waiting], script.scenes) : null),
    [script, commands, waiting],
  )
  return { lead: script && state ? { script, state, unsent, connected, send, again } : null, problem }
}

const owed = (unsent: Command[], stored: Command[]) =>
  unsent.filter((command) => !stored.some((known) => known.id === command.id))
