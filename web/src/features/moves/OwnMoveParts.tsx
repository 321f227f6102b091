import { Button, CloseButton, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { NumberField } from '../../ui/NumberField'
import css from './Moves.module.css'
import type { OwnMove } from './OwnMovePage'

interface Part<K extends keyof OwnMove> {
  value: OwnMove[K] | undefined
  onChange: (value: OwnMove[K] | undefined) => void
}

/** A list typed with commas between. */
export function CommaList({ label, value, onChange }: Part<'kit'> & { label: string }) {
  const [text, setText] = useState((value ?? []).join(', '))
  return (
    <TextInput
      label={label}
      description="separate with commas"
      value={text}
      onChange={(e) => {
        setText(e.currentTarget.value)
        const items = e.currentTarget.value
          .split(',')
          .map((item) => item.trim())
          .filter(Boolean)
        onChange(items.length > 0 ? items : undefined)
      }}
    />
  )
}

/** What a new station of the move starts with. */
export function DoseFields({ value, onChange }: Part<'dose'>) {
  const { kind, amount } = value ?? { kind: 'reps', amount: 10 }
  return (
    <div className={css.pair}>
      <NativeSelect
        label="Usual target"
        value={kind}
        onChange={(e) => onChange({ kind: e.currentTarget.value as typeof kind, amount })}
      >
        <option value="reps">reps</option>
        <option value="time">seconds of work</option>
        <option value="hold">seconds held</option>
        <option value="pulses">pulses</option>
      </NativeSelect>
      <NumberField
        label="How many"
        size="sm"
        suffix=""
        step={1}
        min={1}
        max={3600}
        needed
        value={amount}
        onChange={(many) => many !== undefined && onChange({ kind, amount: many })}
      />
    </div>
  )
}

const dimensions = ['knee', 'hip', 'back', 'balance', 'impact', 'mobility', 'skill', 'grip'] as const

/** What the move asks, where the one that it looks like does not say it right. */
export function DemandFields({ value, like, onChange }: Part<'demand'> & { like: boolean }) {
  return (
    <fieldset className={css.asks}>
      <legend>Demands, 0 (none) to 5</legend>
      {dimensions.map((of) => (
        <NativeSelect
          key={of}
          label={of}
          size="xs"
          value={value?.[of] ?? ''}
          onChange={(e) => {
            const next = { ...value }
            if (e.currentTarget.value === '') delete next[of]
            else next[of] = Number(e.currentTarget.value)
            onChange(Object.keys(next).length > 0 ? next : undefined)
          }}
        >
          <option value="">{like ? 'as drawn' : 'not set'}</option>
          {[0, 1, 2, 3, 4, 5].map((step) => (
            <option key={step}>{step}</option>
          ))}
        </NativeSelect>
      ))}
    </fieldset>
  )
}

const limits = [
  ['knee', 'sore knees'],
  ['lowerBack', 'a sore back'],
  ['balance', 'unsure balance'],
  ['pregnancy', 'pregnancy'],
  ['ankle', 'sore ankles'],
  ['wrist', 'sore wrists'],
  ['hip', 'sore hips'],
  ['neck', 'a sore neck'],
  ['shoulder', 'sore shoulders'],
  ['pelvicFloor', 'a weak pelvic floor'],
] as const

/** Whom the move is not for; what is ticked is never offered to them. */
export function LimitTicks({ value, onChange }: Part<'limits'>) {
  const rows = value ?? []
  return (
    <fieldset className={css.asks}>
      <legend>Not offered with</legend>
      {limits.map(([limit, words]) => {
        const had =
          rows.find((row) => row.limit === limit && row.when !== 'strict') ?? rows.find((row) => row.limit === limit)
        return (
          <NativeSelect
            key={limit}
            label={words}
            size="xs"
            value={had ? (had.when ?? 'any') : ''}
            onChange={(e) => {
              const when = e.currentTarget.value
              const rest = rows.filter((row) => row.limit !== limit)
              onChange(
                when ? [...rest, { limit, when: when as 'any' | 'strict', ...(had?.why && { why: had.why }) }] : rest,
              )
            }}
          >
            <option value="">offered</option>
            <option value="any">never</option>
            <option value="strict">not when strict</option>
          </NativeSelect>
        )
      })}
    </fieldset>
  )
}

/** What goes wrong, and what mends it. */
export function FaultRows({ value, onChange }: Part<'faults'>) {
  const rows = value ?? []
  const put = (next: typeof rows) => onChange(next.length > 0 ? next : undefined)
  return (
    <fieldset className={css.asks} data-rows>
      <legend>Common faults and fixes</legend>
      {rows.map((row, i) => (
        <div key={i} className={css.faultRow}>
          {(['seen', 'fix'] as const).map((part) => (
            <TextInput
              key={part}
              required
              aria-label={`${part === 'seen' ? 'Fault' : 'Fix of fault'} ${i + 1}`}
              placeholder={part === 'seen' ? 'what you see' : 'what fixes it'}
              value={row[part]}
              onChange={(e) => put(rows.map((r, at) => (at === i ? { ...r, [part]: e.currentTarget.value } : r)))}
            />
          ))}
          <CloseButton aria-label={`Remove fault ${i + 1}`} onClick={() => put(rows.filter((_, at) => at !== i))} />
        </div>
      ))}
      <Button variant="default" size="xs" onClick={() => put([...rows, { seen: '', fix: '' }])}>
        Add a fault
      </Button>
    </fieldset>
  )
}
