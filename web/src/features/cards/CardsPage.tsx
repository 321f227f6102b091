import '@mantine/core/styles/Tabs.css'
import { Anchor, Button, Checkbox, Loader, Tabs } from '@mantine/core'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, Refused, troubleWords } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import { Thumb } from '../../ui/FigureView'
import { MoreMenu } from '../../ui/MoreMenu'
import { NumberField } from '../../ui/NumberField'
import { useClassEditor } from '../editor/context'
import css from './Cards.module.css'
import { PlaceCards } from './PlaceCards'
import { Preview } from './Preview'
import { TakeAway } from './TakeAway'
import { WalkThrough } from './WalkThrough'

const sheets = [
  { value: 'run', label: 'Run sheet' },
  { value: 'stations', label: 'Station cards' },
  { value: 'walk', label: 'Walk-through' },
  { value: 'home', label: 'Take-home sheet' },
  { value: 'ahead', label: 'Send-ahead sheet' },
] as const

type Kind = (typeof sheets)[number]['value']

/** What goes with the instructor and what lies at the stations: to print, and files for a phone without the app. */
export function CardsPage() {
  const { id, plan, booking, session, flush } = useClassEditor()
  const on = session?.id
  const [kind, setKind] = useState<Kind>('run')
  const [without, setWithout] = useState<string[]>([])
  // Left empty: the shortest and the tallest of the roster, as far as they are told.
  const [shortest, setShortest] = useState<number | undefined>()
  const [tallest, setTallest] = useState<number | undefined>()
  const sheet = useQuery({
    queryKey: ['run-sheet', id, on],
    gcTime: 0,
    enabled: plan.blocks.length > 0,
    queryFn: async () => {
      await flush()
      return answer(api.GET('/api/classes/{id}/run-sheet', { params: { path: { id }, query: { session: on } } }))
    },
  })
  const cards = useQuery({
    queryKey: ['cards', id, shortest, tallest],
    gcTime: 0,
    enabled: plan.blocks.length > 0 && kind !== 'run' && (shortest ?? 0) <= (tallest ?? 300),
    placeholderData: keepPreviousData,
    queryFn: async () => {
      await flush()
      return answer(api.GET('/api/classes/{id}/cards', { params: { path: { id }, query: { shortest, tallest } } }))
    },
  })
  if (plan.blocks.length === 0) {
    return (
      <p className={css.page}>
        Nothing to print yet. Once you have stations, you get a run sheet, a card for each station, a walk-through list,
        a take-home sheet and a sheet to send ahead.{' '}
        <Link to="../build" relative="path">
          Start on Build
        </Link>
      </p>
    )
  }
  if (sheet.isPending) return <Loader m="xl" aria-label="Preparing the run sheet" />
  if (sheet.isError) {
    const faulty = sheet.error instanceof Refused && sheet.error.status === 422
    return (
      <ErrorNote
        title={
          faulty
            ? 'Some entries need putting right before this can be printed.'
            : `The sheets could not be prepared. ${troubleWords(sheet.error)}`
        }
      >
        {faulty ? (
          <Anchor component={Link} to="../build" relative="path">
            Fix them on Build
          </Anchor>
        ) : (
          <Anchor component="button" onClick={() => void sheet.refetch()}>
            Try again
          </Anchor>
        )}
      </ErrorNote>
    )
  }
  const file = (name: string) => `/api/classes/${id}/${name}${on ? `?session=${on}` : ''}`
  const files = [
    ...(booking.startsAt && on ? [{ words: 'Calendar entry', file: `/api/sessions/${on}/calendar.ics` }] : []),
    { words: 'Timeline (spreadsheet)', file: file('timeline.csv') },
    { words: 'Spoken calls (captions)', file: file('cues.vtt') },
    { words: 'Offline page that leads this class', file: file('lead.html') },
    { words: 'Bells and counts (audio)', file: file('bells.wav') },
    { words: 'Class file', file: `/api/classes/${id}/file` },
  ]
  const blocks = [...new Set((cards.data?.stations ?? []).map((card) => card.block))]
  return (
    <main className={css.page}>
      <div className={css.tools} data-screen-only>
        <Tabs value={kind} onChange={(value) => value && setKind(value as Kind)} color="var(--tape-edge)">
          <Tabs.List aria-label="What to print">
            {sheets.map((sheet) => (
              <Tabs.Tab key={sheet.value} value={sheet.value}>
                {sheet.label}
              </Tabs.Tab>
            ))}
          </Tabs.List>
        </Tabs>
        <Button onClick={() => window.print()}>Print</Button>
        <MoreMenu shown="Export" about="this class" items={files} />
        {kind === 'stations' && (
          <span className={css.statures}>
            <NumberField
              label="Set up for people from"
              placeholder="as your people"
              width={130}
              suffix=" cm"
              min={100}
              max={tallest ?? 230}
              value={shortest}
              onChange={setShortest}
            />
            <NumberField
              label="to"
              placeholder="as your people"
              width={130}
              suffix=" cm"
              min={shortest ?? 100}
              max={230}
              value={tallest}
              onChange={setTallest}
            />
          </span>
        )}
      </div>
      {kind === 'run' && <Sheet sheet={sheet.data} />}
      {kind !== 'run' && !cards.data && <Loader m="xl" aria-label="Preparing the cards" />}
      {kind === 'stations' && blocks.length > 1 && (
        <fieldset className={css.blocks} data-screen-only>
          <legend>Cards for</legend>
          {blocks.map((block) => (
            <Checkbox
              key={block}
              size="xs"
              label={block}
              checked={!without.includes(block)}
              onChange={() =>
                setWithout((all) => (all.includes(block) ? all.filter((b) => b !== block) : [...all, block]))
              }
            />
          ))}
        </fieldset>
      )}
      {kind === 'stations' && cards.data && <PlaceCards cards={cards.data} without={without} />}
      {kind === 'walk' && cards.data && <WalkThrough cards={cards.data} />}
      {kind === 'home' && cards.data && <TakeAway cards={cards.data} />}
      {kind === 'ahead' && cards.data && <Preview cards={cards.data} booked={sheet.data.booked} />}
    </main>
  )
}

