import { useEffect, useRef } from 'react'
import type { Plan } from '../../api/client'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'

const STAYS = 10_000

/** What was removed, where it stood. */
export interface Removed {
  words: string
  at: number
  /** Tells one removal from the next, of whatever name. */
  key: number
}

let removals = 0

/** What was just removed, and where it stood. */
export const removedAt = (name: string, at: number): Removed => ({ words: `${name} removed.`, at, key: ++removals })

/**
 * In the place of what was removed, as high as it was: the next thing does not come under the pointer with its own ×, and Undo is
 * where one looks. Gone with the next change, or after a while.
 */
export function Gone({ words, onGone }: { words: string; onGone: () => void }) {
  const { plan, undo } = useClassEditor()
  const since = useRef<Plan | null>(null)
  const gone = useRef(onGone)
  useEffect(() => {
    gone.current = onGone
  })
  useEffect(() => {
    if (since.current !== null && since.current !== plan) gone.current()
    since.current = plan
  }, [plan])
  useEffect(() => {
    const timer = setTimeout(() => gone.current(), STAYS)
    return () => clearTimeout(timer)
  }, [])
  return (
    <div className={css.gone} role="status">
      {words}
      <button
        type="button"
        className={css.quiet}
        onClick={() => {
          undo()
          gone.current()
        }}
      >
        Undo
      </button>
    </div>
  )
}
