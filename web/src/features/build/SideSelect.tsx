import { NativeSelect } from '@mantine/core'
import type { PlanBlock, PlanStation } from '../../api/client'
import type { SideHabit } from '../../plan/edit'
import { sidesOf, splits, withSides } from '../../plan/edit'

/** What each rule is for stands in its words. */
export const sideRules: { value: SideHabit; label: string }[] = [
  { value: 'asWritten', label: 'both sides together' },
  { value: 'alternate', label: 'alternating every rep' },
  { value: 'each', label: 'each side: all of one, then the other' },
  { value: 'split', label: 'half the time on each side' },
]

interface Props {
  station: PlanStation
  block: PlanBlock
  onChange: (label: string, next: (station: PlanStation) => PlanStation) => void
}

/** How a station deals with its sides; nothing to choose where the round gives the side. */
export function SideSelect({ station, block, onChange }: Props) {
  const pass = block.sidePass
  if (pass === 'round' || pass === 'alternate') return null
  const written = station.dose.some((part) => part.side === 'left' || part.side === 'right')
  return (
    <NativeSelect
      aria-label="Sides"
      size="xs"
      w={210}
      value={sidesOf(station)}
      onChange={(event) => {
        const rule = event.currentTarget.value as SideHabit
        onChange('sides', (old) => withSides(old, rule))
      }}
    >
      {sideRules.map((rule) => (
        <option key={rule.value} value={rule.value} disabled={rule.value === 'split' && !splits(station)}>
          {rule.value === 'asWritten' && written ? 'set part by part' : rule.label}
        </option>
      ))}
    </NativeSelect>
  )
}
