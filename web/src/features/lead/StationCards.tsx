import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { FamilyMark } from '../../ui/FamilyMark'
import { FilmView, Thumb } from '../../ui/FigureView'
import { useReducedMotion } from '@mantine/hooks'
import { useFilms } from '../../leading/useBeat'
import type { Lead } from '../../leading/useLead'
import { useSceneClock } from '../../leading/useSceneClock'
import css from './Stage.module.css'

type Card = Schemas['StationCard']

/** The options of what is on now: harder above the main one, easier below. In a rotation, of every station. */
export function StationCards({ cards, lead, moving }: { cards: Card[]; lead: Lead; moving: boolean }) {
  const { session } = lead
  const many = cards.length > 1
  const pictures = useQuery({
    queryKey: ['lead-figures', session],
    queryFn: () => answer(api.GET('/api/wall/{id}/figures', { params: { path: { id: session } } })),
    staleTime: Infinity,
    gcTime: Infinity,
  }).data
  const still = useReducedMotion()
  const films = useFilms(session).data
  const clock = useSceneClock(lead)
  const film = (card: Card) => (many || !moving || still ? undefined : films?.find((f) => f.station === card.id)?.film)
  const of = (card: Card, tier: Schemas['Tier']) =>
    pictures?.find((picture) => picture.station === card.id && picture.tier === tier)?.figure
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
                <dd>
                  <Pose figure={of(card, 'harder')} />
                  {card.harder.join(' · ')}
                </dd>
              </div>
            )}
            <div className={css.mainWay}>
              <dt>main</dt>
              <dd>
                {film(card) ? (
                  <span className={css.pose} data-moving="true">
                    <FilmView film={film(card)!} alt="" clock={clock} />
                  </span>
                ) : (
                  <Pose figure={of(card, 'main')} />
                )}
                {card.main}
              </dd>
            </div>
            {card.easier.length > 0 && (
              <div>
                <dt>easier</dt>
                <dd>
                  <Pose figure={of(card, 'easier')} />
                  {card.easier.join(' · ')}
                </dd>
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

/** What it looks like, above its words. */
function Pose({ figure }: { figure?: Schemas['Figure'] }) {
  return figure ? (
    <span className={css.pose}>
      <Thumb figure={figure} />
    </span>
  ) : null
}
