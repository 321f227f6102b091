import { NativeSelect, Textarea } from '@mantine/core'
import { NumberField } from '../../ui/NumberField'
import css from './Log.module.css'
import type { Column } from './LogRowLine'
import type { Log } from './useLog'

/** What is said of the class as a whole. */
export function AboutClass({
  log,
  columns,
  onChange,
}: {
  log: Log
  columns: Column[]
  onChange: (next: Partial<Log>) => void
}) {
  const stations = [{ value: '', label: 'not said' }, ...columns.map((c) => ({ value: c.station, label: c.name }))]
  return (
    <section className={css.about} aria-label="About this class">
      <div className={css.aboutLine}>
        <NumberField
          label="Minutes it took"
          width={140}
          suffix=" min"
          size="sm"
          min={0}
          max={1440}
          value={log.minutes ?? undefined}
          onChange={(minutes) => onChange({ minutes: minutes ?? null })}
        />
        <NativeSelect
          label="Found hardest"
          data={stations}
          value={log.hardest ?? ''}
          onChange={(event) => onChange({ hardest: event.currentTarget.value || null })}
        />
        <NativeSelect
          label="Liked least"
          data={stations}
          value={log.leastLiked ?? ''}
          onChange={(event) => onChange({ leastLiked: event.currentTarget.value || null })}
        />
      </div>
      <Textarea
        label="Notes for next time"
        autosize
        minRows={2}
        maxLength={2000}
        value={log.note}
        onChange={(event) => onChange({ note: event.currentTarget.value })}
      />
      <Textarea
        label="Carried over into the next class"
        description="Stations left out, what you promised, questions. The next brief begins with it."
        autosize
        minRows={1}
        maxLength={2000}
        value={log.carriedOver ?? ''}
        onChange={(event) => onChange({ carriedOver: event.currentTarget.value })}
      />
    </section>
  )
}
