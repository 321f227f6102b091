import { NativeSelect, TextInput } from '@mantine/core'
import type { ReactNode } from 'react'
import type { Booking, Plan } from '../../api/client'
import { NumberField } from '../../ui/NumberField'
import css from './Brief.module.css'

export type Aim = NonNullable<Plan['aim']>

export interface Brief {
  title: string
  slotMinutes: number
  aim: Aim
  booking: Booking
}

const aims: { value: Aim; label: string }[] = [
  { value: 'conditioning', label: 'Conditioning: mixed work, little rest' },
  { value: 'strength', label: 'Strength: few reps, long rests' },
  { value: 'endurance', label: 'Endurance: many reps, short rests' },
  { value: 'technique', label: 'Technique: learn the moves well' },
]

interface Props {
  brief: Brief
  /** It has an occasion to be booked for. */
  booked?: boolean
  /** What is wrong with when it is held. */
  /** It is being begun: what is typed first goes into the title. */
  fresh?: boolean
  trouble?: ReactNode
  onChange: (label: string, next: Partial<Brief>) => void
  children?: ReactNode
}

/** What is booked, for whom and what for. */
export function BriefFields({ brief, booked = true, fresh = false, trouble, onChange, children }: Props) {
  const [date, time] = (brief.booking.startsAt ?? 'T').split('T')
  const setStart = (d: string, t: string) =>
    onChange('start', { booking: { ...brief.booking, startsAt: d === '' ? null : `${d}T${t.slice(0, 5) || '18:00'}` } })

  return (
    <div className={css.fields}>
      <TextInput
        label="Title"
        data-autofocus
        autoFocus={fresh}
        maxLength={120}
        value={brief.title}
        description={brief.title.length >= 120 ? 'Titles have up to 120 characters; the rest was cut off.' : undefined}
        error={brief.title.trim() === '' ? 'Give the class a title.' : undefined}
        onChange={(event) => onChange('title', { title: event.currentTarget.value })}
      />
      <div className={css.row}>
        <TextInput
          label="Day"
          type="date"
          disabled={!booked}
          value={date}
          onChange={(event) => setStart(event.currentTarget.value, time ?? '')}
        />
        <TextInput
          label="Starts at"
          type="time"
          disabled={!date}
          value={time?.slice(0, 5)}
          onChange={(event) => event.currentTarget.value && setStart(date ?? '', event.currentTarget.value)}
        />
        <NumberField
          label="Room booked for"
          size="sm"
          width={170}
          suffix=" min"
          min={5}
          max={180}
          needed
          value={brief.slotMinutes}
          onChange={(value) => value !== undefined && onChange('slot', { slotMinutes: value })}
        />
        <NumberField
          label="How many people"
          size="sm"
          width={170}
          suffix=""
          step={1}
          max={500}
          needed
          value={brief.booking.headCount}
          onChange={(value) =>
            value !== undefined && onChange('heads', { booking: { ...brief.booking, headCount: value } })
          }
        />
      </div>
      {trouble}
      <NativeSelect
        label="Aim"
        data={aims}
        value={brief.aim}
        onChange={(event) => onChange('aim', { aim: event.currentTarget.value as Aim })}
      />
      {children}
    </div>
  )
}
