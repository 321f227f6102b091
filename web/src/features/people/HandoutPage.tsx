import { Button, Loader } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import { Page } from '../../ui/Page'
import { dayAndTime } from '../../ui/time'
import css from './Progress.module.css'

/** A sheet for a participant: what they did last, and what comes next, move by move. Nothing of care stands on it. */
export function HandoutPage() {
  const { person: id = '' } = useParams()
  const person = useQuery({
    queryKey: ['person', id],
    queryFn: () => answer(api.GET('/api/people/{id}', { params: { path: { id } } })),
  })
  const progress = useQuery({
    queryKey: ['progress', id],
    queryFn: () => answer(api.GET('/api/people/{id}/progress', { params: { path: { id } } })),
  })
  if (person.isError || progress.isError)
    return (
      <Page name="Sheet" narrow>
        <ErrorNote title={`This sheet cannot be made. ${troubleWords(person.error ?? progress.error)}`} />
      </Page>
    )
  if (!person.data || !progress.data)
    return (
      <Page name="Sheet" narrow>
        <Loader aria-label="Opening" />
      </Page>
    )
  const last = progress.data.classes.find((c) => c.row.came)
  // A sheet may lie about: what hurt is between two people.
  const moves = progress.data.moves.filter((m) => m.points.at(-1)?.pain == null)
  return (
    <Page name="Sheet" narrow>
      <p data-screen-only>
        <Link to={`/people/${id}`}>Back to {person.data.name}</Link>{' '}
        <Button size="xs" onClick={() => window.print()}>
          Print
        </Button>
      </p>
      <div className={css.handout}>
        <h1>{person.data.nick ?? person.data.name}</h1>
        {last && (
          <p>
            {last.title}, {dayAndTime(last.startsAt)}
          </p>
        )}
        {moves.length === 0 && <p>Nothing to hand out yet: it fills once a class is logged.</p>}
        <table className={css.classes}>
          <thead>
            <tr>
              <th scope="col">Move</th>
              <th scope="col">Last time</th>
              <th scope="col">Next time</th>
            </tr>
          </thead>
          <tbody>
            {moves.map((move) => (
              <tr key={move.move}>
                <th scope="row">{move.name}</th>
                <td>{lastWords(move)}</td>
                <td>{move.next ? nextWords(move.next) : ''}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <h2>At home</h2>
        <p>
          After class, or on a day between: a calf stretch at the wall, a half-kneeling hip stretch, a seated figure
          four. Half a minute a side, gently, only as far as it is pleasant. Leave out what hurts.
        </p>
      </div>
    </Page>
  )
}

function lastWords(move: Schemas['MoveProgress']) {
  const last = move.points.at(-1)!
  return `${last.done}${move.timed ? ' s' : ''}${last.kg == null ? '' : ` with ${last.kg} kg`}`
}

function nextWords(next: NonNullable<Schemas['MoveProgress']['next']>) {
  const amount = next.target.reps != null ? `${next.target.reps}` : `${next.target.seconds ?? 0} s`
  return next.kg == null ? amount : `${amount} with ${next.kg} kg`
}
