import { Button } from '@mantine/core'
import { useSyncExternalStore } from 'react'
import css from './SaveNote.module.css'
import type { SaveState } from './Saver'

/** Anything that is saved as it is typed. */
export interface Saved {
  store: { subscribe: (changed: () => void) => () => void; getState: () => { state: SaveState; words: string } }
  flush: () => Promise<boolean>
}

const words: Record<SaveState, string> = {
  untouched: 'Filled in from the plan, not saved yet',
  saved: 'Saved',
  saving: 'Saving…',
  waiting: 'Not saved yet: Halterion is not answering. Kept in this browser; trying again.',
  conflict: 'Not saved: someone changed it in another tab or on another device.',
  refused: 'Not saved',
  full: 'Not saved',
  failed: 'Not saved',
}

const fine: SaveState[] = ['untouched', 'saved', 'saving']

/** Whether what is typed here has arrived, and if not, why and what to do. */
export function SaveNote({ saver }: { saver: Saved }) {
  const saving = useSyncExternalStore(saver.store.subscribe, saver.store.getState)
  const again = saving.state === 'failed' || saving.state === 'full'
  return (
    <span className={fine.includes(saving.state) ? css.note : css.trouble} role="status">
      {words[saving.state]} {saving.state !== 'conflict' && saving.words}
      {again && (
        <Button size="compact-xs" variant="default" ml={6} onClick={() => void saver.flush()}>
          Try again
        </Button>
      )}
    </span>
  )
}