/** One page, A4 or Letter, to be read at arm's length. */
function Sheet({ sheet }: { sheet: Schemas['RunSheet'] }) {
  return (
    <article className={css.sheet} data-density={sheet.density} aria-label="Run sheet">
      <header className={css.head}>
        <h2>{sheet.title}</h2>
        <p>
          {sheet.booked}
          <br />
          ends {sheet.ends}
        </p>
      </header>
      {sheet.notes && <p className={css.notes}>{sheet.notes}</p>}
      {sheet.focus && <p className={css.notes}>Cue of the day: {sheet.focus}</p>}
      {sheet.bring && <p className={css.notes}>Bring or wear: {sheet.bring}</p>}
      {sheet.blocks.map((block) => (
        <section key={block.id} className={css.block}>
          <h3>
            <span className={css.time}>{block.at}</span> {block.name} <small>{block.length}</small>
          </h3>
          {block.words && <p className={css.words}>{block.words}</p>}
          {block.lines.map((line, i) => (
            <p key={i} className={css.words}>
              {line}
            </p>
          ))}
          {block.stations.length > 0 && (
            <ol className={css.stations}>
              {block.stations.map((station) => (
                <li key={station.id}>
                  <div className={css.figured}>
                    {station.figure ? <Thumb figure={station.figure} /> : <span />}
                    <div>
                      <b>{station.name}</b> <span className={css.target}>{station.target}</span>
                      {station.main !== station.name && <span className={css.options}>{station.main}</span>}
                      {station.begins && <span className={css.options}>starts here: {station.begins}</span>}
                      {station.lies && <span className={css.options}>put out: {station.lies}</span>}
                      <span className={css.options}>
                        {station.harder.length > 0 && (
                          <span>
                            <i>harder</i> {station.harder.join('; ')}
                          </span>
                        )}
                        {station.easier.length > 0 && (
                          <span>
                            <i>easier</i> {station.easier.join('; ')}
                          </span>
                        )}
                        {station.instead.length > 0 && (
                          <span>
                            <i>alternative</i> {station.instead.join('; ')}
                          </span>
                        )}
                      </span>
                    </div>
                  </div>
                </li>
              ))}
            </ol>
          )}
        </section>
      ))}
    </article>
  )
}
