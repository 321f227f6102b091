import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { FamilyMark } from '../../ui/FamilyMark'
import { Thumb } from '../../ui/FigureView'
import css from './Stage.module.css'

type Card = Schemas['StationCard']
type Picture = Schemas['OptionPicture']

export const usePictures = (session: string) =>
  useQuery({
    queryKey: ['lead-figures', session],
    queryFn: () => answer(api.GET('/api/wall/{id}/figures', { params: { path: { id: session } } })),
    staleTime: Infinity,
    gcTime: Infinity,
  }).data

/** The drawing of an option in the part and on the side that a card shows, or else as near to it as there is one. */
export function pictureOf(
  pictures: Picture[] | undefined,
  option: string | null | undefined,
  { part, side }: Pick<Card, 'part' | 'side'>,
): Schemas['Figure'] | undefined {
  const drawn = pictures?.filter((p) => p.option === option) ?? []
  const of = (at: number | null, works: Schemas['Side']) =>
    drawn.find((p) => (p.part ?? null) === at && p.side === works)
  const on = side ?? 'both'
  return (of(part ?? null, on) ?? of(part ?? null, 'both') ?? of(null, on) ?? of(null, 'both'))?.figure
}

/** Every station at once, as in a rotation: its figure, its name and how much of it. */
export function StationCards({ cards, session }: { cards: Card[]; session: string }) {
  const pictures = usePictures(session)
  return (
    <section className={css.cardGrid} aria-label="All stations">
      {cards.map((card, i) => (
        <article key={card.id ?? card.name} className={css.card}>
          <Pose figure={pictureOf(pictures, card.option, card)} />
          <div>
            <h2 className={css.cardName}>
              <span className={css.number}>{i + 1}</span>
              <FamilyMark family={card.family} size={18} />
              {card.name}
            </h2>
            <p className={css.cardTarget}>{card.target}</p>
          </div>
        </article>
      ))}
    </section>
  )
}

/** What it looks like. */
export function Pose({ figure }: { figure?: Schemas['Figure'] }) {
  return figure ? (
    <span className={css.still}>
      <Thumb figure={figure} />
    </span>
  ) : null
}
