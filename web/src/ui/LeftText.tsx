import { TextInput } from '@mantine/core'
import type { ComponentProps } from 'react'

interface Props extends Pick<ComponentProps<typeof TextInput>, 'size' | 'w' | 'placeholder'> {
  label: string
  /** Where the label is not shown. */
  hideLabel?: boolean
  value: string
  most: number
  /** Something must stand there: an emptied one comes back. */
  needed?: boolean
  onChange: (text: string) => void
}

/** A text that is taken by leaving its field, without the blanks around it; Escape gives the old back. */
export function LeftText({ label, hideLabel, value, most, needed, onChange, ...rest }: Props) {
  return (
    <TextInput
      key={value}
      label={hideLabel ? undefined : label}
      aria-label={hideLabel ? label : undefined}
      defaultValue={value}
      maxLength={most}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur()
        else if (event.key === 'Escape') event.currentTarget.value = value
      }}
      onBlur={(event) => {
        const next = event.currentTarget.value.trim()
        if (next === '' && needed) event.currentTarget.value = value
        else if (next !== value) onChange(next)
      }}
      {...rest}
    />
  )
}
