import css from './SaveNote.module.css'
import { useClassEditor } from './context'

const words = {
  saved: 'Saved',
  saving: 'Saving …',
  unsaved: 'Saving …',
  offline: 'Not saved: no server. Kept in this browser, trying again.',
  conflict: 'Not saved',
}

export function SaveNote() {
  const { save } = useClassEditor()
  return (
    <span className={save === 'offline' || save === 'conflict' ? css.trouble : css.note} role="status">
      {words[save]}
    </span>
  )
}
