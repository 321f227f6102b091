import { useLocalStorage } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../../api/client'
import css from './Wall.module.css'

/** A bank card's width in millimetres (ISO/IEC 7810, ID-1). */
const CARD_MM = 85.6
const KEPT = 'halterion.wall'

interface Kept {
  /** CSS pixels that a card is wide on this screen. */
  card: number
  /** Metres from the last row to the screen. */
  distance: number
}

/** A screen of 55 inches is 1218 mm wide; it is taken for one until somebody holds a card to it. */
const SCREEN_MM = 1218
const usual: Kept = { card: Math.round((CARD_MM / SCREEN_MM) * window.innerWidth), distance: 8 }

/** What this screen's digits must measure to be read from the back of the room. */
export function useSizes() {
  const [own, keep] = useLocalStorage<Partial<Kept>>({ key: KEPT, defaultValue: {}, getInitialValueInEffect: false })
  const kept = { ...usual, ...own }
  const heights = useQuery({
    queryKey: ['digit-heights'],
    queryFn: () => answer(api.GET('/api/wall/digits')),
    staleTime: Infinity,
    gcTime: Infinity,
  }).data
  // For a distance between two the further one; where they are not known, nothing is asked of the digits.
  const mm = heights ? (heights.find((h) => h.metres >= kept.distance) ?? heights.at(-1)!).millimetres : null
  // A capital or a digit is about 0.72 of its type size in this face.
  const px = ((mm ?? 0) / CARD_MM) * kept.card
  return {
    ...kept,
    mm,
    least: `${Math.round(px / 0.72)}px`,
    set: (part: Partial<Kept>) => keep({ ...kept, ...part }),
  }
}

export function Calibrate({ sizes, onClose }: { sizes: ReturnType<typeof useSizes>; onClose: () => void }) {
  return (
    <aside className={css.sizing} role="dialog" aria-label="Sizes for this room">
      <h2>Sizes for this room</h2>
      <p>Hold a bank card against the screen and make the bar the same width.</p>
      <div className={css.bar} style={{ width: sizes.card }} />
      <label>
        Width{' '}
        <input
          type="range"
          min={40}
          max={900}
          value={sizes.card}
          onChange={(e) => sizes.set({ card: Number(e.currentTarget.value) })}
        />
      </label>
      <p>
        <label>
          Distance from the back row to the screen, in metres{' '}
          <input
            type="number"
            min={2}
            max={30}
            step={0.5}
            value={sizes.distance}
            onChange={(e) =>
              sizes.set({ distance: Math.min(30, Math.max(2, Number(e.currentTarget.value) || usual.distance)) })
            }
          />
        </label>
      </p>
      {sizes.mm !== null && (
        <p data-testid="digit-height">Numbers will be at least {sizes.mm} mm tall, readable from there.</p>
      )}
      <p className={css.sample} style={{ fontSize: sizes.least }}>
        24
      </p>
      <button type="button" onClick={onClose}>
        Done
      </button>
    </aside>
  )
}
