import { useDocumentTitle } from '@mantine/hooks'
import type { ComponentPropsWithoutRef } from 'react'
import css from './ui.module.css'

interface Props extends ComponentPropsWithoutRef<'main'> {
  /** What the tab of the browser says; left out while it is not known yet. */
  name: string | undefined
  /** For forms and lists: no wider than one reads at a glance. */
  narrow?: boolean
}

/** A screen outside a class. */
export function Page({ name, narrow, className, ...rest }: Props) {
  useTabName(name)
  return <main {...rest} className={[css.page, narrow && css.narrow, className].filter(Boolean).join(' ')} />
}

/** What the tab of the browser says. */
export function useTabName(name: string | undefined) {
  useDocumentTitle(name ? `${name} · Halterion` : document.title)
}
