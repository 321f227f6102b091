import { NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'

interface PickProps {
  label: string
  value: string | undefined
  /** Value and label. */
  words: readonly (readonly [string, string])[]
  /** What stands there while nothing is chosen; undefined: something always is. */
  none?: string
  width?: number
  onChange: (value: string | undefined) => void
}

/** One word of a few; none leaves the field out. */
export function Pick({ label, value, words, none, width = 128, onChange }: PickProps) {
  return (
    <NativeSelect
      label={label}
      size="xs"
      w={width}
      value={value ?? ''}
      onChange={(event) => {
        const word = event.currentTarget.value
        onChange(word === '' ? undefined : word)
      }}
    >
      {none !== undefined && <option value="">{none}</option>}
      {words.map(([word, name]) => (
        <option key={word} value={word}>
          {name}
        </option>
      ))}
    </NativeSelect>
  )
}

interface ParsedProps<T> {
  label: string
  value: T | undefined
  show: (value: T) => string
  /** Undefined where the text cannot be read. */
  parse: (text: string) => T | undefined
  placeholder?: string
  hint?: string
  width?: number
  /** Undefined where the field was emptied. */
  onChange: (value: T | undefined) => void
}

/** A text that is read as it is typed; what cannot be read stays and says so. */
export function Parsed<T>({ label, value, show, parse, placeholder, hint, width = 112, onChange }: ParsedProps<T>) {
  const [typed, setTyped] = useState<string | null>(null)
  const unread = typed !== null && typed.trim() !== '' && parse(typed) === undefined
  return (
    <TextInput
      label={label}
      size="xs"
      w={width}
      placeholder={placeholder}
      title={hint}
      error={unread ? (hint ?? 'This cannot be read.') : undefined}
      value={typed ?? (value === undefined ? '' : show(value))}
      onFocus={(event) => event.currentTarget.select()}
      onChange={(event) => {
        const text = event.currentTarget.value
        setTyped(text)
        if (text.trim() === '') onChange(undefined)
        else {
          const read = parse(text)
          if (read !== undefined) onChange(read)
        }
      }}
      onBlur={() => !unread && setTyped(null)}
    />
  )
}

type Listed = number | number[]

/** Seconds, one or a list by round or gap: "60" or "30, 45". */
export const seconds = {
  show: (value: Listed) => `${Array.isArray(value) ? value.join(', ') : value} s`,
  parse: (text: string): Listed | undefined => {
    const parts = text.replace(/\s*s\s*$/, '').split(/[,/]/)
    if (!parts.every((part) => /^\s*\d{1,4}\s*$/.test(part))) return undefined
    const numbers = parts.map(Number)
    return numbers.length === 1 ? numbers[0] : numbers
  },
}
