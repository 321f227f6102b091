import { Checkbox, NativeSelect, TextInput } from '@mantine/core'
import css from './Log.module.css'
import type { Column } from './LogRowLine'
import type { LogRow } from './useLog'

type Pain = NonNullable<LogRow['pain']>

interface MoreProps {
  name: string
  row: LogRow
  columns: Column[]
  onChange: (next: (row: LogRow) => LogRow) => void
}

/** What is rarer: pain and effort at a station, an option taken up on the way, the day after, wishes. */
export function RowMore({ name, row, columns, onChange }: MoreProps) {
  const setUse = (station: string, next: Partial<LogRow['uses'][number]>) =>
    onChange((r) => ({ ...r, uses: r.uses.map((u) => (u.station === station ? { ...u, ...next } : u)) }))
  return (
    <div className={css.moreFields} role="group" aria-label={`More on ${name}`}>
      <PainFields
        label={`Pain of ${name}`}
        pain={row.pain ?? null}
        onChange={(pain) => onChange((r) => ({ ...r, pain }))}
      />
      <NativeSelect
        size="xs"
        label="The day after"
        value={row.felt?.how ?? ''}
        onChange={(event) => {
          const how = event.currentTarget.value as 'fresh' | 'usual' | 'sore' | ''
          onChange((r) => ({ ...r, felt: how === '' ? null : { how, where: r.felt?.where ?? '' } }))
        }}
        data={[
          { value: '', label: 'not told' },
          { value: 'fresh', label: 'fresh' },
          { value: 'usual', label: 'as usual' },
          { value: 'sore', label: 'sore' },
        ]}
      />
      {row.felt?.how === 'sore' && (
        <TextInput
          size="xs"
          label="Sore where"
          maxLength={200}
          value={row.felt.where}
          onChange={(event) => {
            const where = event.currentTarget.value
            onChange((r) => ({ ...r, felt: { how: 'sore', where } }))
          }}
        />
      )}
      <TextInput
        size="xs"
        label="Wishes"
        maxLength={2000}
        value={row.wishes ?? ''}
        onChange={(event) => {
          const wishes = event.currentTarget.value
          onChange((r) => ({ ...r, wishes }))
        }}
      />
      {columns.map((column) => {
        const use = row.uses.find((u) => u.station === column.station)
        if (!use?.option) return null
        return (
          <fieldset key={column.station} className={css.stationMore}>
            <legend>{column.name}</legend>
            <PainFields
              label={`Pain of ${name} at ${column.name}`}
              pain={use.pain ?? null}
              onChange={(pain) => setUse(column.station, { pain })}
            />
            <NativeSelect
              size="xs"
              label="Changed to"
              value={use.changedTo ?? ''}
              onChange={(event) => setUse(column.station, { changedTo: event.currentTarget.value || null })}
              data={[
                { value: '', label: 'nothing else' },
                ...column.choices.filter((c) => c.id !== use.option).map((c) => ({ value: c.id, label: c.short })),
              ]}
            />
            <Checkbox
              size="xs"
              label="Form slipped"
              checked={use.clean === false}
              onChange={(event) => setUse(column.station, { clean: event.currentTarget.checked ? false : null })}
            />
          </fieldset>
        )
      })}
    </div>
  )
}

function PainFields({
  label,
  pain,
  onChange,
}: {
  label: string
  pain: Pain | null
  onChange: (pain: Pain | null) => void
}) {
  return (
    <div className={css.painFields}>
      <Checkbox
        size="xs"
        label="Pain"
        aria-label={label}
        checked={pain !== null}
        onChange={(event) => onChange(event.currentTarget.checked ? { where: '' } : null)}
      />
      {pain && (
        <>
          <TextInput
            size="xs"
            aria-label={`${label}: where`}
            placeholder="where"
            maxLength={200}
            value={pain.where}
            onChange={(event) => onChange({ ...pain, where: event.currentTarget.value })}
          />
          <NativeSelect
            size="xs"
            aria-label={`${label}: side`}
            value={pain.side ?? ''}
            onChange={(event) => onChange({ ...pain, side: (event.currentTarget.value || null) as Pain['side'] })}
            data={[
              { value: '', label: 'no side' },
              { value: 'left', label: 'left' },
              { value: 'right', label: 'right' },
            ]}
          />
        </>
      )}
    </div>
  )
}
