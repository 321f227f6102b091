import { Button, Group, Modal, Text } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useStore } from 'zustand'
import { answer, api, troubleWords } from '../../api/client'
import { dayAndTime } from '../../ui/time'
import type { Editor } from './context'

/** Two tabs changed one class: a clear choice, and neither version is lost. */
export function ConflictDialog({ editor }: { editor: Editor }) {
  const { core } = editor
  const navigate = useNavigate()
  const queries = useQueryClient()
  const { theirs } = useStore(core.planSaver.store)
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
      core.takeTheirs()
      await queries.invalidateQueries({ queryKey: ['classes'] })
      void navigate(`/classes/${copy.id}/build`)
    } catch (error) {
      setTrouble(troubleWords(error))
    } finally {
      setBusy(false)
    }
  }

  return (
    <Modal
      opened={theirs !== null}
      onClose={() => undefined}
      withCloseButton={false}
      title="This class was changed in another tab"
    >
      <Text>
        There it is now “{theirs?.plan.title}”, saved as version {theirs?.version}. Your changes here are not saved yet.
        Nothing is lost until you choose; undo brings the other one back.
      </Text>
      {trouble && (
        <Text mt="sm" role="alert" c="var(--over)">
          {trouble}
        </Text>
      )}
      <Group mt="lg" gap="sm">
        <Button data-autofocus onClick={() => core.planSaver.keepMine()}>
          Save mine over it
        </Button>
        <Button variant="default" onClick={core.takeTheirs}>
          Take the other one
        </Button>
        <Button variant="default" loading={busy} onClick={() => void keepBoth()}>
          Keep both: mine as a copy
        </Button>
      </Group>
    </Modal>
  )
}

/** Two tabs changed when and for whom it is held. */
export function BookingConflict({ editor, session }: { editor: Editor; session: string }) {
  const saver = editor.core.bookingSaver(session)
  if (!saver) return null
  return <BookingChoice editor={editor} session={session} saver={saver} />
}

function BookingChoice({
  editor,
  session,
  saver,
}: {
  editor: Editor
  session: string
  saver: NonNullable<ReturnType<Editor['core']['bookingSaver']>>
}) {
  const { theirs } = useStore(saver.store)
  return (
    <Modal
      opened={theirs !== null}
      onClose={() => undefined}
      withCloseButton={false}
      title="This booking was changed in another tab"
    >
      <Text>
        There it is {dayAndTime(theirs?.booking.startsAt) || 'without a day'}, {theirs?.booking.headCount} expected.
        Yours is not saved yet.
      </Text>
      <Group mt="lg" gap="sm">
        <Button data-autofocus onClick={() => saver.keepMine()}>
          Save mine over it
        </Button>
        <Button variant="default" onClick={() => editor.core.takeTheirBooking(session)}>
          Take the other one
        </Button>
      </Group>
    </Modal>
  )
}
