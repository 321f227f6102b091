import { TextInput } from '@mantine/core'
import type { KeyboardEvent } from 'react'
import { useState } from 'react'

/** What a text was read as, or why it cannot be. */
export type Reading<T> = { value: T | undefined } | { why: string }

interface TypedProps<T> {
  label: string
  /** Where the label is not shown. */
  hideLabel?: boolean
  /** What stands there while nothing is typed. */
  shown: string
  read: (text: string) => Reading<T>
  /** The value a step up or down; undefined where there is none. */
  stepped?: (by: 1 | -1) => T | undefined
  placeholder?: string
  title?: string
  width?: number
  size?: 'xs' | 'sm'
  disabled?: boolean
  onChange: (value: T | undefined) => void
}

/**
 * A field that is taken with Enter or by leaving it; Escape gives the old back. What cannot be taken stays as it was
 * typed, with the reason beside it: nothing half-typed reaches the class, and nothing is quietly put right.
 */
export function TypedField<T>(props: TypedProps<T>) {
  const { label, hideLabel, shown, read, stepped, placeholder, title, width, size = 'xs', disabled, onChange } = props
  const [typed, setTyped] = useState<string | null>(null)
  const [why, setWhy] = useState<string | null>(null)

  const letGo = () => {
    setTyped(null)
    setWhy(null)
  }

  function take() {
    if (typed === null) return
    if (typed.trim() === shown.trim()) return letGo()
    const reading = read(typed.trim())
    if ('why' in reading) return setWhy(reading.why)
    letGo()
    onChange(reading.value)
  }

  function onKey(event: KeyboardEvent) {
    if (event.key === 'Enter' && typed !== null) {
      event.preventDefault()
      take()
    } else if (event.key === 'Escape' && typed !== null) {
      event.preventDefault()
      event.stopPropagation()
      letGo()
    } else if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && stepped && !event.altKey) {
      event.preventDefault()
      const next = stepped(event.key === 'ArrowUp' ? 1 : -1)
      if (next === undefined) return
      letGo()
      onChange(next)
    }
  }

  return (
    <TextInput
      label={hideLabel ? undefined : label}
      aria-label={hideLabel ? label : undefined}
      size={size}
      w={width}
      autoComplete="off"
      placeholder={placeholder}
      title={title}
      disabled={disabled}
      error={why ?? undefined}
      value={typed ?? shown}
      onFocus={(event) => event.currentTarget.select()}
      onChange={(event) => {
        setTyped(event.currentTarget.value)
        setWhy(null)
      }}
      onKeyDown={onKey}
      onBlur={take}
    />
  )
}

interface Props {
  label: string
  hideLabel?: boolean
  value: number | undefined
  min?: number
  max: number
  step?: number
  /** Such as " s"; seconds are read from 1:30 and 2 min too. */
  suffix?: string
  placeholder?: string
  width?: number
  size?: 'xs' | 'sm'
  disabled?: boolean
  /** Something must stand there. */
  needed?: boolean
  /** Undefined where the field was emptied. */
  onChange: (value: number | undefined) => void
}

/** A whole number from its text; seconds also as 1:30 or 2 min. */
function whole(text: string, timed: boolean): number | null {
  const clock = timed && /^(\d{1,3}):([0-5]\d)$/.exec(text)
  if (clock) return Number(clock[1]) * 60 + Number(clock[2])
  const minutes = timed && /^(\d{1,3})\s*min$/.exec(text)
  if (minutes) return Number(minutes[1]) * 60
  const plain = /^(\d{1,9})\s*(s|kg|cm|min|%)?$/.exec(text)
  return plain ? Number(plain[1]) : null
}

/** A whole number with its unit. */
export function NumberField({
  label,
  hideLabel,
  value,
  min = 0,
  max,
  step = 5,
  suffix = ' s',
  placeholder,
  width = 104,
  size,
  disabled,
  needed,
  onChange,
}: Props) {
  const read = (text: string): Reading<number> => {
    if (text === '') return needed ? { why: `Enter a number from ${min} to ${max}.` } : { value: undefined }
    const number = whole(text, suffix === ' s')
    if (number === null) return { why: `“${text}” is not a whole number.` }
    if (number < min) return { why: `${number} is too low. Enter ${min} to ${max}.` }
    if (number > max) return { why: `${number} is too high. Enter ${min} to ${max}.` }
    return { value: number }
  }
  return (
    <TypedField
      label={label}
      hideLabel={hideLabel}
      width={width}
      size={size}
      placeholder={placeholder}
      disabled={disabled}
      shown={value === undefined ? '' : `${value}${suffix}`}
      read={read}
      stepped={(by) => {
        const next = (value ?? min) + by * step
        return next < min ? (value === min ? undefined : min) : next > max ? (value === max ? undefined : max) : next
      }}
      onChange={onChange}
    />
  )
}

interface DecimalProps {
  label: string
  hideLabel?: boolean
  value: number | undefined
  /** Such as "kg". */
  unit: string
  min: number
  max: number
  width?: number
  size?: 'xs' | 'sm'
  needed?: boolean
  /** Undefined where the field was emptied. */
  onChange: (value: number | undefined) => void
}

/** A number with at most two decimals, behind a point or a comma, and its unit. */
export function DecimalField({
  label,
  hideLabel,
  value,
  unit,
  min,
  max,
  width = 104,
  size,
  needed,
  onChange,
}: DecimalProps) {
  const read = (text: string): Reading<number> => {
    if (text === '') return needed ? { why: `Enter a number from ${min} to ${max} ${unit}.` } : { value: undefined }
    const bare = text.endsWith(unit) ? text.slice(0, -unit.length).trimEnd() : text
    if (!/^\d{1,3}([.,]\d{1,2})?$/.test(bare)) return { why: `“${text}” is not a number. Enter ${unit} as in 6.5.` }
    const number = Number(bare.replace(',', '.'))
    if (number < min) return { why: `${number} is too low. Enter ${min} to ${max}.` }
    if (number > max) return { why: `${number} is too high. Enter ${min} to ${max}.` }
    return { value: number }
  }
  return (
    <TypedField
      label={label}
      hideLabel={hideLabel}
      width={width}
      size={size}
      shown={value === undefined ? '' : `${value} ${unit}`}
      read={read}
      onChange={onChange}
    />
  )
}
