import { createContext, useContext } from 'react'
import type { Editor } from './useEditor'

export const EditorContext = createContext<Editor | null>(null)

/** The editor of the class whose screens these are. */
export function useClassEditor(): Editor {
  const editor = useContext(EditorContext)
  if (!editor) throw new Error('No class is open here.')
  return editor
}

/** The editor as it is at this moment, where a screen gives its parts an older one that still says all they show. */
export const LiveEditorContext = createContext<Editor | null>(null)

/** When a block begins, in seconds; null before the first evaluation. */
export const useBlockStart = (index: number): number | null =>
  useContext(LiveEditorContext)?.evaluation?.outline[index]?.start ?? null
