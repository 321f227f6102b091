import type { Schemas } from '../../api/client'
import { Thumb } from '../../ui/FigureView'
import css from './Cards.module.css'

/** What to show before the class: from which side, in which order, with which fault. */
export function WalkThrough({ cards }: { cards: Schemas['ClassCards'] }) {
  return (
    <article className={css.sheet} aria-label="Walk-through">
      <header className={css.head}>
        <h2>{cards.title}: walk-through</h2>
        <p>{cards.walkThroughTakes} in total</p>
      </header>
      <table className={css.lines}>
        <thead>
          <tr>
            <th aria-label="Figure" />
            <th>Show</th>
            <th>Seen from</th>
            <th>In this order</th>
            <th>Fault to show</th>
            <th>Time</th>
          </tr>
        </thead>
        <tbody>
          {cards.walkThrough.map((line) => (
            <tr key={line.name}>
              <td className={css.small}>{line.figure && <Thumb figure={line.figure} />}</td>
              <th scope="row">{line.name}</th>
              <td>{line.view}</td>
              <td>{line.show}</td>
              <td>{line.fault}</td>
              <td>{line.seconds} s</td>
            </tr>
          ))}
        </tbody>
      </table>
    </article>
  )
}
