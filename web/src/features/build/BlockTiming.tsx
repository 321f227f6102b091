import { NativeSelect } from '@mantine/core'
import type { PlanBlock } from '../../api/client'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { setBlock, withField } from './edit'
import { SecondsInput } from './SecondsInput'

type Shape = 'circuit' | 'sets' | 'rotation'

const shapeOf = (block: PlanBlock): Shape | 'talk' | 'ownPace' =>
  block.format === 'talk' ? 'talk' : block.format === 'rotation' ? 'rotation' : (block.order ?? 'circuit')

/** Fields that only one shape of block takes: they go when the shape changes. */
const ofOneShape = [
  'order',
  'format',
  'windowSeconds',
  'startEverySeconds',
  'betweenSets',
  'betweenRounds',
  'sidePass',
] as const

/** A list by round is shown but only its single form is edited here. */
const single = (value: number | number[] | undefined) => (Array.isArray(value) ? undefined : value)
const listed = (value: number | number[] | undefined) => (Array.isArray(value) ? value.join(', ') + ' s' : undefined)

/** How long, how often, with what between: the clock of a block. */
export function BlockTiming({ block, index }: { block: PlanBlock; index: number }) {
  const { plan, change } = useClassEditor()
  const shape = shapeOf(block)
  const set = <K extends keyof PlanBlock>(key: K, value: PlanBlock[K] | undefined) =>
    change(`${String(key)} ${index}`, (draft) => ({
      ...draft,
      plan: setBlock(draft.plan, index, (b) => withField(b, key, value)),
    }))

  function reshape(next: Shape) {
    change('shape', (draft) => ({
      ...draft,
      plan: setBlock(draft.plan, index, (b) => {
        const kept = { ...b }
        const rest = b.betweenRounds ?? b.betweenSets
        for (const key of ofOneShape) delete kept[key]
        kept.format = next === 'rotation' ? 'rotation' : 'together'
        if (next === 'sets') kept.order = 'sets'
        if (rest !== undefined) kept[next === 'sets' ? 'betweenSets' : 'betweenRounds'] = rest
        if (next === 'rotation') {
          kept.stations = kept.stations?.map((station) => {
            const own = { ...station }
            delete own.changeSeconds
            delete own.demoSeconds
            return own
          })
        }
        return kept
      }),
    }))
  }

  if (shape === 'talk' || shape === 'ownPace') {
    return (
      <div className={css.timing}>
        <SecondsInput
          label="Length"
          value={block.seconds}
          min={1}
          max={3600}
          step={30}
          onChange={(v) => v && set('seconds', v)}
        />
        {shape === 'ownPace' && <p className={css.aside}>Everyone goes round at their own pace until the bell.</p>}
      </div>
    )
  }

  return (
    <div className={css.timing}>
      <NativeSelect
        label="Done as"
        size="xs"
        w={168}
        value={shape}
        onChange={(event) => reshape(event.currentTarget.value as Shape)}
        data={[
          { value: 'circuit', label: 'Circuit, together' },
          { value: 'rotation', label: 'Stations on the bell' },
          { value: 'sets', label: 'Straight sets' },
        ]}
      />
      <SecondsInput
        label={shape === 'sets' ? 'Sets' : 'Rounds'}
        suffix=""
        step={1}
        min={1}
        max={20}
        width={72}
        value={block.rounds ?? 1}
        onChange={(v) => v && set('rounds', v)}
      />
      {shape === 'rotation' && (
        <SecondsInput
          label="Bell after"
          min={5}
          max={1800}
          value={single(block.windowSeconds)}
          placeholder={listed(block.windowSeconds) ?? 'the dose'}
          onChange={(v) => set('windowSeconds', v)}
        />
      )}
      {block.startEverySeconds === undefined ? (
        <SecondsInput
          label="Change-over"
          max={600}
          value={block.betweenStations ?? 0}
          onChange={(v) => set('betweenStations', v)}
        />
      ) : (
        <SecondsInput
          label="Start every"
          min={5}
          max={1800}
          value={block.startEverySeconds}
          onChange={(v) => set('startEverySeconds', v)}
        />
      )}
      {shape === 'sets' ? (
        <SecondsInput
          label="Rest between sets"
          width={124}
          max={600}
          value={listed(block.betweenSets) ? undefined : (single(block.betweenSets) ?? 0)}
          placeholder={listed(block.betweenSets)}
          onChange={(v) => set('betweenSets', v)}
        />
      ) : (
        <SecondsInput
          label="Rest between rounds"
          width={132}
          max={600}
          value={listed(block.betweenRounds) ? undefined : (single(block.betweenRounds) ?? 0)}
          placeholder={listed(block.betweenRounds)}
          onChange={(v) => set('betweenRounds', v)}
        />
      )}
      <SecondsInput
        label="Lead-in"
        max={120}
        width={84}
        value={block.leadInSeconds}
        placeholder={`${plan.leadInSeconds ?? 10} s`}
        onChange={(v) => set('leadInSeconds', v)}
      />
      <NativeSelect
        label="Begins"
        size="xs"
        w={168}
        value={block.gate ?? 'bell'}
        onChange={(event) => {
          const gate = event.currentTarget.value as NonNullable<PlanBlock['gate']>
          set('gate', gate === 'bell' ? undefined : gate)
        }}
        data={[
          { value: 'bell', label: 'on the bell' },
          { value: 'block', label: 'at my tap' },
          { value: 'rests', label: 'at my tap, rests too' },
        ]}
      />
    </div>
  )
}
