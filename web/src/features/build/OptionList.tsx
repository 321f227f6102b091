import { Button } from '@mantine/core'
import type { Move, PlanOption } from '../../api/client'
import css from './Build.module.css'
import { inOrder, without } from '../../plan/edit'
import { Pick } from './Inputs'
import { MoveSelect } from './MoveSelect'
import { OptionFields } from './OptionFields'

const tiers: [PlanOption['tier'], string][] = [
  ['harder', 'harder'],
  ['main', 'main'],
  ['easier', 'easier'],
  ['instead', 'instead'],
]

interface Props {
  label: string
  options: PlanOption[]
  moves: Move[]
  onChange: (next: PlanOption[] | undefined) => void
}

/** Options that stand apart from a dose: what is done in the rests, or while the other one works. */
export function OptionList({ label, options, moves, onChange }: Props) {
  return (
    <fieldset className={css.optionList}>
      <legend>{label}</legend>
      {inOrder(options).map(({ option, index }) => (
        <div key={option.id ?? index}>
          <div className={css.fields}>
            <Pick
              label="Tier"
              width={96}
              words={tiers}
              value={option.tier}
              onChange={(tier) =>
                onChange(options.map((o, i) => (i === index ? { ...o, tier: tier as PlanOption['tier'] } : o)))
              }
            />
            <MoveSelect
              moves={moves}
              value={option.move}
              label="Move"
              onChange={(move) => onChange(options.map((o, i) => (i === index ? { ...o, move } : o)))}
            />
            <Button
              size="xs"
              variant="default"
              mt={22}
              onClick={() => onChange(options.length === 1 ? undefined : without(options, index))}
            >
              Remove
            </Button>
          </div>
          <details className={css.more}>
            <summary>Details</summary>
            <OptionFields
              option={option}
              main={option.tier === 'main'}
              onChange={(next) =>
                onChange(options.map((o, i) => (i === index ? { ...next, tier: o.tier, move: o.move } : o)))
              }
            />
          </details>
        </div>
      ))}
      {options.length < 9 && (
        <Button
          size="xs"
          variant="default"
          disabled={moves.length === 0}
          onClick={() =>
            onChange([...options, { tier: options.length === 0 ? 'main' : 'easier', move: moves[0]?.id ?? 'squat' }])
          }
        >
          {options.length === 0 ? `Add ${label.toLowerCase()}` : 'Add another option'}
        </Button>
      )}
    </fieldset>
  )
}
