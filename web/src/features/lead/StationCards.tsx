import type { Schemas } from '../../api/client'
import { FamilyMark } from '../../ui/FamilyMark'
import css from './Stage.module.css'

type Card = Schemas['StationCard']

/** The options of what is on now: harder above the main one, easier below. In a rotation, of every station. */
export function StationCards({ cards }: { cards: Card[] }) {
  const many = cards.length > 1
  return (
    <section className={many ? css.cardGrid : css.oneCard} aria-label={many ? 'All stations' : 'Options'}>
      {cards.map((card, i) => (
        <article key={card.id ?? card.name} className={css.card}>
          {many && (
            <h2 className={css.cardName}>
              <span className={css.number}>{i + 1}</span>
              <FamilyMark family={card.family} size={18} />
              <span className={css.cardTitle}>{card.name}</span>
              <span className={css.cardTarget}>{card.target}</span>
            </h2>
          )}
          <dl className={css.ways}>
            {card.harder.length > 0 && (
              <div>
                <dt>harder</dt>
                <dd>{card.harder.join(' · ')}</dd>
              </div>
            )}
            <div className={css.mainWay}>
              <dt>main</dt>
              <dd>{card.main}</dd>
            </div>
            {card.easier.length > 0 && (
              <div>
                <dt>easier</dt>
                <dd>{card.easier.join(' · ')}</dd>
              </div>
            )}
          </dl>
          {!many && card.watch && (
            <p className={css.watch}>
              <b>Watch:</b> {card.watch}
            </p>
          )}
        </article>
      ))}
    </section>
  )
}
