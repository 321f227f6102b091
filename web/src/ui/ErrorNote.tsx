import type { ReactNode } from 'react'
import css from './ui.module.css'

/** Says what went wrong and what to do. */
export function ErrorNote({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div role="alert" className={css.error}>
      <strong>{title}</strong>
      {children && <div>{children}</div>}
    </div>
  )
}
