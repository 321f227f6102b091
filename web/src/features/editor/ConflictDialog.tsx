import { Button, Group, Modal, Text } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { ClassView } from '../../api/client'
import { answer, api } from '../../api/client'
import type { Editor } from './useEditor'

/** Two tabs changed one class: a clear choice, and neither version is lost. */
export function ConflictDialog({ editor }: { editor: Editor }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [busy, setBusy] = useState(false)

  async function keepBoth() {
    setBusy(true)
    try {
      const { plan, booking } = editor
      const copy = (await answer(
        api.POST('/api/classes', {
          body: {
            title: plan.title,
            slotMinutes: plan.slotMinutes,
            aim: plan.aim ?? 'conditioning',
            booking,
            copyOf: editor.id,
          },
        }),
      )) as ClassView
      await answer(
        api.PUT('/api/classes/{id}', {
          params: { path: { id: copy.id } },
          headers: { 'If-Match': `"${copy.version}"` },
          body: { booking, plan: { ...plan, title: `${plan.title.slice(0, 112)} (mine)` } },
        }),
      )
      editor.takeTheirs()
      await queries.invalidateQueries({ queryKey: ['classes'] })
      void navigate(`/classes/${copy.id}/build`)
    } finally {
      setBusy(false)
    }
  }

  return (
    <Modal
      opened={editor.theirs !== null}
      onClose={() => undefined}
      withCloseButton={false}
      title="This class was changed in another tab"
    >
      <Text>
        There it is now “{editor.theirs?.plan.title}”, saved as version {editor.theirs?.version}. Your changes here are
        not saved yet. Nothing is lost until you choose; undo brings the other one back.
      </Text>
      <Group mt="lg" gap="sm">
        <Button data-autofocus onClick={editor.keepMine}>
          Save mine over it
        </Button>
        <Button variant="default" onClick={editor.takeTheirs}>
          Take the other one
        </Button>
        <Button variant="default" loading={busy} onClick={() => void keepBoth()}>
          Keep both: mine as a copy
        </Button>
      </Group>
    </Modal>
  )
}
