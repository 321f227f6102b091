import { NativeSelect } from '@mantine/core'
import type { PlanBlock, PlanStation } from '../../api/client'
import { withField } from '../../plan/edit'

/** What each rule is for stands in its words. */
const rules = [
  { value: 'asWritten', label: 'no side' },
  { value: 'alternate', label: 'sides in turn, rep by rep' },
  { value: 'each', label: 'each side: all of one, then the other' },
  { value: 'split', label: 'half the time a side' },
]

interface Props {
  station: PlanStation
  block: PlanBlock
  onChange: (label: string, next: (station: PlanStation) => PlanStation) => void
}

/** How a station deals with its sides; nothing to choose where the round gives the side. */
export function SideSelect({ station, block, onChange }: Props) {
  const pass = block.sidePass
  const first = station.dose[0]
  if (pass === 'round' || pass === 'alternate') return null
  const written = station.dose.some((part) => part.side === 'left' || part.side === 'right')
  const value = first?.side === 'alternate' ? 'alternate' : (station.sides ?? 'asWritten')
  const splits = station.dose.length === 1 && (first?.kind === 'time' || first?.kind === 'hold')
  return (
    <NativeSelect
      aria-label="Sides"
      size="xs"
      w={210}
      value={value}
      onChange={(event) => {
        const rule = event.currentTarget.value
        onChange('sides', (old) => {
          const bare = withField(
            withField(withField(old, 'sides', undefined), 'chunk', undefined),
            'withNext',
            rule === 'each' ? old.withNext : undefined,
          )
          const dose = old.dose.map((part) =>
            part.kind === 'rest' ? part : withField(part, 'side', rule === 'alternate' ? 'alternate' : undefined),
          )
          return rule === 'each' || rule === 'split' ? { ...bare, dose, sides: rule } : { ...bare, dose }
        })
      }}
    >
      {rules.map((rule) => (
        <option key={rule.value} value={rule.value} disabled={rule.value === 'split' && !splits}>
          {rule.value === 'asWritten' && written ? 'as written in the parts' : rule.label}
        </option>
      ))}
    </NativeSelect>
  )
}
