import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useClockFormat } from '../../api/queries'
import { MoreMenu } from '../../ui/MoreMenu'
import { dayAndTime } from '../../ui/time'
import { many } from '../../ui/words'
import css from './Classes.module.css'

type Occasion = Schemas['SessionSummary']
type Summary = Schemas['ClassSummary']

/** Held dates that are shown at once. */
const DATES = 50

const placeOf = (date: Occasion) => `/classes/${date.classId}/on/${date.id}`

/** Where one goes to from a date: it is led, prepared, or told of. */
const stepOf = (date: Occasion) =>
  `${placeOf(date)}/${date.status === 'running' ? 'lead' : date.status === 'planned' ? 'build' : 'log'}`

interface Props {
  line: Summary
  onRemoveClass: () => void
  onRemoveDate: (date: Occasion) => void
}

/** A class, once: when it is next, whether it is ready for that, what it adds up to; its dates beneath. */
export function ClassLine({ line, onRemoveClass, onRemoveDate }: Props) {
  const [unfolded, setUnfolded] = useState(false)
  const [next] = line.next
  const unlogged = line.last?.status === 'led' ? line.last : null
  const dates = line.toCome + line.held
  return (
    <li className={css.line} data-running={next?.status === 'running' || undefined}>
      <span className={css.when}>
        {next ? <DateOf date={next} /> : 'No date'}
        <span className={css.aside}>
          {next?.status === 'running' ? 'in progress' : next ? `${next.booking.headCount} expected` : heldWords(line)}
        </span>
      </span>
      <span className={css.what}>
        <Link to={next ? stepOf(next) : `/classes/${line.id}/build`} className={css.title}>
          {line.title}
        </Link>
        {next?.status === 'planned' && <Standing of={next} version={line.savedAt} />}
        {line.copyOf && <span className={css.aside}>copied from “{line.copyOf}”</span>}
      </span>
      <SmallTape id={line.id} version={line.savedAt} />
      <span className={css.fit} data-over={line.verdict.endsWith('over')}>
        <strong>{line.length}</strong> <span>{line.verdict}</span>
      </span>
      <span className={css.acts}>
        {unlogged && <Link to={`${placeOf(unlogged)}/log`}>Log</Link>}
        {/* Also once it has started: a class that is under way is found again from any device. */}
        {next && <Link to={`${placeOf(next)}/lead`}>Lead</Link>}
        <MoreMenu
          shown="More"
          about={`for ${line.title}`}
          items={[
            { words: 'Make a copy', to: `/classes/new?copy=${line.id}` },
            { words: 'Download the class file', file: `/api/classes/${line.id}/file` },
            ...(next?.status === 'planned' ? [{ words: 'Remove this date', act: () => onRemoveDate(next) }] : []),
            { words: dates > 0 ? 'Remove the class and all its dates' : 'Remove the class', act: onRemoveClass },
          ]}
        />
      </span>
      {dates > (next ? 1 : 0) && (
        <details className={css.dates} onToggle={(event) => setUnfolded(event.currentTarget.open)}>
          <summary>
            {many(dates, 'date', 'dates')}
            <span className="hidden"> of {line.title}</span>
            {next && line.held > 0 && `, ${heldWords(line)}`}
          </summary>
          {unfolded && <Dates of={line} onRemove={onRemoveDate} />}
        </details>
      )}
    </li>
  )
}

const heldWords = (line: Summary) =>
  line.held === 0 ? 'not led yet' : line.held === 1 ? 'led once' : `led ${line.held} times`

function DateOf({ date }: { date: Occasion }) {
  const format = useClockFormat()
  return (
    <strong>
      {date.booking.startsAt || !date.startedAt
        ? dayAndTime(date.booking.startsAt, format)
        : dayAndTime(localMinute(date.startedAt), format)}
    </strong>
  )
}

/** Whether the class can be led on its next date, as Ready says it. */
function Standing({ of, version }: { of: Occasion; version: string }) {
  const standing = useQuery({
    queryKey: ['sessions', 'standing', of.id, version],
    queryFn: () => answer(api.GET('/api/sessions/{id}/standing', { params: { path: { id: of.id } } })),
  }).data
  if (!standing) return <span className={css.aside}>&nbsp;</span>
  return (
    <Link
      to={`${placeOf(of)}/ready`}
      className={css.standing}
      data-standing={standing.sure ? 'sure' : standing.ready ? 'open' : 'not'}
    >
      <span aria-hidden>{standing.sure ? '✓' : standing.ready ? '?' : '✗'}</span> {standing.says}
    </Link>
  )
}

/** All dates of a class, the next first, then those held, the last first. */
function Dates({ of, onRemove }: { of: Summary; onRemove: (date: Occasion) => void }) {
  const dates = useQuery({
    queryKey: ['sessions', 'of', of.id],
    queryFn: async () => {
      const ask = (held: boolean) =>
        answer(api.GET('/api/sessions', { params: { query: { held, of: of.id, take: DATES } } }))
      const [toCome, held] = await Promise.all([ask(false), ask(true)])
      return { lines: [...toCome.sessions, ...held.sessions], all: toCome.all + held.all }
    },
  })
  if (dates.isError) return <p role="alert">The dates could not be loaded. {troubleWords(dates.error)}</p>
  if (!dates.data) return <p role="status">Loading…</p>
  return (
    <ul aria-label={`Dates of ${of.title}`}>
      {dates.data.lines.map((date) => (
        <li key={date.id}>
          <Link to={stepOf(date)}>
            <DateOf date={date} />
          </Link>
          <span>{statusWords(date)}</span>
          <button type="button" className={css.act} onClick={() => onRemove(date)}>
            Remove<span className="hidden"> this date</span>
          </button>
        </li>
      ))}
      {dates.data.all > dates.data.lines.length && <li>and {dates.data.all - dates.data.lines.length} older</li>}
    </ul>
  )
}

const statusWords = (date: Occasion) =>
  date.status === 'planned'
    ? `${date.booking.headCount} expected`
    : date.status === 'running'
      ? 'in progress'
      : date.status === 'logged'
        ? `logged, ${many(date.came, 'person', 'people')} came`
        : 'led, not logged yet'

/** The class at a glance; what it adds up to stands in words beside it. */
function SmallTape({ id, version }: { id: string; version: string }) {
  return (
    <img
      className={css.tape}
      src={`/api/classes/${id}/tape.svg?at=${encodeURIComponent(version)}`}
      alt=""
      loading="lazy"
      width={170}
      height={26}
    />
  )
}

/** A moment as this machine's wall clock has it. */
function localMinute(moment: number): string {
  const at = new Date(moment)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`
}
