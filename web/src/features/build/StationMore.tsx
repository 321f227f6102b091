import { TextInput } from '@mantine/core'
import type { Move, PlanStation } from '../../api/client'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { withField } from './edit'
import { Pick } from './Inputs'
import { OptionFields } from './OptionFields'
import { OptionList } from './OptionList'
import { PartFields } from './PartFields'
import { SecondsInput } from './SecondsInput'
import type { Place } from './StationCard'

interface Props {
  station: PlanStation
  place: Place
  moves: Move[]
  onChange: (label: string, next: (station: PlanStation) => PlanStation) => void
}

/** All else that a station can say, folded away until it is wanted. */
export function StationMore({ station, place, moves, onChange }: Props) {
  const { plan, evaluation } = useClassEditor()
  const block = plan.blocks[place.block]
  const change = evaluation?.outline[place.block]?.stations[place.station]?.change
  const changes = block?.format !== 'rotation' && block?.order !== 'ownPace'
  const roundGivesSide = block?.sidePass === 'round' || block?.sidePass === 'alternate'
  const set = <K extends keyof PlanStation>(key: K, value: PlanStation[K] | undefined) =>
    onChange(String(key), (old) => withField(old, key, value))
  return (
    <div className={css.unfolded}>
      <div className={css.fields}>
        <TextInput
          label="Name"
          size="xs"
          w={180}
          maxLength={120}
          placeholder="the move's"
          value={station.name ?? ''}
          onChange={(event) => set('name', event.currentTarget.value || undefined)}
        />
        {block?.order !== 'ownPace' && (
          <Pick
            label="Shared"
            none="no"
            words={[['turns', 'two take turns']]}
            value={station.sharing === 'turns' ? 'turns' : undefined}
            onChange={(sharing) =>
              onChange('sharing', (old) =>
                sharing
                  ? { ...old, sharing: 'turns' }
                  : withField(withField(old, 'sharing', undefined), 'waiting', undefined),
              )
            }
          />
        )}
        <SecondsInput
          label="To switch sides"
          max={60}
          step={1}
          value={station.switchSeconds}
          placeholder={`${plan.switchSeconds ?? 3} s`}
          onChange={(v) => set('switchSeconds', v)}
        />
        {changes && block?.startEverySeconds === undefined && (
          <SecondsInput
            label="To get here"
            max={600}
            value={station.changeSeconds}
            placeholder={`${block?.betweenStations ?? 0} s`}
            onChange={(v) => set('changeSeconds', v)}
          />
        )}
        {changes && (
          <SecondsInput
            label="Shown first"
            max={300}
            value={station.demoSeconds}
            placeholder="0 s"
            onChange={(v) => set('demoSeconds', v)}
          />
        )}
        {change && change.words !== '' && (
          <p className={css.aside}>
            Getting here needs about {change.seconds} s: {change.words}.
          </p>
        )}
      </div>
      <PartFields
        station={station}
        sideGiven={roundGivesSide || station.sides === 'each' || station.sides === 'split'}
        moves={moves}
        onChange={onChange}
      />
      {station.sharing === 'turns' && (
        <OptionList
          label="What the other one does"
          options={station.waiting ?? []}
          moves={moves}
          onChange={(next) => set('waiting', next)}
        />
      )}
      {station.options.map((option, i) => (
        <details key={i} className={css.more}>
          <summary>
            How the {option.tier} option is done: {moves.find((m) => m.id === option.move)?.name ?? option.move}
          </summary>
          <OptionFields
            option={option}
            main={option.tier === 'main'}
            onChange={(next) =>
              onChange(`how ${i}`, (old) => ({ ...old, options: old.options.map((o, n) => (n === i ? next : o)) }))
            }
          />
          {station.dose.length > 1 &&
            station.dose.map((_, p) => {
              const number = String(p + 1)
              const part = option.parts?.[number]
              return (
                <details key={p} className={css.more}>
                  <summary>In part {number} only</summary>
                  <OptionFields
                    option={(part ?? {}) as never}
                    main={option.tier === 'main'}
                    onChange={(next) =>
                      onChange(`part ${i} ${p}`, (old) => ({
                        ...old,
                        options: old.options.map((o, n) => {
                          if (n !== i) return o
                          const parts = withField(
                            o.parts ?? {},
                            number,
                            Object.keys(next).length === 0 ? undefined : next,
                          )
                          return withField(o, 'parts', Object.keys(parts).length === 0 ? undefined : parts)
                        }),
                      }))
                    }
                  />
                </details>
              )
            })}
        </details>
      ))}
    </div>
  )
}
