import { Button, Checkbox, Loader } from '@mantine/core'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { change as keepChange, idOf, revisionSeen } from '../../save/documents'
import { ErrorNote } from '../../ui/ErrorNote'
import { useClassEditor } from '../editor/context'
import css from './Checks.module.css'
import { Findings } from './Findings'

/** One page before the class: whether it is ready, what is still open, what to show, what to put out. For the instructor's eyes. */
export function ReadyPage() {
  const { plan, session, booking, flush } = useClassEditor()
  const id = session?.id ?? ''
  // A sheet that lies about is read by others: care is printed where it is asked for.
  const [withCare, setWithCare] = useState(false)
  const [ticked, setTicked] = useState<Record<string, { done: boolean; saver: { clean: boolean } }>>({})
  const ready = useQuery({
    queryKey: ['ready', id, plan, booking],
    queryFn: async () => {
      await flush()
      return answer(api.POST('/api/sessions/{id}/ready', { params: { path: { id } }, body: { class: plan } }))
    },
    enabled: id !== '',
    placeholderData: keepPreviousData,
    retry: false,
  })

  if (!session)
    return (
      <ErrorNote title="This class has no date yet, so there is nothing to get ready for.">
        <Link to="../brief" relative="path">
          Add a date in the brief
        </Link>
      </ErrorNote>
    )
  if (ready.isPending) return <Loader m="xl" aria-label="Checking everything" />
  if (ready.isError)
    return (
      <ErrorNote title={`The class could not be checked. ${troubleWords(ready.error)}`}>
        <Button variant="default" onClick={() => void ready.refetch()}>
          Check again
        </Button>
      </ErrorNote>
    )
  const view = ready.data

  /** As it was ticked here until what is fetched after that is there: a press shows at once, whatever is still on its way. */
  const isDone = ({ key, done }: Schemas['SetUpItem']) => {
    const mine = ticked[key]
    return mine && (!mine.saver.clean || ready.isFetching) ? mine.done : done
  }

  function tick({ key }: Schemas['SetUpItem'], done: boolean) {
    const saver = keepChange('ticked', idOf(id, key), !done, revisionSeen('ticked', id), done)
    setTicked((all) => ({ ...all, [key]: { done, saver } }))
  }

  return (
    <main className={css.page}>
      <div className={css.wide}>
        <p className={css.says} role="status">
          <span data-ready={view.ready} data-sure={view.sure} data-testid="ready">
            {view.says}
          </span>
          <Button variant="default" data-screen-only onClick={() => window.print()}>
            Print this page
          </Button>
          <span data-screen-only>
            <Checkbox
              label="with care notes"
              checked={withCare}
              onChange={(event) => setWithCare(event.currentTarget.checked)}
            />
          </span>
          {view.ready && (
            <Button component={Link} to="../lead" relative="path" data-screen-only>
              Lead this class
            </Button>
          )}
        </p>
        <p>{view.inOneLine}</p>
      </div>
      <section aria-labelledby="stands">
        <h2 id="stands">At a glance</h2>
        <dl className={css.lines}>
          {view.lines.map((line) => (
            <div key={line.of}>
              <dt>{line.of}</dt>
              <dd data-standing={line.standing}>
                {marks[line.standing]} {line.words}{' '}
                {line.standing !== 'well' && (
                  <Link to={`../${line.to}`} relative="path" data-screen-only>
                    Fix this
                  </Link>
                )}
              </dd>
            </div>
          ))}
        </dl>
      </section>
      <section className={css.wide} aria-labelledby="open">
        <h2 id="open">Still open</h2>
        <Findings whole />
        {view.off.length > 0 && (
          <ul className={css.plain}>
            {view.off.map((words) => (
              <li key={words} className={css.soft}>
                {words}
              </li>
            ))}
          </ul>
        )}
      </section>
      <section aria-labelledby="setup">
        <h2 id="setup">Setting up the room</h2>
        {view.setUp.length === 0 && <p className={css.soft}>Nothing to put out.</p>}
        <div className={css.ticks}>
          {view.setUp.map((place) => (
            <div key={place.place} className={css.ticks} role="group" aria-label={place.place}>
              <h3>{place.place}</h3>
              {place.items.map((item) => (
                <Checkbox
                  size="md"
                  key={item.key}
                  label={item.words}
                  checked={isDone(item)}
                  onChange={(event) => tick(item, event.currentTarget.checked)}
                />
              ))}
            </div>
          ))}
        </div>
      </section>
      <section aria-labelledby="show">
        <h2 id="show">What to show · {view.showsTake} in total</h2>
        <ol className={css.shows}>
          {view.shows.map((show, i) => (
            <li key={i}>
              <strong>{show.name}</strong>, {show.view}, {show.takes}
              {show.helper && `, shown by ${show.helper}`}: {show.show}.
              {show.fault && ` Show this fault: ${show.fault}`}
            </li>
          ))}
        </ol>
      </section>
      <section aria-labelledby="care" data-screen-only={withCare ? undefined : true}>
        <h2 id="care">Care notes and cautions</h2>
        {view.care.length === 0 ? (
          <p className={css.soft}>Nobody expected has a care note.</p>
        ) : (
          <dl className={css.lines}>
            {view.care.map((care) => (
              <div key={care.called}>
                <dt>{care.called}</dt>
                <dd>{care.words}</dd>
              </div>
            ))}
          </dl>
        )}
        <ul className={css.plain}>
          {view.cautions.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      </section>
    </main>
  )
}

/** Said in a sign too, for who does not see the colour. */
const marks: Record<Schemas['ReadyView']['lines'][number]['standing'], string> = {
  well: '✓',
  toMend: '✗',
  notKnown: '?',
  unplanned: '–',
}
