import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { FamilyMark } from '../../ui/FamilyMark'
import { dayAndTime } from '../../ui/time'
import css from './Progress.module.css'

type Progress = Schemas['PersonProgress']
type MoveProgress = Progress['moves'][number]

/** What somebody came to, how it went, and what is suggested next: for the instructor. */
export function PersonHistory({ person }: { person: string }) {
  const query = useQuery({
    queryKey: ['progress', person],
    queryFn: () => answer(api.GET('/api/people/{id}/progress', { params: { path: { id: person } } })),
  })
  if (query.isError) return <p role="alert">This history cannot be fetched. {troubleWords(query.error)}</p>
  if (!query.data) return <p>Opening the history …</p>
  const { classes, moves, weeks } = query.data
  if (classes.length === 0) return <p className={css.soft}>Nothing is logged of them yet.</p>
  return (
    <>
      <section aria-labelledby="came">
        <h2 id="came">What they came to</h2>
        <table className={css.classes}>
          <thead>
            <tr>
              <th scope="col">Class</th>
              <th scope="col">Effort</th>
              <th scope="col">Load</th>
              <th scope="col">Noted</th>
            </tr>
          </thead>
          <tbody>
            {classes.slice(0, 12).map((c) => (
              <tr key={c.session} data-came={c.row.came}>
                <th scope="row">
                  <Link to={`/classes/${c.class}/on/${c.session}/log`}>{dayAndTime(c.startsAt)}</Link>
                  <small>{c.title}</small>
                </th>
                <td>{c.row.came ? (c.row.effort ?? '–') : 'did not come'}</td>
                <td>{c.load == null ? '–' : Math.round(c.load)}</td>
                <td>
                  {[c.row.pain && `pain${c.row.pain.where ? `: ${c.row.pain.where}` : ''}`, c.row.note, c.row.wishes]
                    .filter(Boolean)
                    .join('; ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <WeekBars weeks={weeks} />
        <p className={css.soft}>
          Load is effort times minutes (Foster and others, 2001, from memory). It compares somebody with themselves from
          week to week; it says nothing about two different people.
        </p>
      </section>
      <section aria-labelledby="moves">
        <h2 id="moves">Moves, and what comes next</h2>
        <div className={css.moves}>
          {moves.map((move) => (
            <MoveLine key={move.move} move={move} />
          ))}
        </div>
        <p className={css.soft}>
          A best set is an estimate from 1–12 reps by two formulas (Epley 1985; Brzycki 1993; from memory). Nobody need
          try it.
        </p>
      </section>
    </>
  )
}

/** Loads by week, with what is hard about a week beside it. */
function WeekBars({ weeks }: { weeks: Progress['weeks'] }) {
  const most = Math.max(1, ...weeks.map((w) => w.load.sum))
  return (
    <ol className={css.weeks} aria-label="Load by week" tabIndex={0}>
      {weeks.map((week) => (
        <li key={week.start}>
          <span
            className={css.weekBar}
            style={{ height: `${Math.round((80 * week.load.sum) / most)}px` }}
            aria-hidden
          />
          <b>{Math.round(week.load.sum)}</b>
          <small>
            {shortDay(week.start)}
            {Object.entries(week.hardSets).map(([family, sets]) => (
              <span key={family}>
                <FamilyMark family={family as MoveProgress['family']} size={12} /> {sets}
              </span>
            ))}
          </small>
        </li>
      ))}
    </ol>
  )
}

const shortDay = (day: string) =>
  new Date(`${day}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })

function MoveLine({ move }: { move: MoveProgress }) {
  const last = move.points.at(-1)!
  return (
    <article className={css.move}>
      <h3>
        <FamilyMark family={move.family} size={16} /> {move.name}
      </h3>
      <Chart move={move} />
      <p>
        Last {shortDay(last.date)}: {last.words}, {last.done}
        {move.timed ? ' s' : ''} of {last.target}
        {last.kg != null && `, ${last.kg} kg`}
        {last.pain != null && `, pain${last.pain ? `: ${last.pain}` : ''}`}
        {last.volume != null && `; ${Math.round(last.volume)} kg moved in all`}
      </p>
      {move.best && (
        <p className={css.soft}>
          Best set {move.best.reps} with {move.best.kg} kg: about {move.best.epley} or {move.best.brzycki} kg once,
          estimated.
        </p>
      )}
      {move.next && (
        <p className={css.next}>
          <b>{nextWords[move.next.action]}</b> {move.next.reason}
        </p>
      )}
    </article>
  )
}

const nextWords: Record<NonNullable<MoveProgress['next']>['action'], string> = {
  start: 'Begin:',
  leave: 'Leave it:',
  easier: 'Easier:',
  restart: 'Begin again:',
  down: 'Less:',
  up: 'Move on:',
  stay: 'Stay:',
}

/** Done against asked, class by class: a line of what was asked, dots of what was done. */
function Chart({ move }: { move: MoveProgress }) {
  const points = move.points.slice(-12)
  const most = Math.max(...points.flatMap((p) => [p.done, p.target]), 1)
  const [width, height] = [220, 64]
  const x = (i: number) => 10 + (points.length === 1 ? 0 : (i * (width - 20)) / (points.length - 1))
  const y = (amount: number) => height - 6 - (amount * (height - 16)) / most
  const words = points
    .map((p) => `${shortDay(p.date)}: ${p.done} of ${p.target}${p.kg == null ? '' : ` with ${p.kg} kg`}`)
    .join('; ')
  return (
    <svg className={css.chart} viewBox={`0 0 ${width} ${height}`} role="img" aria-label={words}>
      <polyline points={points.map((p, i) => `${x(i)},${y(p.target)}`).join(' ')} className={css.asked} />
      {points.map((p, i) => (
        <g key={i}>
          <circle cx={x(i)} cy={y(p.done)} r={4} data-tier={p.tier} className={p.pain == null ? css.dot : css.hurt} />
          {p.kg != null && p.kg !== points[i - 1]?.kg && (
            <text x={x(i)} y={10} textAnchor="middle" className={css.kg}>
              {p.kg} kg
            </text>
          )}
        </g>
      ))}
    </svg>
  )
}
