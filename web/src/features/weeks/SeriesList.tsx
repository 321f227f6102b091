import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import { answer, api } from '../../api/client'
import css from './Weeks.module.css'

/** Series of classes: each carried through some weeks. */
export function SeriesList() {
  const navigate = useNavigate()
  const list = useQuery({ queryKey: ['series'], queryFn: () => answer(api.GET('/api/series')) }).data ?? []
  return (
    <section aria-labelledby="series" className={css.series}>
      <h2 id="series">Series</h2>
      <p className={css.soft}>
        A series carries one class, or two by turns, through some weeks: each a little harder than the one before, with
        light weeks between.
      </p>
      <ul>
        {list.map((series) => (
          <li key={series.id}>
            <Link to={`/weeks/series/${series.id}`}>{series.name}</Link> from{' '}
            {new Date(`${series.firstDay}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })},{' '}
            {series.weeks} weeks;{' '}
            {series.made === 0 ? 'not in the calendar yet' : `${series.made} classes in the calendar`}
          </li>
        ))}
      </ul>
      <Button onClick={() => void navigate('/weeks/series/new')} data-screen-only>
        New series
      </Button>
    </section>
  )
}
