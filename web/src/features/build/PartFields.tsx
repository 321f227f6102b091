import { Button, TextInput } from '@mantine/core'
import type { Move, PlanPart, PlanStation } from '../../api/client'
import { TypedField } from '../../ui/NumberField'
import css from './Build.module.css'
import { bounds } from '../../api/language'
import { ofKind, partTakes, setPart, withField, without } from '../../plan/edit'
import { Parsed, Pick } from './Inputs'
import { MoveSelect } from './MoveSelect'

const kinds: [PlanPart['kind'], string][] = [
  ['reps', 'reps'],
  ['time', 'seconds'],
  ['hold', 'seconds held'],
  ['pulses', 'pulses'],
  ['open', 'until form slips (max)'],
  ['distance', 'metres'],
  ['rest', 'rest'],
]

const styles: [string, string][] = [
  ['full', 'full'],
  ['oneAndAHalf', 'one-and-a-half'],
  ['deadStop', 'dead stop'],
  ['constantTension', 'no lock-out'],
]

const amounts = {
  show: (value: PlanPart['amount']) =>
    (Array.isArray(value) ? value : [value]).map((a) => (typeof a === 'number' ? a : `${a.from}–${a.to}`)).join('/'),
  parse: (text: string): PlanPart['amount'] | undefined => {
    const read = text.split('/').map((part) => {
      const match = /^\s*(\d{1,4})(?:\s*[-–]\s*(\d{1,4}))?\s*$/.exec(part)
      if (!match) return undefined
      return match[2] === undefined ? Number(match[1]) : { from: Number(match[1]), to: Number(match[2]) }
    })
    if (read.includes(undefined)) return undefined
    return read.length === 1 ? read[0] : (read as PlanPart['amount'])
  },
}

const decimals = {
  show: (value: number | number[]) => (Array.isArray(value) ? value.join('/') : String(value)),
  parse: (text: string): number | number[] | undefined => {
    const parts = text.split('/')
    if (!parts.every((part) => /^\s*\d{1,3}(\.\d{1,2})?\s*$/.test(part))) return undefined
    return parts.length === 1 ? Number(parts[0]) : parts.map(Number)
  },
}

interface Props {
  station: PlanStation
  /** The station or the round gives the side. */
  sideGiven: boolean
  moves: Move[]
  onChange: (label: string, next: (station: PlanStation) => PlanStation) => void
}

/** The parts of a dose, field by field, for all that the short form can say. */
export function PartFields({ station, sideGiven, moves, onChange }: Props) {
  return (
    <fieldset className={css.optionList}>
      <legend>Parts of the target, in order</legend>
      {station.dose.map((part, p) => {
        const set = <K extends keyof PlanPart>(key: K, value: PlanPart[K] | undefined) =>
          onChange(`${String(key)} ${p}`, (old) => setPart(old, p, (o) => withField(o, key, value)))
        return (
          <div key={p} className={css.fields}>
            <Parsed
              label={`How many`}
              hint="a number, a range such as 8–12, or one per round such as 20/15/12"
              value={part.amount}
              {...amounts}
              onChange={(v) => v !== undefined && set('amount', v)}
            />
            <Pick
              label="Of"
              words={kinds}
              value={part.kind}
              onChange={(kind) =>
                onChange(`kind ${p}`, (old) => setPart(old, p, (o) => ofKind(o, kind as PlanPart['kind'])))
              }
            />
            {partTakes(part, 'side') && !sideGiven && (
              <Pick
                label="Side"
                none="both"
                words={[
                  ['left', 'left'],
                  ['right', 'right'],
                  ['alternate', 'alternating'],
                ]}
                value={part.side === 'both' ? undefined : part.side}
                onChange={(side) => set('side', side as PlanPart['side'])}
              />
            )}
            {partTakes(part, 'tempo') && (
              <>
                <TypedField<string>
                  label="Tempo"
                  width={112}
                  placeholder="as the move"
                  shown={part.tempo ?? ''}
                  read={(text) => ({ value: text || undefined })}
                  onChange={(v) => set('tempo', v)}
                />
                <Pick
                  label="Style"
                  words={styles}
                  value={part.style ?? 'full'}
                  onChange={(style) => set('style', style === 'full' ? undefined : (style as PlanPart['style']))}
                />
                <Parsed
                  label="Pulses per rep"
                  within={bounds.PlanPart.pulsesPerRep}
                  value={part.pulsesPerRep}
                  {...decimals}
                  onChange={(v) => set('pulsesPerRep', Array.isArray(v) ? undefined : v)}
                />
              </>
            )}
            {partTakes(part, 'pace') && (
              <Parsed
                label="Seconds per metre"
                within={bounds.PlanPart.pace}
                placeholder="1.5"
                value={part.pace}
                {...decimals}
                onChange={(v) => set('pace', Array.isArray(v) ? undefined : v)}
              />
            )}
            <Pick
              label="In rounds"
              none="all"
              words={[
                ['first', 'the first'],
                ['last', 'the last'],
                ...(Array.isArray(part.rounds) ? ([[part.rounds.join(', '), part.rounds.join(', ')]] as const) : []),
              ]}
              value={
                Array.isArray(part.rounds) ? part.rounds.join(', ') : part.rounds === 'all' ? undefined : part.rounds
              }
              onChange={(rounds) =>
                set(
                  'rounds',
                  rounds === 'first' || rounds === 'last' ? rounds : rounds === undefined ? undefined : part.rounds,
                )
              }
            />
            {partTakes(part, 'loadKg') && (
              <>
                <Parsed
                  label="Load, kg"
                  within={bounds.PlanPart.loadKg}
                  hint="0–500, or one per round such as 20/16"
                  value={part.loadKg}
                  {...decimals}
                  onChange={(v) => set('loadKg', v)}
                />
                <Parsed
                  label="Share of their usual load"
                  within={bounds.PlanPart.loadFactor}
                  hint="0.05–2 (1 = all of it), or one per round such as 1/0.7"
                  value={part.loadFactor}
                  {...decimals}
                  onChange={(v) => set('loadFactor', v)}
                />
                <Parsed
                  label="Effort 0–10"
                  within={bounds.PlanPart.effort}
                  value={part.effort}
                  {...decimals}
                  onChange={(v) => set('effort', Array.isArray(v) ? undefined : v)}
                />
                <MoveSelect
                  moves={moves}
                  value={part.move ?? ''}
                  label="Different move"
                  placeholder="as the station"
                  onChange={(move) => set('move', move === '' ? undefined : move)}
                />
              </>
            )}
            <TextInput
              label="Name on the cards"
              size="xs"
              w={128}
              maxLength={bounds.PlanPart.label.max}
              value={part.label ?? ''}
              onChange={(event) => set('label', event.currentTarget.value || undefined)}
            />
            {station.dose.length > 1 && (
              <Button
                size="xs"
                variant="default"
                mt={22}
                onClick={() => onChange('remove part', (old) => ({ ...old, dose: without(old.dose, p) }))}
              >
                Remove
              </Button>
            )}
          </div>
        )
      })}
      {station.dose.length < bounds.PlanStation.dose.max && (
        <Button
          size="xs"
          variant="default"
          onClick={() => onChange('add part', (old) => ({ ...old, dose: [...old.dose, { kind: 'hold', amount: 10 }] }))}
        >
          Add a part
        </Button>
      )}
    </fieldset>
  )
}
