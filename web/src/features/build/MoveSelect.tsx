import { NativeSelect } from '@mantine/core'
import type { Family, Move } from '../../api/client'

const families: { family: Family; label: string }[] = [
  { family: 'squat', label: 'Squat' },
  { family: 'lunge', label: 'Lunge' },
  { family: 'hinge', label: 'Hinge' },
  { family: 'bridge', label: 'Bridge' },
]

interface Props {
  moves: Move[]
  value: string
  label: string
  hideLabel?: boolean
  placeholder?: string
  onChange: (move: string) => void
}

export function MoveSelect({ moves, value, label, hideLabel, placeholder, onChange }: Props) {
  return (
    <NativeSelect
      size="xs"
      aria-label={hideLabel ? label : undefined}
      label={hideLabel ? undefined : label}
      value={value}
      onChange={(event) => onChange(event.currentTarget.value)}
    >
      {placeholder !== undefined && <option value="">{placeholder}</option>}
      {families.map(({ family, label: name }) => (
        <optgroup key={family} label={name}>
          {moves
            .filter((move) => move.family === family)
            .map((move) => (
              <option key={move.id} value={move.id}>
                {move.name}
              </option>
            ))}
        </optgroup>
      ))}
    </NativeSelect>
  )
}
