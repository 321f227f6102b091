import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import { NumberField } from '../../ui/NumberField'
import { Page } from '../../ui/Page'
import { clock, dayAndTime } from '../../ui/time'
import { many } from '../../ui/words'
import css from './Weeks.module.css'

type View = Schemas['SeriesView']
type Harder = 'reps' | 'rounds' | 'rest' | 'options'

/** A series as it is typed. */
interface SeriesFile {
  format: 'halterion-series'
  version: 1
  name: string
  firstDay: string
  weeks: number
  days: { weekday: string; time: string; class: string }[]
  harder: Harder[]
  lightEvery?: number
  weekStart?: 'sunday'
}

const weekdays = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday']

const harderWords: Record<Harder, string> = {
  reps: 'a rep more',
  rounds: 'a round more',
  rest: 'ten seconds less rest',
  options: 'a step up the ladder',
}

export function SeriesPage() {
  const { series: id = '' } = useParams()
  const fresh = id === 'new'
  const query = useQuery({
    queryKey: ['series', id],
    enabled: !fresh,
    queryFn: () => answer(api.GET('/api/series/{id}', { params: { path: { id } } })),
    gcTime: 0,
    staleTime: Infinity,
  })
  return (
    <Page name="Series">
      <p>
        <Link to="/weeks">All weeks</Link>
      </p>
      {query.isError && <ErrorNote title={`This series cannot be opened. ${troubleWords(query.error)}`} />}
      {fresh ? <SeriesForm view={null} /> : query.data && <SeriesForm key={query.data.revision} view={query.data} />}
    </Page>
  )
}

