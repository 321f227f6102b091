import type { ReactNode } from 'react'
import { useEffect, useRef } from 'react'
import css from './Stage.module.css'

/** Something laid over the stage; the class goes on behind it. */
export function Sheet({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  const close = useRef<HTMLButtonElement>(null)
  useEffect(() => close.current?.focus(), [])
  return (
    <aside className={css.sheet} role="dialog" aria-label={title}>
      <h2>{title}</h2>
      <button type="button" ref={close} className={css.close} onClick={onClose}>
        Close
      </button>
      {children}
    </aside>
  )
}
