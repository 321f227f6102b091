import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { Thumb } from '../../ui/FigureView'
import { pictureOf, usePictures } from '../lead/StationCards'
import css from './Wall.module.css'

interface Props {
  session: string
  cards: Schemas['StationCard'][]
  scene: Schemas['Scene']
}

/** Room between what stands at the edge and the edge, in shares of the floor. */
const EDGE = 0.14
/** A figure with its name is that much taller than wide. */
const EDGE_BELOW = 0.18

/**
 * The direction in which each station stands, seen from the middle of the room; moved apart evenly, so that every figure can be seen.
 * Without a floor: round the clock, from the top.
 */
function order(cards: Schemas['StationCard'][], floor: Schemas['WallFloor'] | undefined): number[] {
  const step = (2 * Math.PI) / cards.length
  const spots = cards.map((card) => floor?.spots.find((spot) => spot.station === card.id))
  if (spots.some((spot) => !spot)) return cards.map((_, i) => i * step - Math.PI / 2)
  const middle = (of: 'x' | 'y') => spots.reduce((sum, spot) => sum + spot![of], 0) / spots.length
  const [x, y] = [middle('x'), middle('y')]
  const turns = spots.map((spot) => Math.atan2(spot!.y - y, spot!.x - x))
  const sorted = turns.map((_, i) => i).sort((a, b) => turns[a]! - turns[b]!)
  const start = turns[sorted[0]!]!
  const even: number[] = []
  sorted.forEach((card, place) => (even[card] = start + place * step))
  return even
}

/** All stations where they stand in the room, and the way round. */
export function WallFloor({ session, cards, scene }: Props) {
  const wall = useQuery({
    queryKey: ['wall', session],
    queryFn: () => answer(api.GET('/api/wall/{id}', { params: { path: { id: session } } })),
    staleTime: Infinity,
  }).data
  const figures = usePictures(session)
  const floor = wall?.floors.find((f) => f.block === scene.blockId)
  const round = order(cards, floor)
  const places = cards.map((card, i) => {
    const turn = round[i]!
    // Drawn out towards the corners, so that the middle is free for what is on.
    const out = (of: number, edge: number) => 0.5 + (0.5 - edge) * Math.sign(of) * Math.abs(of) ** 0.5
    return { card, number: i + 1, x: out(Math.cos(turn), EDGE), y: out(Math.sin(turn), EDGE_BELOW) }
  })
  return (
    <div className={css.floor} style={{ '--many': Math.max(5, cards.length) } as React.CSSProperties}>
      <svg className={css.round} viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true">
        {places.map((from, i) => {
          const to = places[(i + 1) % places.length]!
          const at = (share: number) =>
            `${100 * (from.x + (to.x - from.x) * share)} ${100 * (from.y + (to.y - from.y) * share)}`
          return <path key={from.number} d={`M${at(0.4)}L${at(0.6)}`} />
        })}
      </svg>
      {places.map((from, i) => {
        const to = places[(i + 1) % places.length]!
        const turn = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI
        return (
          <span
            key={`tip${from.number}`}
            className={css.tip}
            aria-hidden="true"
            style={{
              left: `${100 * (from.x + (to.x - from.x) * 0.6)}%`,
              top: `${100 * (from.y + (to.y - from.y) * 0.6)}%`,
              transform: `translate(-50%, -50%) rotate(${turn}deg)`,
            }}
          >
            ➤
          </span>
        )
      })}
      {places.map(({ card, number, x, y }) => {
        const figure = pictureOf(figures, card.option, card)
        return (
          <article key={number} className={css.place} style={{ left: `${100 * x}%`, top: `${100 * y}%` }}>
            {figure && <Thumb figure={figure} />}
            <h2>
              <b>{number}</b> {card.name}
            </h2>
          </article>
        )
      })}
    </div>
  )
}
