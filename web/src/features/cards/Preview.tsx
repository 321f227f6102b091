import type { Schemas } from '../../api/client'
import { Thumb } from '../../ui/FigureView'
import css from './Cards.module.css'
import { tierWord } from '../../ui/words'

/** What goes out beforehand: what the class is, what to bring, and every move with what is easier and harder. */
export function Preview({ cards, booked }: { cards: Schemas['ClassCards']; booked: string }) {
  const seen = new Set<string>()
  const once = cards.stations.filter((card) => !seen.has(card.name) && seen.add(card.name))
  return (
    <article className={css.sheet} aria-label="Send-ahead sheet" data-density="normal">
      <header className={css.head}>
        <h2>{cards.title}</h2>
        <p>{booked}</p>
      </header>
      {cards.announcement && <p className={css.notes}>{cards.announcement}</p>}
      <p className={css.notes}>
        {cards.bring ? `Please bring or wear: ${cards.bring}. ` : ''}
        {cards.kit.length > 0 ? `We use: ${cards.kit.join(', ')}.` : 'No kit needed.'}
      </p>
      <ul className={css.ahead}>
        {once.map((card) => (
          <li key={card.name}>
            <b>{card.name}</b>
            <div>
              {card.options.map((option, i) => (
                <figure key={i} data-tier={option.tier}>
                  {option.figure && <Thumb figure={option.figure} />}
                  <figcaption>
                    <i>{tierWord(option.tier)}</i> {option.words}
                  </figcaption>
                </figure>
              ))}
            </div>
          </li>
        ))}
      </ul>
      <p className={css.notes}>{cards.cautions}</p>
    </article>
  )
}
