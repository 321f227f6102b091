import { Button } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useLocation, useNavigate } from 'react-router'
import { answer, api, troubleWords } from '../../api/client'
import { UndoBar } from '../../ui/UndoBar'
import { many } from '../../ui/words'
import css from './Weeks.module.css'

/** Series of classes: each carried through some weeks. */
export function SeriesList() {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const removed = (useLocation().state as { removed?: { id: string; name: string } } | null)?.removed
  const [trouble, setTrouble] = useState('')
  async function bringBack(id: string) {
    setTrouble('')
    try {
      await answer(api.POST('/api/series/{id}/restore', { params: { path: { id } } }))
      await queries.invalidateQueries({ queryKey: ['series'] })
      void navigate('/weeks', { replace: true, state: null })
    } catch (error) {
      setTrouble(`The series could not be brought back. ${troubleWords(error)}`)
    }
  }
  const series = useQuery({ queryKey: ['series'], queryFn: () => answer(api.GET('/api/series')) })
  return (
    <section aria-labelledby="series" className={css.series}>
      <h2 id="series">Series</h2>
      <p className={css.soft}>
        A series carries one class, or two by turns, through some weeks: each a little harder than the one before, with
        light weeks between.
      </p>
      {series.isError && <p role="alert">The series could not be loaded. {troubleWords(series.error)}</p>}
      <ul>
        {(series.data ?? []).map((series) => (
          <li key={series.id}>
            <Link to={`/weeks/series/${series.id}`}>{series.name}</Link> from{' '}
            {new Date(`${series.firstDay}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })},{' '}
            {many(series.weeks, 'week', 'weeks')};{' '}
            {series.made === 0 ? 'not in the calendar yet' : `${many(series.made, 'class', 'classes')} in the calendar`}
          </li>
        ))}
      </ul>
      {removed && (
        <UndoBar
          words={`“${removed.name}” was removed. Its classes stay.`}
          onUndo={() => void bringBack(removed.id)}
          // What failed is not put away: it can be tried once more.
          onGone={() => trouble === '' && void navigate('/weeks', { replace: true, state: null })}
        />
      )}
      {trouble && <p role="alert">{trouble}</p>}
      <Button onClick={() => void navigate('/weeks/series/new')} data-screen-only>
        New series
      </Button>
    </section>
  )
}
