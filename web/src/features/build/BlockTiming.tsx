import type { PlanBlock, Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { bounds } from '../../api/language'
import { useClassEditor, useOutline } from '../editor/context'
import css from './Build.module.css'
import type { Shape } from '../../plan/edit'
import { blockTakes, partId, reshaped, setBlock, shapeOf, withField } from '../../plan/edit'
import { Parsed, Pick, seconds } from './Inputs'
import { NumberField } from '../../ui/NumberField'

const shapes: [Shape, string][] = [
  ['circuit', 'Circuit'],
  ['rotation', 'Rotation'],
  ['sets', 'Straight sets'],
  ['onTheClock', 'Timed starts'],
  ['ownPace', 'Own pace'],
]

/** What all stations have; undefined where they differ or have none of their own. */
const same = (values: (number | number[] | undefined)[]): number | undefined =>
  typeof values[0] === 'number' && values.every((v) => v === values[0]) ? values[0] : undefined

const kinds: Record<Schemas['SpanKind'], string> = {
  leadIn: 'get ready',
  work: 'work',
  switch: 'switching sides',
  change: 'changeovers',
  rest: 'rests',
  wait: 'waiting for the bell',
  talk: 'talk and demos',
}

const listHint = 'seconds, or one per rest, e.g. 30, 45'

/** How long, how often, with what between: the clock of a block. */
export function BlockTiming({ block }: { block: PlanBlock }) {
  const { plan, core, change } = useClassEditor()
  const shape = shapeOf(block)
  const id = partId(block)
  const outline = useOutline(id)
  const set = <K extends keyof PlanBlock>(key: K, value: PlanBlock[K] | undefined) =>
    change(`${String(key)} ${id}`, (draft) => ({
      ...draft,
      plan: setBlock(draft.plan, id, (b) => withField(b, key, value)),
    }))
  /** Targets that are listed by round go on as they went; that is worked out by the server. */
  async function setRounds(rounds: number) {
    const now = core.store.getState().now.plan
    const listed = block.stations?.some((s) => s.dose.some((part) => Array.isArray(part.amount)))
    if (!listed || rounds <= (block.rounds ?? 1)) return set('rounds', rounds)
    try {
      const result = await answer(api.POST('/api/plans/rounds', { body: { class: now, block: id, rounds } }))
      if (core.store.getState().now.plan !== now) return set('rounds', rounds)
      change(
        `rounds ${id}`,
        (draft) => ({ ...draft, plan: setBlock(draft.plan, id, () => result.block) }),
        result.evaluation ?? undefined,
      )
    } catch {
      set('rounds', rounds)
    }
  }

  // A station with a change of its own does not wait for the block's.
  const needs = (outline?.stations ?? [])
    .filter((_, i) => shape === 'rotation' || (i > 0 && block.stations?.[i]?.changeSeconds === undefined))
    .map((s) => s.change.seconds)
  const need = Math.max(0, ...needs)

  const switches = outline?.accounts.some((account) => account.kind === 'switch')
  const switched = (block.stations ?? []).map((station) => station.switchSeconds)

  if (shape === 'talk') {
    return (
      <div className={css.timing}>
        {block.show && block.seconds === undefined ? (
          <p className={css.aside}>The length follows the walk-through (under More).</p>
        ) : (
          <NumberField
            label="Length"
            value={block.seconds}
            {...bounds.PlanBlock.seconds}
            step={30}
            needed
            onChange={(v) => v && set('seconds', v)}
          />
        )}
      </div>
    )
  }

  return (
    <div className={css.timing}>
      <Pick
        label="Format"
        width={168}
        words={shapes}
        value={shape}
        onChange={(next) =>
          change('shape', (draft) => ({
            ...draft,
            plan: setBlock(draft.plan, id, (b) =>
              reshaped(b, next as Exclude<Shape, 'talk'>, outline && outline.end - outline.start),
            ),
          }))
        }
      />
      {shape === 'ownPace' ? (
        <>
          <NumberField
            label="Length"
            value={block.seconds}
            {...bounds.PlanBlock.seconds}
            step={30}
            onChange={(v) => v && set('seconds', v)}
          />
          <NumberField
            label="Goal: rounds"
            suffix=""
            step={1}
            {...bounds.PlanBlock.rounds}
            value={block.rounds}
            placeholder="none"
            onChange={(v) => set('rounds', v)}
          />
          <NumberField
            label="Goal: reps"
            suffix=""
            step={10}
            {...bounds.PlanBlock.goalReps}
            value={block.goalReps}
            placeholder="none"
            onChange={(v) => set('goalReps', v)}
          />
        </>
      ) : (
        <NumberField
          label={shape === 'sets' ? 'Sets' : 'Rounds'}
          suffix=""
          step={1}
          {...bounds.PlanBlock.rounds}
          width={72}
          value={block.rounds ?? 1}
          needed
          onChange={(v) => v && void setRounds(v)}
        />
      )}
      {blockTakes(shape, 'windowSeconds') && (
        <Parsed
          label="Work interval"
          within={bounds.PlanBlock.windowSeconds}
          hint="5–1800 seconds, or one per round, e.g. 40, 30"
          placeholder="longest target"
          value={block.windowSeconds}
          {...seconds}
          onChange={(v) => set('windowSeconds', v)}
        />
      )}
      {blockTakes(shape, 'startEverySeconds') && (
        <NumberField
          label="Start every"
          {...bounds.PlanBlock.startEverySeconds}
          value={block.startEverySeconds}
          onChange={(v) => v && set('startEverySeconds', v)}
        />
      )}
      {blockTakes(shape, 'betweenStations') && shape !== 'onTheClock' && (
        <NumberField
          label={need > (block.betweenStations ?? 0) ? `Changeover (needs ${need} s)` : 'Changeover'}
          width={need > (block.betweenStations ?? 0) ? 136 : 104}
          {...bounds.PlanBlock.betweenStations}
          value={block.betweenStations ?? 0}
          onChange={(v) => set('betweenStations', v)}
        />
      )}
      {blockTakes(shape, 'betweenSets') && (
        <Parsed
          label="Rest between sets"
          width={124}
          within={bounds.PlanBlock.betweenSets}
          hint={listHint}
          value={block.betweenSets ?? 0}
          {...seconds}
          onChange={(v) => set('betweenSets', v)}
        />
      )}
      {blockTakes(shape, 'betweenRounds') && (
        <Parsed
          label="Rest between rounds"
          width={132}
          within={bounds.PlanBlock.betweenRounds}
          hint={listHint}
          value={block.betweenRounds ?? 0}
          {...seconds}
          onChange={(v) => set('betweenRounds', v)}
        />
      )}
      {shape !== 'ownPace' && switches && (
        <NumberField
          label="Time to switch sides"
          width={108}
          step={1}
          {...bounds.PlanStation.switchSeconds}
          value={same(switched)}
          placeholder={switched.some((v) => v !== undefined) ? 'varies by station' : `${plan.switchSeconds ?? 3} s`}
          onChange={(v) =>
            change(`switch ${id}`, (draft) => ({
              ...draft,
              plan: setBlock(draft.plan, id, (b) => ({
                ...b,
                stations: b.stations?.map((station) => withField(station, 'switchSeconds', v)),
              })),
            }))
          }
        />
      )}
      <NumberField
        label="Get-ready time"
        {...bounds.PlanBlock.leadInSeconds}
        width={84}
        value={block.leadInSeconds}
        placeholder={`${plan.leadInSeconds ?? 10} s`}
        onChange={(v) => set('leadInSeconds', v)}
      />
      {outline && (
        <p className={css.accounts}>
          <b>{outline.words}</b> ={' '}
          {outline.accounts.map((account, i) => (
            <span key={account.kind}>
              {i > 0 && ' + '}
              {account.total} {kinds[account.kind]} <i>({account.words})</i>
            </span>
          ))}
          {(block.sidePass === 'round' || block.sidePass === 'alternate') && (
            <i>
              {' '}
              Sides switch in the rest between rounds, so no extra time is added
              {block.sidePass === 'round' &&
                '; halfway through a round, the walk back to the first station is at least as long as a switch'}
              .
            </i>
          )}
        </p>
      )}
    </div>
  )
}
