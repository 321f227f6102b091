import type { PlanBlock, PlanStation } from '../../api/client'

/** What was copied, within a class or for another one. */
export type Copied = { kind: 'blocks'; items: PlanBlock[] } | { kind: 'stations'; items: PlanStation[] }

const KEY = 'halterion.copied'

/** Puts it on the machine's clipboard as text, and keeps it in the browser for where that is not allowed. */
export function copyOut(copied: Copied) {
  const text = JSON.stringify(copied)
  try {
    localStorage.setItem(KEY, text)
    window.dispatchEvent(new Event('halterion-copied'))
  } catch {
    // The machine's clipboard has it.
  }
  void navigator.clipboard?.writeText(text).catch(() => undefined)
}

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

export function keptCopy(): Copied | null {
  try {
    return readCopied(localStorage.getItem(KEY))
  } catch {
    return null
  }
}
