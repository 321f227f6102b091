import { useLocalStorage } from '@mantine/hooks'
import { useEffect } from 'react'
import type { Copied } from '../../plan/chosen'

/** What was copied last, in whatever tab: kept in the browser for where the machine's clipboard may not be read. */
export const useCopied = () =>
  useLocalStorage<Copied | null>({
    key: 'halterion.copied',
    defaultValue: null,
    getInitialValueInEffect: false,
    deserialize: (text) => readCopied(text ?? null),
  })

/** What a text holds that was copied from a class; null: it is another text. */
export function readCopied(text: string | null): Copied | null {
  if (text === null) return null
  try {
    const value = JSON.parse(text) as Copied
    const known = (value.kind === 'blocks' || value.kind === 'stations') && Array.isArray(value.items)
    return known && value.items.length > 0 ? value : null
  } catch {
    return null
  }
}

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable]') !== null

interface Clipboard {
  /** Whether there is something to copy; else the browser copies what is marked on the page. */
  some: boolean
  copy: () => void
  cut: () => void
  paste: (what: Copied) => void
  /** Another text than ours: perhaps a list of moves. */
  pasteText: (text: string) => void
}

/** The machine's own keys and menu for copy, cut and paste, while nothing is typed. */
export function useClipboardKeys({ some, copy, cut, paste, pasteText }: Clipboard) {
  useEffect(() => {
    const take = (then: () => void) => (event: ClipboardEvent) => {
      if (typing(event.target) || !some) return
      event.preventDefault()
      then()
    }
    const [onCopy, onCut] = [take(copy), take(cut)]
    const onPaste = (event: ClipboardEvent) => {
      if (typing(event.target)) return
      const text = event.clipboardData?.getData('text/plain') ?? ''
      const what = readCopied(text)
      if (what) {
        event.preventDefault()
        paste(what)
      } else if (text.trim() !== '') pasteText(text)
    }
    document.addEventListener('copy', onCopy)
    document.addEventListener('cut', onCut)
    document.addEventListener('paste', onPaste)
    return () => {
      document.removeEventListener('copy', onCopy)
      document.removeEventListener('cut', onCut)
      document.removeEventListener('paste', onPaste)
    }
  })
}
