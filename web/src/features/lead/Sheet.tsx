import type { ReactNode } from 'react'
import { useEffect, useRef } from 'react'
import css from './Stage.module.css'

/** Something laid over the stage; the class goes on behind it. Closed, it gives the focus back to where it was. */
export function Sheet({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  const sheet = useRef<HTMLElement>(null)
  const button = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    const [own, before] = [sheet.current, document.activeElement]
    button.current?.focus()
    return () => {
      const now = document.activeElement
      if (before instanceof HTMLElement && before !== document.body && (now === document.body || own?.contains(now)))
        before.focus({ preventScroll: true })
    }
  }, [])
  return (
    <aside ref={sheet} className={css.sheet} role="dialog" aria-label={title}>
      <h2>{title}</h2>
      <button type="button" ref={button} className={css.close} onClick={onClose}>
        Close
      </button>
      {children}
    </aside>
  )
}