function tomorrow() {
  const day = new Date(Date.now() + 86_400_000)
  return new Date(day.getTime() - day.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}

function SeriesForm({ view }: { view: View | null }) {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [file, setFile] = useState<SeriesFile>(
    () =>
      (view?.series as unknown as SeriesFile | undefined) ?? {
        format: 'halterion-series',
        version: 1,
        name: '',
        firstDay: tomorrow(),
        weeks: 6,
        days: [{ weekday: 'monday', time: '18:00', class: 'A' }],
        harder: ['reps', 'rest'],
        lightEvery: 4,
      },
  )
  const [classes, setClasses] = useState<Record<string, string>>(() => view?.classes ?? {})
  const [trouble, setTrouble] = useState('')
  const [told, setTold] = useState('')
  const known =
    useQuery({
      queryKey: ['classes', 'for series'],
      queryFn: () => answer(api.GET('/api/classes', { params: { query: { take: 200 } } })),
    }).data?.classes ?? []
  const set = (next: Partial<SeriesFile>) => setFile({ ...file, ...next })
  const names = [...new Set(file.days.map((d) => d.class))]
  const ready = file.name.trim() !== '' && names.every((name) => classes[name])

  async function act(send: () => Promise<void>) {
    setTrouble('')
    try {
      await send()
    } catch (error) {
      setTrouble(troubleWords(error))
    }
  }
  const save = () =>
    act(async () => {
      const id = view?.id ?? crypto.randomUUID()
      await answer(
        api.PUT('/api/series/{id}', {
          params: { path: { id } },
          headers: { 'If-Match': `"${view?.revision ?? 0}"`, 'Change-Id': crypto.randomUUID() },
          body: { series: file as never, classes: Object.fromEntries(names.map((name) => [name, classes[name]!])) },
        }),
      )
      await queries.invalidateQueries({ queryKey: ['series'] })
      if (!view) void navigate(`/weeks/series/${id}`, { replace: true })
    })
  const make = () =>
    act(async () => {
      const made = await answer(api.POST('/api/series/{id}/make', { params: { path: { id: view!.id } } }))
      setTold(
        [
          made.made > 0 && `${made.made} put into the calendar`,
          made.renewed > 0 && `${made.renewed} brought up to date`,
          made.kept > 0 && `${made.kept} left as they are`,
        ]
          .filter(Boolean)
          .join(', ') || 'Nothing was to be done',
      )
      await queries.invalidateQueries()
    })
  const remove = () =>
    act(async () => {
      await answer(api.DELETE('/api/series/{id}', { params: { path: { id: view!.id } } }))
      await queries.invalidateQueries({ queryKey: ['series'] })
      void navigate('/weeks', { state: { removed: { id: view!.id, name: file.name } } })
    })
  const follow = (session: string, followed: boolean) =>
    act(async () => {
      await answer(
        api.POST('/api/series/{id}/sessions/{session}/follow', {
          params: { path: { id: view!.id, session } },
          body: { followed },
        }),
      )
      await queries.invalidateQueries({ queryKey: ['series', view!.id] })
    })

  return (
    <main>
      <h1>{view ? file.name : 'New series'}</h1>
      <form
        className={css.form}
        onSubmit={(event) => {
          event.preventDefault()
          if (ready) void save()
        }}
      >
        <TextInput
          label="Name"
          w={260}
          maxLength={120}
          value={file.name}
          data-autofocus
          onChange={(event) => set({ name: event.currentTarget.value })}
        />
        <TextInput
          label="First day"
          type="date"
          value={file.firstDay}
          onChange={(event) => set({ firstDay: event.currentTarget.value })}
        />
        <NumberField
          label="Weeks"
          suffix=""
          size="sm"
          min={1}
          max={52}
          step={1}
          needed
          value={file.weeks}
          onChange={(weeks) => weeks && set({ weeks })}
        />
        <NumberField
          label="A light one every … weeks"
          suffix=""
          size="sm"
          width={140}
          min={2}
          max={52}
          step={1}
          value={file.lightEvery}
          onChange={(lightEvery) => set({ lightEvery })}
        />
        <fieldset className={css.days}>
          <legend>Days</legend>
          {file.days.map((day, i) => (
            <div key={i} className={css.day}>
              <NativeSelect
                aria-label={`Day ${i + 1}`}
                data={weekdays.map((w) => ({ value: w, label: w[0]!.toUpperCase() + w.slice(1) }))}
                value={day.weekday}
                onChange={(event) => set({ days: withDay(file.days, i, { weekday: event.currentTarget.value }) })}
              />
              <TextInput
                aria-label={`Time of day ${i + 1}`}
                type="time"
                value={day.time}
                onChange={(event) => set({ days: withDay(file.days, i, { time: event.currentTarget.value }) })}
              />
              <NativeSelect
                aria-label={`Which class on day ${i + 1}`}
                data={['A', 'B'].map((name) => ({ value: name, label: `class ${name}` }))}
                value={day.class}
                onChange={(event) => set({ days: withDay(file.days, i, { class: event.currentTarget.value }) })}
              />
              {file.days.length > 1 && (
                <Button size="xs" variant="subtle" onClick={() => set({ days: file.days.filter((_, j) => j !== i) })}>
                  Remove day {i + 1}
                </Button>
              )}
            </div>
          ))}
          <Button
            size="xs"
            variant="default"
            disabled={file.days.length >= 7}
            onClick={() => set({ days: [...file.days, { weekday: freeDay(file.days), time: '18:00', class: 'B' }] })}
          >
            Another day
          </Button>
        </fieldset>
        {names.map((name) => (
          <NativeSelect
            key={name}
            label={`Class ${name} begins as`}
            value={classes[name] ?? ''}
            onChange={(event) => setClasses({ ...classes, [name]: event.currentTarget.value })}
            data={[{ value: '', label: 'choose a class …' }, ...known.map((c) => ({ value: c.id, label: c.title }))]}
          />
        ))}
        <fieldset className={css.days}>
          <legend>Harder by turns</legend>
          {(Object.keys(harderWords) as Harder[]).map((kind) => (
            <Checkbox
              key={kind}
              label={harderWords[kind]}
              checked={file.harder.includes(kind)}
              onChange={(event) =>
                set({
                  harder: event.currentTarget.checked ? [...file.harder, kind] : file.harder.filter((h) => h !== kind),
                })
              }
            />
          ))}
        </fieldset>
        <div className={css.day}>
          <Button type="submit" disabled={!ready}>
            {view ? 'Save the series' : 'Lay it out'}
          </Button>
          {view && (
            <>
              <Button variant="default" component="a" href={`/api/series/${view.id}/calendar.ics`}>
                Calendar file
              </Button>
              <Button variant="default" component="a" href={`/api/series/${view.id}/file`}>
                Series file
              </Button>
              <Button variant="subtle" onClick={() => void remove()}>
                Remove the series
              </Button>
            </>
          )}
        </div>
      </form>
      {trouble && <p role="alert">{trouble}</p>}
      {view && <Lines view={view} told={told} onMake={() => void make()} onFollow={(s, f) => void follow(s, f)} />}
    </main>
  )
}

const withDay = (days: SeriesFile['days'], at: number, next: Partial<SeriesFile['days'][number]>) =>
  days.map((day, i) => (i === at ? { ...day, ...next } : day))

const freeDay = (days: SeriesFile['days']) =>
  weekdays.find((w, i) => i > 0 && !days.some((d) => d.weekday === w)) ?? 'thursday'

function Lines({
  view,
  told,
  onMake,
  onFollow,
}: {
  view: View
  told: string
  onMake: () => void
  onFollow: (session: string, followed: boolean) => void
}) {
  const [following, setFollowing] = useState<Record<string, boolean>>({})
  const open = view.lines.filter((line) => !line.upToDate).length
  const missing = view.lines.filter((line) => !line.session).length
  return (
    <section aria-label="Week by week">
      <div className={css.top}>
        <h2>Week by week</h2>
        <Button onClick={onMake} disabled={open === 0}>
          {missing > 0
            ? `Put ${many(missing, 'class', 'classes')} into the calendar`
            : open > 0
              ? `Bring ${open} up to date`
              : 'All are up to date'}
        </Button>
      </div>
      <p role="status">{told}</p>
      <ol className={css.lines}>
        {view.lines.map((line) => (
          <li key={line.startsAt} data-light={line.light}>
            <b>
              Week {line.week}, {dayAndTime(line.startsAt)}: class {line.class}
              {line.light && ', light'}
            </b>
            <span>
              {clock(line.seconds)}, {line.verdict}
              {line.held && ', held'}
              {line.classId && (
                <>
                  {' '}
                  <Link to={`/classes/${line.classId}/on/${line.session}/build`}>Open it</Link>
                </>
              )}
            </span>
            {line.changes.length > 0 && (
              <ul>
                {line.changes.map((change, i) => (
                  <li key={i}>{change}</li>
                ))}
              </ul>
            )}
            {line.notes.map((note, i) => (
              <em key={i}>{note}</em>
            ))}
            {line.byHand && (
              <Checkbox
                size="xs"
                label="The weeks after it go on from what you changed"
                checked={following[line.session ?? ''] ?? line.followed}
                onChange={(event) => {
                  if (!line.session) return
                  setFollowing({ ...following, [line.session]: event.currentTarget.checked })
                  onFollow(line.session, event.currentTarget.checked)
                }}
              />
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}
