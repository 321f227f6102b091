import type { Draft } from './useEditor'

/** A draft that has not reached the server yet, with the version it was made from. */
export type KeptDraft = Draft & { version: number }

const key = (id: string) => `halterion.draft.${id}`

export function keepDraft(id: string, draft: KeptDraft) {
  try {
    localStorage.setItem(key(id), JSON.stringify(draft))
  } catch {
    // A full or forbidden store only costs the second safety net; the server still gets every change.
  }
}

export function forgetDraft(id: string) {
  try {
    localStorage.removeItem(key(id))
  } catch {
    // See keepDraft.
  }
}

export function keptDraft(id: string): KeptDraft | null {
  try {
    const text = localStorage.getItem(key(id))
    return text === null ? null : (JSON.parse(text) as KeptDraft)
  } catch {
    return null
  }
}
