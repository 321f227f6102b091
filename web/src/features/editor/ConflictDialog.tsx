import { Button, Text } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api, troubleWords } from '../../api/client'
import { ConflictDialog } from '../../save/ConflictDialog'
import type { Editor } from './context'

/** Two tabs changed one class: of the two a third may be made, so that both stay. */
export function ClassConflict({ editor }: { editor: Editor }) {
  const { core } = editor
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [busy, setBusy] = useState(false)
  const [trouble, setTrouble] = useState('')

  async function keepBoth() {
    setBusy(true)
    setTrouble('')
    try {
      const { plan, booking } = editor
      const copy = await answer(
        api.POST('/api/classes', {
          body: {
            title: `${plan.title.slice(0, 112)} (mine)`,
            slotMinutes: plan.slotMinutes,
            aim: plan.aim ?? 'conditioning',
            booking,
            copyOf: editor.id,
          },
        }),
      )
      await answer(
        api.PUT('/api/classes/{id}', {
          params: { path: { id: copy.id } },
          headers: { 'If-Match': `"${copy.version}"` },
          body: { plan: { ...plan, title: copy.plan.title } },
        }),
      )
      core.planSaver.takeTheirs()
      await queries.invalidateQueries({ queryKey: ['classes'] })
      void navigate(`/classes/${copy.id}/build`)
    } catch (error) {
      setTrouble(troubleWords(error))
    } finally {
      setBusy(false)
    }
  }

  return (
    <ConflictDialog saver={core.planSaver}>
      <Button variant="default" loading={busy} onClick={() => void keepBoth()}>
        Keep both (save mine as a copy)
      </Button>
      {trouble && (
        <Text role="alert" c="var(--over)">
          {trouble}
        </Text>
      )}
    </ConflictDialog>
  )
}

/** Two tabs changed when and for whom it is held. */
export function BookingConflict({ editor, session }: { editor: Editor; session: string }) {
  const saver = editor.core.bookingSaver(session)
  return saver ? <ConflictDialog saver={saver} /> : null
}
