import { Button, NativeSelect } from '@mantine/core'
import type { Move, PlanBlock, Schemas } from '../../api/client'
import { useWalkThroughPaces } from '../../api/queries'
import { mainOption, partId, USUAL_TALK, withField, without } from '../../plan/edit'
import { NumberField } from '../../ui/NumberField'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { Pick } from './Inputs'
import { viewpoints } from './words'

type Showing = Schemas['PlanShowing']

const firsts: [string, string][] = [
  ['easier', 'starting with easier'],
  ['harder', 'harder first'],
]

interface Props {
  block: PlanBlock
  moves: Move[]
  onChange: (next: (block: PlanBlock) => PlanBlock) => void
}

/** A walk-through planned and timed: which stations, how long, from where, which option first. */
export function ShowEditor({ block, moves, onChange }: Props) {
  const { plan } = useClassEditor()
  const paces = useWalkThroughPaces().data ?? []
  const usual = paces.find((pace) => pace.name === 'usual')?.seconds
  const list = block.show ?? []
  const stations = plan.blocks.flatMap((b) =>
    (b.stations ?? []).map((station) => ({
      id: partId(station),
      name: station.name ?? moves.find((m) => m.id === mainOption(station)?.move)?.name ?? '',
      block: b.name,
      move: mainOption(station)?.move,
      tiers: station.options.map((o) => o.tier as string),
    })),
  )
  const set = (show: Showing[]) =>
    onChange((b) =>
      show.length === 0
        ? { ...withField(b, 'show', undefined), seconds: b.seconds ?? USUAL_TALK }
        : // Its length is that of what is shown.
          withField({ ...b, show }, 'seconds', undefined),
    )
  const change = (at: number, next: Partial<Showing>) => set(list.map((s, i) => (i === at ? { ...s, ...next } : s)))
  const once = stations.filter((s, i) => stations.findIndex((o) => o.move === s.move) === i)

  if (stations.length === 0) return null
  return (
    <section className={css.shows} aria-label="Walk-through">
      <h2 className={css.fitTitle}>Walk-through</h2>
      <div className={css.starters}>
        {paces.map(({ name, seconds }) => (
          <Button
            key={name}
            size="xs"
            variant="default"
            onClick={() => set(once.slice(0, 60).map((s) => ({ station: s.id, seconds })))}
          >
            Show every move once – {name}, {seconds} s each
          </Button>
        ))}
        {list.length > 0 && (
          <button type="button" className={css.quiet} onClick={() => set([])}>
            Show none
          </button>
        )}
      </div>
      {list.map((showing, i) => {
        const station = stations.find((s) => s.id === showing.station)
        return (
          <div key={i} className={css.fields}>
            <NativeSelect
              label={`Station ${i + 1} to show`}
              size="xs"
              w={220}
              value={showing.station}
              onChange={(event) => change(i, { station: event.currentTarget.value })}
            >
              {stations.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}, {s.block}
                </option>
              ))}
            </NativeSelect>
            <NumberField
              label="For"
              width={76}
              min={1}
              max={600}
              needed
              value={showing.seconds}
              onChange={(seconds) => seconds !== undefined && change(i, { seconds })}
            />
            <Pick
              label="Seen from"
              width={130}
              none="same as the station"
              words={viewpoints}
              value={showing.view}
              onChange={(v) => set(list.map((s, at) => (at === i ? withField(s, 'view', v as Showing['view']) : s)))}
            />
            <Pick
              label="Option"
              width={120}
              none="main first"
              words={firsts.filter(([tier]) => station?.tiers.includes(tier))}
              value={showing.first}
              onChange={(v) => set(list.map((s, at) => (at === i ? withField(s, 'first', v as Showing['first']) : s)))}
            />
            <Button size="xs" variant="default" mt={22} onClick={() => set(without(list, i))}>
              Leave out
              <span className="hidden"> {station?.name}</span>
            </Button>
          </div>
        )
      })}
      {list.length > 0 && list.length < 60 && usual !== undefined && (
        <Button
          size="xs"
          variant="default"
          onClick={() => set([...list, { station: stations[0]!.id, seconds: usual }])}
        >
          Show another
        </Button>
      )}
    </section>
  )
}
