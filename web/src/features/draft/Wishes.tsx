import { Checkbox, NativeSelect } from '@mantine/core'
import type { Schemas } from '../../api/client'
import { NumberField } from '../../ui/NumberField'
import css from './Draft.module.css'

type Shape = Schemas['DraftShape']
type Weighed = 'shares' | 'recent' | 'stations' | 'kit' | 'assignment' | 'findings'

/** What an evening is to be like, beside its length, its people and its aim. */
export interface WishList {
  shape: Shape
  from: number
  to: number
  /** Parts of each family; what is left out is no wish. */
  shares: Partial<Record<'squat' | 'lunge' | 'hinge' | 'bridge', number>>
  lowImpact: boolean
  drink: boolean
  withoutKit: boolean
  notLastTime: boolean
  /** How much each counts: 0 never mind, 1 as usual, 2 very much. */
  weights: Partial<Record<Weighed, number>>
}

export const usualWishes: WishList = {
  shape: 'any',
  from: 5,
  to: 8,
  shares: {},
  lowImpact: false,
  drink: true,
  withoutKit: false,
  notLastTime: true,
  weights: {},
}

const shapes: { value: Shape; label: string }[] = [
  { value: 'any', label: 'Whatever suits: three different ones' },
  { value: 'rotation', label: 'Stations on the bell' },
  { value: 'circuit', label: 'Circuit' },
  { value: 'sets', label: 'Straight sets' },
  { value: 'supersets', label: 'Pairs' },
  { value: 'dropSets', label: 'Drop sets' },
  { value: 'oneSideARound', label: 'One side a round' },
  { value: 'onTheMinute', label: 'On the minute' },
]

const families = [
  ['squat', 'Squats'],
  ['lunge', 'Lunges'],
  ['hinge', 'Hinges'],
  ['bridge', 'Bridges'],
] as const

const weighed: [Weighed, string][] = [
  ['shares', 'How much of each family'],
  ['recent', 'Not what we did last time'],
  ['stations', 'The number of stations'],
  ['kit', 'Little to fetch'],
  ['assignment', 'Everyone at their own level'],
  ['findings', 'Nothing left to consider'],
]

const levels = [
  { value: '0', label: 'never mind' },
  { value: '0.5', label: 'a little' },
  { value: '1', label: 'as usual' },
  { value: '1.5', label: 'more' },
  { value: '2', label: 'very much' },
]

/** The wishes as they are asked for. */
export function asked(wishes: WishList): Omit<Schemas['DraftRequest'], 'slotMinutes'> {
  const { shape, from, to, shares, lowImpact, drink, weights } = wishes
  return { shape, stations: { from, to }, shares, lowImpact, drink, wishes: weights }
}

interface Props {
  wishes: WishList
  onChange: (next: Partial<WishList>) => void
}

/** A number of stations. */
function Count({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => void }) {
  return (
    <NumberField
      label={label}
      size="sm"
      width={140}
      suffix=""
      step={1}
      min={1}
      max={16}
      needed
      value={value}
      onChange={(next) => next !== undefined && onChange(next)}
    />
  )
}

/** A few plain controls; how much each counts is folded away. */
export function Wishes({ wishes, onChange }: Props) {
  return (
    <div className={css.wishes} role="group" aria-label="What a draft should be like">
      <div className={css.row}>
        <NativeSelect
          label="Shape"
          w={280}
          data={shapes}
          value={wishes.shape}
          onChange={(event) => onChange({ shape: event.currentTarget.value as Shape })}
        />
        <Count
          label="Stations, from"
          value={wishes.from}
          onChange={(from) => onChange({ from, to: Math.max(from, wishes.to) })}
        />
        <Count
          label="Stations, up to"
          value={wishes.to}
          onChange={(to) => onChange({ to, from: Math.min(to, wishes.from) })}
        />
      </div>
      <div className={css.row} role="group" aria-label="How much of each family">
        <p className={css.note}>Parts of each family, such as 30, 30, 20 and 20. All left empty: any mix that suits.</p>
        {families.map(([family, label]) => (
          <NumberField
            key={family}
            label={label}
            size="sm"
            width={120}
            suffix=" parts"
            min={0}
            max={100}
            placeholder={Object.values(wishes.shares).some((parts) => parts !== undefined) ? 'none' : 'any'}
            value={wishes.shares[family]}
            onChange={(value) => onChange({ shares: { ...wishes.shares, [family]: value } })}
          />
        ))}
      </div>
      <div className={css.row}>
        <Checkbox
          label="Not what we did last time"
          checked={wishes.notLastTime}
          onChange={(event) => onChange({ notLastTime: event.currentTarget.checked })}
        />
        <Checkbox
          label="A break to drink"
          checked={wishes.drink}
          onChange={(event) => onChange({ drink: event.currentTarget.checked })}
        />
        <Checkbox
          label="No jumps"
          checked={wishes.lowImpact}
          onChange={(event) => onChange({ lowImpact: event.currentTarget.checked })}
        />
        <Checkbox
          label="Without kit"
          checked={wishes.withoutKit}
          onChange={(event) => onChange({ withoutKit: event.currentTarget.checked })}
        />
      </div>
      <details className={css.how}>
        <summary>How much each wish counts</summary>
        <div className={css.levels}>
          {weighed.map(([term, label]) => (
            <NativeSelect
              key={term}
              label={label}
              data={levels}
              value={String(wishes.weights[term] ?? 1)}
              onChange={(event) =>
                onChange({ weights: { ...wishes.weights, [term]: Number(event.currentTarget.value) } })
              }
            />
          ))}
        </div>
      </details>
    </div>
  )
}
