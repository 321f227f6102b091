import { Button, Checkbox, Textarea, TextInput } from '@mantine/core'
import { useState } from 'react'
import type { Move, PlanBlock } from '../../api/client'
import { useAct } from '../../save/acts'
import { change } from '../../save/documents'
import { useTemplates } from '../../api/queries'
import { useClassEditor, useOutline } from '../editor/context'
import css from './Build.module.css'
import { blockTakes, partId, setBlock, shapeOf, suited, withField } from '../../plan/edit'
import { Pick } from './Inputs'
import { OptionList } from './OptionList'
import { SayField } from './SayField'
import { ShowEditor } from './ShowEditor'
import { NumberField } from '../../ui/NumberField'
import { counts, phases } from './words'

/** All else that a block can say, folded away until it is wanted. */
export function BlockMore({ block, moves }: { block: PlanBlock; moves: Move[] }) {
  const { plan, change } = useClassEditor()
  const outline = useOutline(partId(block))
  const shape = shapeOf(block)
  const id = partId(block)
  const set = <K extends keyof PlanBlock>(key: K, value: PlanBlock[K] | undefined) =>
    change(`${String(key)} ${id}`, (draft) => ({
      ...draft,
      plan: setBlock(draft.plan, id, (b) => withField(b, key, value)),
    }))
  const rounds = blockTakes(shape, 'betweenRounds')
  return (
    <div className={css.unfolded}>
      <div className={css.fields}>
        <Pick
          label="Phase"
          words={phases}
          value={block.phase}
          onChange={(v) => set('phase', v as PlanBlock['phase'])}
        />
        <Pick
          label="If the class runs late"
          width={150}
          words={[
            ['protected', 'keep in full'],
            ['normal', 'can be shortened'],
            ['droppable', 'can be left out'],
          ]}
          value={block.keep ?? (block.phase === 'cooldown' ? 'protected' : 'normal')}
          onChange={(v) => set('keep', v as PlanBlock['keep'])}
        />
        {shape !== 'talk' && (
          <>
            <Pick
              label="Starts"
              width={150}
              words={[
                ['bell', 'by itself'],
                ['block', 'when I press Go'],
                ['rests', 'when I press Go, after every rest too'],
              ]}
              value={block.gate ?? 'bell'}
              onChange={(v) => set('gate', v === 'bell' ? undefined : (v as PlanBlock['gate']))}
            />
            {rounds && (
              <Pick
                label="Sides"
                width={180}
                words={[
                  ['station', 'both sides at each station'],
                  ...(shape === 'rotation'
                    ? []
                    : ([['round', 'the whole round left, then right']] as [string, string][])),
                  ['alternate', 'one side each round, alternating'],
                ]}
                value={block.sidePass ?? 'station'}
                onChange={(v) =>
                  change('sidePass', (draft) => ({
                    ...draft,
                    plan: setBlock(draft.plan, id, (b) => {
                      const next = withField(b, 'sidePass', v === 'station' ? undefined : (v as PlanBlock['sidePass']))
                      return { ...next, stations: next.stations?.map((station) => suited(station, next)) }
                    }),
                  }))
                }
              />
            )}
            <Pick
              label="Start on"
              words={[
                ['left', 'left'],
                ['right', 'right'],
              ]}
              none={`as the class (${plan.startSide ?? 'left'})`}
              width={150}
              value={block.startSide}
              onChange={(v) => set('startSide', v as PlanBlock['startSide'])}
            />
            <Pick
              label="Counting reps aloud"
              words={counts}
              none="as the class"
              width={150}
              value={block.count}
              onChange={(v) => set('count', v as PlanBlock['count'])}
            />
            {shape !== 'ownPace' && (
              <>
                <NumberField
                  label={shape === 'sets' ? 'Sets' : 'rounds that may be left out'}
                  suffix=""
                  step={1}
                  max={Math.max(0, (block.rounds ?? 1) - 1)}
                  value={block.optionalRounds ?? 0}
                  onChange={(v) => set('optionalRounds', v || undefined)}
                />
                <Checkbox
                  mt={24}
                  label="Drink break in the rests between rounds"
                  checked={block.water ?? false}
                  onChange={(event) => set('water', event.currentTarget.checked || undefined)}
                />
              </>
            )}
            {shape === 'ownPace' && block.goalReps !== undefined && (
              <Checkbox
                mt={24}
                label="Shared target: the whole room adds up"
                checked={block.goalShared ?? false}
                onChange={(event) => set('goalShared', event.currentTarget.checked || undefined)}
              />
            )}
          </>
        )}
      </div>
      <div className={css.fields}>
        <TextInput
          label="Led by"
          size="xs"
          w={180}
          maxLength={120}
          placeholder="you"
          value={block.shownBy ?? ''}
          onChange={(event) => set('shownBy', event.currentTarget.value || undefined)}
        />
        <NumberField
          label="Rest after the block"
          width={130}
          max={600}
          value={block.afterSeconds}
          placeholder="none"
          onChange={(v) => set('afterSeconds', v || undefined)}
        />
        {shape !== 'talk' && (
          <SayField value={block.say} before={outline?.before ?? 0} onChange={(v) => set('say', v)} />
        )}
        {block.recovery && shape !== 'ownPace' && (
          <Checkbox
            mt={24}
            label="Easy movement in changeovers too"
            checked={block.recoveryIn === 'all'}
            onChange={(event) => set('recoveryIn', event.currentTarget.checked ? 'all' : undefined)}
          />
        )}
        {shape === 'talk' && (
          <Checkbox
            mt={24}
            label="Drink break"
            checked={block.water ?? false}
            onChange={(event) => set('water', event.currentTarget.checked || undefined)}
          />
        )}
      </div>
      {shape === 'talk' && (
        <ShowEditor
          block={block}
          moves={moves}
          onChange={(next) => change(`show ${id}`, (draft) => ({ ...draft, plan: setBlock(draft.plan, id, next) }))}
        />
      )}
      {shape !== 'talk' && (
        <OptionList
          label="Easy movement in the rests"
          options={block.recovery ?? []}
          moves={moves}
          onChange={(next) =>
            change(`recovery ${id}`, (draft) => ({
              ...draft,
              plan: setBlock(draft.plan, id, (b) => ({
                ...withField(withField(b, 'recovery', next), 'recoveryIn', next ? b.recoveryIn : undefined),
              })),
            }))
          }
        />
      )}
      <Textarea
        label="Notes"
        size="xs"
        autosize
        minRows={1}
        maxLength={4000}
        value={block.notes ?? ''}
        onChange={(event) => set('notes', event.currentTarget.value || undefined)}
      />
      <KeepTemplate block={block} />
    </div>
  )
}

function KeepTemplate({ block }: { block: PlanBlock }) {
  const add = useAct('addTemplate')
  // One of the same name is brought up to date, so that there are not two that cannot be told apart.
  const there = useTemplates().data?.find((t) => t.name === block.name)
  const [told, setTold] = useState('')
  const keep = () => {
    if (!there) return add.mutate({ name: block.name, block })
    const stands = { name: there.name, block: there.block }
    void change('template', there.id, stands, there.revision, { name: block.name, block })
      .settled()
      .then(({ state }) => setTold(state === 'saved' ? 'The template is now as this block is.' : ''))
  }
  return (
    <p className={css.keep}>
      <Button size="xs" variant="default" onClick={keep}>
        {there ? `Update the template “${there.name}”` : 'Save as a template'}
      </Button>
      <span role="status">{told || (add.isSuccess && 'Saved. Find it under “Add a block”.')}</span>
    </p>
  )
}
