import { TextInput } from '@mantine/core'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { NumberField } from '../../ui/NumberField'
import css from './Build.module.css'

type Saying = Schemas['PlanSaying']

interface Props {
  value: Saying | undefined
  /** Seconds without work before it: what is said has to fit in. */
  before: number
  onChange: (next: Saying | undefined) => void
}

/** Something said in the time before some work; it adds none, and has to fit. */
export function SayField({ value, before, onChange }: Props) {
  const [typed, setTyped] = useState<string | null>(null)
  const take = () => {
    if (typed === null) return
    const text = typed.trim()
    setTyped(null)
    if (text !== (value?.text ?? '')) onChange(text === '' ? undefined : { text, seconds: value?.seconds ?? 5 })
  }
  return (
    <div className={css.say}>
      <TextInput
        label="Say before it starts"
        size="xs"
        w={300}
        maxLength={400}
        placeholder="one cue"
        value={typed ?? value?.text ?? ''}
        onChange={(event) => setTyped(event.currentTarget.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      {value && (
        <>
          <NumberField
            label="takes"
            width={70}
            step={1}
            min={1}
            max={600}
            needed
            value={value.seconds}
            onChange={(seconds) => seconds !== undefined && onChange({ ...value, seconds })}
          />
          <span className={css.aside} data-over={value.seconds > before}>
            {value.seconds > before
              ? `Too long: there are only ${before} s before the work starts.`
              : `Fits in the ${before} s before the work starts.`}
          </span>
        </>
      )}
    </div>
  )
}
