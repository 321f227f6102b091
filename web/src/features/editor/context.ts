import { createContext, useContext } from 'react'
import type { Editor } from './useEditor'

export const EditorContext = createContext<Editor | null>(null)

/** The editor of the class whose screens these are. */
export function useClassEditor(): Editor {
  const editor = useContext(EditorContext)
  if (!editor) throw new Error('No class is open here.')
  return editor
}
