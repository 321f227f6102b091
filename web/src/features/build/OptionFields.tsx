import { TextInput } from '@mantine/core'
import type { PlanOption } from '../../api/client'
import { TypedField } from '../../ui/NumberField'
import css from './Build.module.css'
import { withField, withWord } from '../../plan/edit'
import { Parsed, Pick } from './Inputs'
import { loadFields, optionFields } from './words'

type Load = Exclude<NonNullable<PlanOption['load']>, 'none'>

const decimal = {
  show: String,
  parse: (text: string) =>
    /^\d{1,3}([.,]\d{1,2})?$/.test(text.trim()) ? Number(text.trim().replace(',', '.')) : undefined,
}

/** An option, or what one of its parts does otherwise. */
type Manner = Partial<PlanOption>

interface Props {
  option: Manner
  /** The main option has no scale. */
  main: boolean
  onChange: (next: Manner) => void
}

/** How an option is done: every word of the language, each left out where it says nothing. */
export function OptionFields({ option, main, onChange }: Props) {
  const set = <K extends keyof Manner>(key: K, value: Manner[K]) => onChange(withField(option, key, value))
  const held = option.load === 'none' ? undefined : option.load
  const setLoad = <K extends keyof Load>(key: K, value: Load[K] | undefined) => {
    const load: Load = withField<Load, K>(held ?? { implement: 'dumbbell' }, key, value)
    set('load', load)
  }
  return (
    <div className={css.fields}>
      {optionFields.map(({ key, label, words }) => (
        <Pick
          key={key}
          label={label}
          words={words}
          none="–"
          value={option[key] as string | undefined}
          onChange={(value) => onChange(withWord(option, key, value))}
        />
      ))}
      {!main && (
        <Pick
          label="Sides, in the same time"
          width={170}
          words={[
            ['asWritten', 'both legs at once'],
            ['each', 'one, then the other'],
            ['split', 'half the time on each side'],
            ['alternate', 'alternating every rep'],
          ]}
          none="same as the station"
          value={option.sides}
          onChange={(v) => onChange(withField(withWord(option, 'sides', v), 'chunk', undefined))}
        />
      )}
      <Parsed
        label="Height, cm"
        hint="0–120"
        value={option.heightCm}
        {...decimal}
        onChange={(v) => set('heightCm', v)}
      />
      <TypedField<string>
        label="Tempo"
        width={112}
        placeholder="e.g. 3-1-1-0"
        shown={option.tempo ?? ''}
        read={(text) => ({ value: text || undefined })}
        onChange={(v) => set('tempo', v)}
      />
      <Pick
        label="Weight"
        words={[...loadFields.implement, ['none', 'without what it holds']]}
        none="none"
        value={option.load === 'none' ? 'none' : held?.implement}
        onChange={(value) =>
          value === 'none'
            ? set('load', 'none')
            : value
              ? setLoad('implement', value as Load['implement'])
              : set('load', undefined)
        }
      />
      {held && (
        <>
          <Pick
            label="How many"
            words={[
              ['1', 'one'],
              ['2', 'two'],
            ]}
            none="–"
            value={held.count?.toString()}
            onChange={(value) => setLoad('count', value ? Number(value) : undefined)}
          />
          <Parsed label="kg each" hint="0.25–300" value={held.kg} {...decimal} onChange={(v) => setLoad('kg', v)} />
          <Pick
            label="Held"
            words={loadFields.position}
            none="–"
            value={held.position}
            onChange={(value) => setLoad('position', value as Load['position'])}
          />
          <Pick
            label="On which side"
            words={loadFields.side}
            none="–"
            value={held.side}
            onChange={(value) => setLoad('side', value as Load['side'])}
          />
        </>
      )}
      {!main && (
        <Parsed
          label="Share of the target, %"
          hint="10–200"
          value={option.scale}
          show={(value) => String(Math.round(value * 100))}
          parse={(text) => (/^\d{2,3}$/.test(text.trim()) ? Number(text) / 100 : undefined)}
          onChange={(v) => set('scale', v)}
        />
      )}
      {'tier' in option && (
        <TextInput
          label="Note"
          size="xs"
          w={240}
          maxLength={4000}
          value={option.note ?? ''}
          onChange={(event) => set('note', event.currentTarget.value || undefined)}
        />
      )}
    </div>
  )
}
