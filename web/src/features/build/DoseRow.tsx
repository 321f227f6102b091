import { NativeSelect, TextInput } from '@mantine/core'
import type { Move, PlanPart, PlanStation } from '../../api/client'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { setPart, setStation, withField } from './edit'
import { SecondsInput } from './SecondsInput'
import type { Place } from './StationCard'

const kinds = [
  { value: 'reps', label: 'reps' },
  { value: 'time', label: 'seconds' },
  { value: 'hold', label: 'seconds held' },
  { value: 'pulses', label: 'pulses' },
]

/** What each rule is for stands in its words. */
const sideRules = [
  { value: 'asWritten', label: 'no side' },
  { value: 'alternate', label: 'sides in turn' },
  { value: 'each', label: 'each side' },
  { value: 'split', label: 'half a side' },
]

const plainAmount = (part: PlanPart): number | undefined => (typeof part.amount === 'number' ? part.amount : undefined)

const amountWords = (part: PlanPart): string =>
  (Array.isArray(part.amount) ? part.amount : [part.amount])
    .map((a) => (typeof a === 'number' ? a : `${a.from}–${a.to}`))
    .join(', ')

/** The dose: how many, on which side, how fast. Parts of other kinds are kept and named. */
export function DoseRow({ station, place, move }: { station: PlanStation; place: Place; move: Move | undefined }) {
  const { plan, change } = useClassEditor()
  const set = (label: string, next: (station: PlanStation) => PlanStation) =>
    change(`${label} ${place.block} ${place.station}`, (draft) => ({
      ...draft,
      plan: setStation(draft.plan, place.block, place.station, next),
    }))
  const block = plan.blocks[place.block]
  const first = station.dose[0]
  const roundGivesSide = block?.sidePass === 'round' || block?.sidePass === 'alternate'
  const side = first?.side === 'alternate' ? 'alternate' : (station.sides ?? 'asWritten')

  function setSide(rule: string) {
    set('sides', (old) => {
      const bare = withField(withField(old, 'sides', undefined), 'chunk', undefined)
      const dose = old.dose.map((part) => withField(part, 'side', rule === 'alternate' ? 'alternate' : undefined))
      return rule === 'each' || rule === 'split' ? { ...bare, dose, sides: rule } : { ...bare, dose }
    })
  }

  function setKind(p: number, kind: PlanPart['kind']) {
    set('kind', (old) => {
      const next = setPart(old, p, (part) => {
        const bare = { ...part, kind }
        if (kind !== 'reps') {
          delete bare.tempo
          delete bare.style
          delete bare.pulsesPerRep
        }
        return bare
      })
      // Only a timed part can be split between the sides.
      return next.sides === 'split' && kind !== 'time' && kind !== 'hold' ? { ...next, sides: 'each' } : next
    })
  }

  return (
    <div className={css.dose}>
      {station.dose.map((part, p) => (
        <div key={p} className={css.part}>
          {kinds.some((k) => k.value === part.kind) ? (
            <>
              <SecondsInput
                label={p === 0 ? 'Target' : `Then`}
                suffix=""
                width={70}
                min={1}
                max={3600}
                step={part.kind === 'reps' ? 1 : 5}
                value={plainAmount(part)}
                placeholder={amountWords(part)}
                onChange={(v) => v && set(`amount ${p}`, (old) => setPart(old, p, (old2) => ({ ...old2, amount: v })))}
              />
              <NativeSelect
                aria-label={`Kind of target ${p + 1}`}
                size="xs"
                w={116}
                data={kinds}
                value={part.kind}
                onChange={(event) => setKind(p, event.currentTarget.value as PlanPart['kind'])}
              />
            </>
          ) : (
            <span className={css.aside}>
              then {amountWords(part)} {part.kind === 'rest' ? 's rest' : part.kind}
            </span>
          )}
          {p === 0 && !roundGivesSide && (
            <NativeSelect
              label="Sides"
              size="xs"
              w={116}
              value={side}
              onChange={(event) => setSide(event.currentTarget.value)}
            >
              {sideRules.map((rule) => (
                <option
                  key={rule.value}
                  value={rule.value}
                  disabled={
                    rule.value === 'split' &&
                    (station.dose.length > 1 || (part.kind !== 'time' && part.kind !== 'hold'))
                  }
                >
                  {rule.label}
                </option>
              ))}
            </NativeSelect>
          )}
          {part.kind === 'reps' && (
            <TextInput
              label={p === 0 ? 'Tempo' : undefined}
              aria-label={`Tempo of target ${p + 1}`}
              title="lower-pause-lift-pause in seconds, such as 3-1-1-0; X is as fast as is safe"
              size="xs"
              w={104}
              placeholder={move?.tempo ?? 'such as 2-0-1-0'}
              value={part.tempo ?? ''}
              onChange={(event) => {
                const tempo = event.currentTarget.value.trim()
                set(`tempo ${p}`, (old) =>
                  setPart(old, p, (old2) => withField(old2, 'tempo', tempo === '' ? undefined : tempo)),
                )
              }}
            />
          )}
        </div>
      ))}
    </div>
  )
}
