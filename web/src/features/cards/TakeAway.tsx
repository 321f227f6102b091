import type { Schemas } from '../../api/client'
import { Thumb } from '../../ui/FigureView'
import css from './Cards.module.css'

/** What people take home: today's moves, some stretches, and the usual cautions. */
export function TakeAway({ cards }: { cards: Schemas['ClassCards'] }) {
  const list = (moves: Schemas['ClassCards']['takeAway']) => (
    <ul className={css.home}>
      {moves.map((move, i) => (
        <li key={i}>
          <figure>{move.figure && <Thumb figure={move.figure} />}</figure>
          <p>
            <b>{move.name}</b> {move.target}
            <br />
            {move.how}
          </p>
        </li>
      ))}
    </ul>
  )
  return (
    <article className={css.sheet} aria-label="Take-home sheet" data-density="normal">
      <header className={css.head}>
        <h2>{cards.title}</h2>
        <p>Take-home sheet</p>
      </header>
      <h3>Today</h3>
      {list(cards.takeAway)}
      <h3>Stretches for afterwards</h3>
      {list(cards.stretches)}
      <p className={css.notes}>{cards.cautions}</p>
    </article>
  )
}
