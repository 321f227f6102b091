import { Input } from '@mantine/core'
import { useRef, useState } from 'react'
import type { Move } from '../../api/client'
import { MovePicker } from '../moves/MovePicker'
import css from './Build.module.css'

interface Props {
  moves: Move[]
  value: string
  label: string
  hideLabel?: boolean
  placeholder?: string
  onChange: (move: string) => void
}

/** The name of a move; pressed, it opens the library to choose another. */
export function MoveSelect({ moves, value, label, hideLabel, placeholder, onChange }: Props) {
  const [open, setOpen] = useState(false)
  const button = useRef<HTMLButtonElement>(null)
  /** The window is gone with its closing, and cannot give the focus back itself. */
  const close = () => {
    setOpen(false)
    setTimeout(() => button.current?.focus({ preventScroll: true }))
  }
  // An id is not a name: until the library has come, the place is only held.
  const name =
    value === ''
      ? (placeholder ?? 'Choose a move')
      : (moves.find((move) => move.id === value)?.name ?? (moves.length === 0 ? '…' : value))
  return (
    <Input.Wrapper label={hideLabel ? undefined : label} size="xs" labelElement="div">
      <button
        ref={button}
        type="button"
        className={css.moveButton}
        aria-label={value === '' && hideLabel ? label : `${label}: ${name}`}
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
      >
        {name}
      </button>
      {open && (
        <MovePicker
          title={label}
          current={value}
          onChoose={(move) => {
            close()
            onChange(move)
          }}
          onClose={close}
        />
      )}
    </Input.Wrapper>
  )
}
