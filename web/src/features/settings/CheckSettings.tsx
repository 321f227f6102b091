import { Button, Checkbox, TextInput } from '@mantine/core'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { TypedField } from '../../ui/NumberField'
import { useRules } from '../editor/useChecks'
import css from './Settings.module.css'

type Preferences = Schemas['Preferences']
type Rule = Schemas['CheckRule']

const parts: [string, string[]][] = [
  ['Time', ['time']],
  ['Effort, order, legs, balance', ['effort', 'order', 'leg', 'side', 'hold', 'mix']],
  ['Options and words', ['options', 'words']],
  ['People, kit, room', ['people', 'kit', 'room']],
  ['Week by week', ['week']],
]

interface Props {
  preferences: Preferences
  onSave: (next: Preferences) => void
}

/** Every check with what is well, why and by which source; its limit, where it has one; off, with a reason. */
export function CheckSettings({ preferences, onSave }: Props) {
  const rules = useRules()
  return (
    <>
      {parts.map(([name, starts]) => (
        <details key={name} className={css.checks}>
          <summary>{name}</summary>
          <ul>
            {(rules.data ?? [])
              .filter((rule) => starts.includes(rule.code.split('.')[0]!))
              .map((rule) => (
                <CheckRow key={rule.code} rule={rule} preferences={preferences} onSave={onSave} />
              ))}
          </ul>
        </details>
      ))}
    </>
  )
}

function CheckRow({ rule, preferences, onSave }: Props & { rule: Rule }) {
  const [asking, setAsking] = useState(false)
  const [reason, setReason] = useState('')
  const off = preferences.off?.[rule.code]
  const without = <T,>(all: Record<string, T> | undefined) =>
    Object.fromEntries(Object.entries(all ?? {}).filter(([code]) => code !== rule.code)) as Record<string, T>

  return (
    <li className={css.check}>
      <Checkbox
        label={rule.says}
        checked={off === undefined}
        onChange={(event) => {
          if (event.currentTarget.checked) onSave({ ...preferences, off: without(preferences.off) })
          else setAsking(true)
        }}
      />
      <p>
        {rule.why} {rule.others && `Some do it differently: ${rule.others} `}
        <em>{rule.source}.</em>
      </p>
      {off !== undefined && <p>Switched off: {off}</p>}
      {asking && (
        <form
          className={css.off}
          onSubmit={(event) => {
            event.preventDefault()
            if (reason.trim() === '') return
            onSave({ ...preferences, off: { ...preferences.off, [rule.code]: reason.trim() } })
            setAsking(false)
          }}
        >
          <TextInput
            size="xs"
            label="Why switch it off?"
            description="Shown on Ready for every class."
            maxLength={400}
            autoFocus
            value={reason}
            onChange={(event) => setReason(event.currentTarget.value)}
          />
          <Button size="xs" type="submit" variant="default">
            Switch off
          </Button>
          <Button size="xs" variant="subtle" onClick={() => setAsking(false)}>
            Cancel
          </Button>
        </form>
      )}
      {rule.limit && (
        <LimitField
          rule={rule}
          value={preferences.limits?.[rule.code]}
          onChange={(limit) => {
            const limits = without(preferences.limits)
            onSave({ ...preferences, limits: limit === undefined ? limits : { ...limits, [rule.code]: limit } })
          }}
        />
      )}
    </li>
  )
}

/** The limit of a check; emptied, it is the usual one. */
function LimitField(props: { rule: Rule; value: number | undefined; onChange: (limit: number | undefined) => void }) {
  const { rule, value, onChange } = props
  const { usual, least, most, unit } = rule.limit!
  return (
    <TypedField<number>
      label={
        unit.startsWith('share') ? `Limit, ${unit} (default ${usual * 100}%)` : `Limit in ${unit} (default ${usual})`
      }
      width={120}
      shown={value === undefined ? `${usual}` : `${value}`}
      read={(text) => {
        if (text === '') return { value: undefined }
        const number = Number(text.replace(',', '.'))
        return Number.isNaN(number) || number < least || number > most
          ? { why: `Enter a number from ${least} to ${most}.` }
          : { value: number }
      }}
      onChange={(limit) => onChange(limit === usual ? undefined : limit)}
    />
  )
}
