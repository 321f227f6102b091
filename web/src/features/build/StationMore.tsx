import { Checkbox, TextInput } from '@mantine/core'
import type { Move, PlanBlock, PlanStation } from '../../api/client'
import { useClassEditor, useOutline } from '../editor/context'
import css from './Build.module.css'
import { partId, shapeOf, tiesTo, withField } from '../../plan/edit'
import { Parsed, Pick, seconds } from './Inputs'
import { OptionFields } from './OptionFields'
import { OptionList } from './OptionList'
import { PartFields } from './PartFields'
import { SayField } from './SayField'
import { viewpoints } from './words'
import { tierWord, sentence } from '../../ui/words'

interface Props {
  station: PlanStation
  block: PlanBlock
  moves: Move[]
  onChange: (label: string, next: (station: PlanStation) => PlanStation) => void
}

/** All else that a station can say, folded away until it is wanted. */
export function StationMore({ station, block, moves, onChange }: Props) {
  const { plan } = useClassEditor()
  const outlined = useOutline(partId(block))?.stations.find((o) => o.id === station.id)
  const change = outlined?.change
  const shape = shapeOf(block)
  const changes = block.format !== 'rotation' && block.order !== 'ownPace'
  const roundGivesSide = block.sidePass === 'round' || block.sidePass === 'alternate'
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
          placeholder="as the move"
          value={station.name ?? ''}
          onChange={(event) => set('name', event.currentTarget.value || undefined)}
        />
        {block.order !== 'ownPace' && (
          <Pick
            label="In pairs"
            none="no"
            words={[['turns', 'two take turns, one works, one rests']]}
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
        <Parsed
          label="Time to switch sides"
          hint="0–60 seconds, or one per round"
          value={station.switchSeconds}
          placeholder={`${plan.switchSeconds ?? 3}`}
          {...seconds}
          onChange={(v) => set('switchSeconds', v)}
        />
        {changes && block.startEverySeconds === undefined && (
          <Parsed
            label="Changeover before it"
            hint="0–600 seconds, or one per round"
            value={station.changeSeconds}
            placeholder={`${block.betweenStations ?? 0}`}
            {...seconds}
            onChange={(v) => set('changeSeconds', v)}
          />
        )}
        {changes && (
          <Parsed
            label="Demo before it"
            hint="0–300 seconds in the first round, or one per round"
            value={station.demoSeconds}
            placeholder="0"
            {...seconds}
            onChange={(v) => set('demoSeconds', v)}
          />
        )}
        <Pick
          label="Show it"
          width={140}
          none="any way"
          words={viewpoints}
          value={Array.isArray(station.view) ? station.view[0] : station.view}
          onChange={(v) => set('view', v as PlanStation['view'])}
        />
        {!roundGivesSide && (station.sides === 'each' || station.sides === 'split') && (
          <Pick
            label="Start on"
            width={130}
            none="as the block"
            words={[
              ['left', 'left'],
              ['right', 'right'],
            ]}
            value={station.startSide}
            onChange={(v) => set('startSide', v as PlanStation['startSide'])}
          />
        )}
        {tiesTo(block, station) && (
          <Checkbox
            mt={24}
            label="Link with the next station: both on one side, then both on the other"
            checked={station.withNext ?? false}
            onChange={(event) => set('withNext', event.currentTarget.checked || undefined)}
          />
        )}
        {(shape === 'circuit' || shape === 'sets') && (
          <SayField value={station.say} before={outlined?.before ?? 0} onChange={(v) => set('say', v)} />
        )}
        {change && change.words !== '' && (
          <p className={css.aside}>
            The changeover needs about {change.seconds} s: {change.words}.
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
          label="Meanwhile the partner does"
          options={station.waiting ?? []}
          moves={moves}
          onChange={(next) => set('waiting', next)}
        />
      )}
      {station.options.map((option, i) => (
        <details key={partId(option)} className={css.more}>
          <summary>
            {sentence(tierWord(option.tier))} option in detail:{' '}
            {moves.find((m) => m.id === option.move)?.name ?? option.move}
          </summary>
          <OptionFields
            option={option}
            main={option.tier === 'main'}
            onChange={(next) =>
              onChange(`how ${i}`, (old) => ({
                ...old,
                options: old.options.map((o) => (o.id === option.id ? { ...next, tier: o.tier, move: o.move } : o)),
              }))
            }
          />
          {station.dose.length > 1 &&
            station.dose.map((_, p) => {
              const number = String(p + 1)
              const part = option.parts?.[number]
              return (
                <details key={p} className={css.more}>
                  <summary>Only in part {number}</summary>
                  <OptionFields
                    option={part ?? {}}
                    main={option.tier === 'main'}
                    onChange={(next) =>
                      onChange(`part ${i} ${p}`, (old) => ({
                        ...old,
                        options: old.options.map((o) => {
                          if (o.id !== option.id) return o
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
