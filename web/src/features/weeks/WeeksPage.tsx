import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link, useSearchParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useClockFormat } from '../../api/queries'
import { ErrorNote } from '../../ui/ErrorNote'
import { FamilyMark } from '../../ui/FamilyMark'
import { Page } from '../../ui/Page'
import { dayAndTime } from '../../ui/time'
import { SeriesList } from './SeriesList'
import css from './Weeks.module.css'

type Week = Schemas['CalendarWeek']
type Held = Schemas['CalendarClass']

const DAY = 86_400_000

const iso = (at: Date) => new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
const at = (day: string) => new Date(`${day}T12:00`)
const later = (day: string, days: number) => iso(new Date(at(day).getTime() + days * DAY))

/** The weeks: what was held and what comes, with what it weighs; and the series that carry classes through them. */
export function WeeksPage() {
  const [search, setSearch] = useSearchParams()
  const weeks = search.get('view') === 'week' ? 1 : 6
  const from = search.get('from')
  const query = useQuery({
    queryKey: ['calendar', from, weeks],
    queryFn: () =>
      answer(
        api.GET('/api/calendar', {
          params: { query: { from: from ?? later(iso(new Date()), weeks === 1 ? 0 : -21), weeks } },
        }),
      ),
  })
  const first = query.data?.weeks[0]?.start
  const show = (next: { view?: string; from?: string }) => {
    const to = new URLSearchParams(search)
    for (const [key, value] of Object.entries(next)) to.set(key, value)
    setSearch(to, { replace: true })
  }
  return (
    <Page name="Weeks">
      <div className={css.top}>
        <h1>Weeks</h1>
        <div className={css.steps} data-screen-only>
          <Button.Group aria-label="How much is shown">
            {(
              [
                ['weeks', 'Six weeks'],
                ['week', 'One week'],
              ] as const
            ).map(([view, words]) => (
              <Button
                key={view}
                variant={(weeks === 1) === (view === 'week') ? 'filled' : 'default'}
                aria-pressed={(weeks === 1) === (view === 'week')}
                onClick={() => show({ view })}
              >
                {words}
              </Button>
            ))}
          </Button.Group>
          <Button variant="default" disabled={!first} onClick={() => first && show({ from: later(first, -7 * weeks) })}>
            Earlier
          </Button>
          <Button variant="default" disabled={!first} onClick={() => first && show({ from: later(first, 7 * weeks) })}>
            Later
          </Button>
        </div>
      </div>
      {query.isError && <ErrorNote title={`The weeks cannot be fetched. ${troubleWords(query.error)}`} />}
      {query.data && <Weeks view={query.data} />}
      <SeriesList />
    </Page>
  )
}

function Weeks({ view }: { view: Schemas['CalendarView'] }) {
  const most = Math.max(1, ...view.weeks.flatMap((w) => [w.planned, w.load.sum]))
  const days = view.weeks[0] ? Array.from({ length: 7 }, (_, i) => later(view.weeks[0]!.start, i)) : []
  return (
    <>
      <div className={css.scroll} role="region" aria-label="Calendar" tabIndex={0}>
        <table className={css.calendar}>
          <thead>
            <tr>
              {days.map((day) => (
                <th key={day} scope="col">
                  {at(day).toLocaleDateString('en-GB', { weekday: 'short' })}
                </th>
              ))}
              <th scope="col">Load, planned and led</th>
            </tr>
          </thead>
          <tbody>
            {view.weeks.map((week) => (
              <WeekRow key={week.start} week={week} today={view.today} most={most} />
            ))}
          </tbody>
        </table>
      </div>
      <p className={css.soft}>
        Load is minutes times effort, the mean of what people told; 5 where nobody did. Monotony is the mean of the
        seven days over their spread: high where every day is alike. Strain is load times monotony (Foster 1998 and
        2001, from memory). They compare your weeks with each other, and are no measure of anybody’s fitness.
      </p>
    </>
  )
}

function WeekRow({ week, today, most }: { week: Week; today: string; most: number }) {
  return (
    <tr>
      {Array.from({ length: 7 }, (_, i) => later(week.start, i)).map((day) => (
        <td key={day} data-today={day === today} data-past={day < today}>
          <time dateTime={day}>{at(day).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}</time>
          {week.classes
            .filter((c) => c.startsAt.startsWith(day))
            .map((c) => (
              <ClassTag key={c.session} held={c} />
            ))}
        </td>
      ))}
      <td className={css.load}>
        <Bar words="planned" amount={week.planned} most={most} kind="planned" />
        <Bar words="led" amount={week.load.sum} most={most} kind="led" />
        {week.load.monotony != null && week.load.sum > 0 && (
          <small>
            monotony {week.load.monotony}, strain {Math.round(week.load.strain ?? 0)}
          </small>
        )}
      </td>
    </tr>
  )
}

function Bar({ words, amount, most, kind }: { words: string; amount: number; most: number; kind: string }) {
  return (
    <div className={css.bar}>
      <i data-kind={kind} style={{ width: `${Math.round((100 * amount) / most)}%` }} aria-hidden />
      <span>
        {Math.round(amount)} {words}
      </span>
    </div>
  )
}

function ClassTag({ held }: { held: Held }) {
  const format = useClockFormat()
  const time = dayAndTime(held.startsAt, format).split(', ').at(-1)
  return (
    <Link className={css.tag} to={`/classes/${held.class}/on/${held.session}/${held.held ? 'log' : 'build'}`}>
      <span className={css.what}>
        {time} {held.title}
      </span>
      <img src={`/api/classes/${held.class}/tape.svg`} alt="" width={96} height={14} loading="lazy" />
      <small>
        {held.families.map((family) => (
          <FamilyMark key={family} family={family} size={12} />
        ))}{' '}
        {held.held ? `${Math.round(held.led ?? 0)} led` : `${Math.round(held.planned ?? 0)} planned`}
        {held.light && ', light'}
      </small>
    </Link>
  )
}
