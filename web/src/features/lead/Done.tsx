import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { answer, api, troubleWords } from '../../api/client'
import type { CommandKind } from '../../leading/core/fold'
import type { Lead } from '../../leading/useLead'
import { Control } from './Controls'
import css from './Stage.module.css'

/** After the end: what to do while it is fresh. */
export function Done({ send, lead }: { send: (kind: CommandKind) => void; lead: Lead }) {
  const navigate = useNavigate()
  const [trouble, setTrouble] = useState('')

  /** Another occasion of the same class, from now. */
  async function again() {
    setTrouble('')
    try {
      const before = await answer(api.GET('/api/sessions/{id}', { params: { path: { id: lead.session } } }))
      const day = new Date()
      const two = (n: number) => String(n).padStart(2, '0')
      const date = `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`
      const startsAt = `${date}T${two(day.getHours())}:${two(day.getMinutes())}`
      const next = await answer(
        api.POST('/api/classes/{id}/sessions', {
          params: { path: { id: lead.classId } },
          body: { booking: { ...before.booking, startsAt } },
        }),
      )
      void navigate(`/lead/${next.id}`)
    } catch (error) {
      setTrouble(troubleWords(error))
    }
  }

  return (
    <div className={css.done}>
      <h1 className={css.headline}>Class finished</h1>
      <p>While it is fresh: who came, and what did they do?</p>
      {trouble && <p role="alert">{trouble}</p>}
      <div className={css.controls}>
        <Link to={`/classes/${lead.classId}/on/${lead.session}/log`} className={css.big}>
          Write the log
        </Link>
        <Control name="Not finished? Go back in" onPress={() => send('back')} />
        <Control name="Lead it again from the start" onPress={() => void again()} />
      </div>
    </div>
  )
}
