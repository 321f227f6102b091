import type { Schemas } from '../../api/client'
import { FamilyMark } from '../../ui/FamilyMark'
import { FigureView, FootMap } from '../../ui/FigureView'
import css from './Cards.module.css'
import { tierWord } from '../../ui/words'

/** A card for each station, one a page: figure, three options, target, cue, set-up. */
export function PlaceCards({ cards, without }: { cards: Schemas['ClassCards']; without: string[] }) {
  if (cards.stations.length === 0) return <p>No stations yet.</p>
  const shown = cards.stations.filter((card) => !without.includes(card.block))
  if (shown.length === 0) return <p>No block is chosen.</p>
  return (
    <div>
      {shown.map((card, i) => (
        <article key={i} className={css.card} aria-label={`Card: ${card.name}`}>
          <header className={css.cardHead}>
            <b className={css.cardNumber}>{card.number}</b>
            <h2>
              <FamilyMark family={card.family} size={32} /> {card.name}
            </h2>
            <span>
              {card.block} · {card.place}
            </span>
          </header>
          <p className={css.cardTarget}>{card.target}</p>
          <ul className={css.cardOptions}>
            {card.options.map((option, o) => (
              <li key={o} data-tier={option.tier}>
                {option.figure ? (
                  <div className={css.cardFigure}>
                    <FigureView figure={option.figure} measures={option.tier === 'main' ? card.measures : undefined} />
                    {option.tier === 'main' && option.figure.map && <FootMap map={option.figure.map} />}
                  </div>
                ) : (
                  <span />
                )}
                <strong>{tierWord(option.tier)}</strong>
                <span>{option.words}</span>
              </li>
            ))}
          </ul>
          <p className={css.cardCue}>{card.cue}</p>
          {card.setUp.length > 0 && (
            <ul className={css.cardSetUp}>
              {card.setUp.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          )}
        </article>
      ))}
    </div>
  )
}
