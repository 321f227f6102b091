import { NativeSelect } from '@mantine/core'
import { TypedField } from '../../ui/NumberField'

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
  /** What its numbers may be. */
  within?: { min: number; max: number }
  hint?: string
  width?: number
  /** Undefined where the field was emptied. */
  onChange: (value: T | undefined) => void
}

/** A text that is read when it is taken; what cannot be read stays and says so. */
export function Parsed<T>({
  label,
  value,
  show,
  parse,
  placeholder,
  within,
  hint,
  width = 112,
  onChange,
}: ParsedProps<T>) {
  const right = [within && `${within.min}–${within.max}`, hint].filter(Boolean).join(' ')
  return (
    <TypedField<T>
      label={label}
      width={width}
      placeholder={placeholder}
      title={right}
      shown={value === undefined ? '' : show(value)}
      read={(text) => {
        if (text === '') return { value: undefined }
        const read = parse(text)
        if (read === undefined) return { why: `“${text}” does not work here. Enter ${right || 'a number'}.` }
        const outside = within && [read].flat().some((n) => typeof n === 'number' && (n < within.min || n > within.max))
        return outside ? { why: `“${text}” is not possible: ${right}.` } : { value: read }
      }}
      onChange={onChange}
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
