import { Button } from '@mantine/core'
import { useEffect, useRef } from 'react'
import css from './ui.module.css'

const STAYS = 10_000

/** Undo instead of "are you sure". */
export function UndoBar({ words, onUndo, onGone }: { words: string; onUndo: () => void; onGone: () => void }) {
  const gone = useRef(onGone)
  useEffect(() => {
    gone.current = onGone
  })
  useEffect(() => {
    const timer = setTimeout(() => gone.current(), STAYS)
    return () => clearTimeout(timer)
  }, [])
  return (
    <div className={css.undo} role="status">
      {words}
      <Button size="xs" color="yellow.2" onClick={onUndo}>
        Undo
      </Button>
    </div>
  )
}
