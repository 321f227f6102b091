import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useContext, useState } from 'react'
import type { Plan, PlanBlock, PlanStation } from '../../api/client'
import { many } from '../../ui/words'
import { troubleWords } from '../../api/client'
import { stationStarter } from '../../api/queries'
import { bounds } from '../../api/language'
import type { SideHabit } from '../../plan/edit'
import {
  keptSides,
  blockTakes,
  mainOption,
  moveStation,
  partId,
  setBlock,
  setStation,
  shapeOf,
  splits,
  withField,
  withSides,
} from '../../plan/edit'
import { copyOfOption } from '../../plan/ids'
import { NumberField } from '../../ui/NumberField'
import { Redraw } from '../draft/Redraw'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { problemWords, readDose, taken } from './DoseInput'
import { sideRules } from './SideSelect'
import { SelectedContext, useBenchContext } from './useBench'

/** What can be done with all that is chosen, at once and undone at once. */
export function SelectionBar() {
  const bench = useBenchContext()
  const selected = useContext(SelectedContext)
  const [redraw, setRedraw] = useState(false)
  const count = selected.length
  if (count === 0) return null
  const blocks = selected[0]?.station === undefined
  const what = blocks ? (count === 1 ? 'block' : 'blocks') : count === 1 ? 'station' : 'stations'
  return (
    <div className={css.selection} role="region" aria-label="Selection">
      <div className={css.selectionRow}>
        <span role="status">
          {count} {what} selected
        </span>
        <Button size="xs" variant="default" onClick={bench.copy} title="Ctrl+C">
          Copy
        </Button>
        <Button
          size="xs"
          variant="default"
          title="Ctrl+X"
          onClick={() => {
            bench.copy()
            bench.remove()
          }}
        >
          Cut
        </Button>
        <Button size="xs" variant="default" onClick={bench.duplicate}>
          Duplicate
        </Button>
        <Button size="xs" variant="default" onClick={bench.remove}>
          Remove
        </Button>
        <Button size="xs" variant="default" onClick={() => setRedraw(true)}>
          {count === 1 ? 'Keep it, draft the rest' : 'Keep these, draft the rest'}
        </Button>
        <Button size="xs" variant="default" onClick={bench.clear}>
          Clear selection
        </Button>
      </div>
      {redraw && <Redraw pinned={selected.map((s) => s.station ?? s.block)} onClose={() => setRedraw(false)} />}
      <ForAll />
    </div>
  )
}

/** The rest of a station in straight sets, or of its whole block. */
function rested(plan: Plan, block: PlanBlock, station: PlanStation, seconds: number, whole: boolean): Plan {
  return whole
    ? setBlock(plan, partId(block), (b) =>
        withField(b, shapeOf(b) === 'sets' ? 'betweenSets' : 'betweenRounds', seconds),
      )
    : setStation(plan, partId(station), (s) => withField(s, 'betweenSets', seconds))
}

/** Dose, sides, way there and options for all chosen stations. */
function ForAll() {
  const bench = useBenchContext()
  const selected = useContext(SelectedContext)
  const queries = useQueryClient()
  const { plan, core, change } = useClassEditor()
  const [dose, setDose] = useState('')
  const [said, setSaid] = useState('')
  const blocks = selected[0]?.station === undefined
  const places = plan.blocks.flatMap((block) =>
    (block.stations ?? [])
      .filter((station) => selected.some((s) => (blocks ? s.block === block.id : s.station === station.id)))
      .map((station) => ({ block, station })),
  )
  if (places.length === 0) return null

  async function doseAll() {
    const before = core.store.getState().now.plan
    let next = before
    for (const { block, station } of places) {
      const id = partId(station)
      const result = await readDose(dose, next, id).catch(() => null)
      if (!result) return
      if (!('read' in result)) {
        setSaid(`Nothing was changed. ${problemWords(result.problem)}`)
        return
      }
      const asked = next.blocks.find((b) => b.id === block.id) ?? block
      const sided = (b: PlanBlock): PlanBlock => ({
        ...b,
        stations: b.stations?.map((s) => (s.id === id ? keptSides(station, s) : s)),
      })
      next = setBlock(next, partId(block), (b) => sided(taken(b, asked, result.read.block, id)))
    }
    if (core.store.getState().now.plan !== before)
      return setSaid('The class changed in the meantime. Press Enter again.')
    change('dose of many', (draft) => ({ ...draft, plan: next }))
    setSaid(`Target set at ${many(places.length, 'station', 'stations')}.`)
    setDose('')
  }

  async function offer(tier: 'easier' | 'harder') {
    try {
      const found = new Map<string, Awaited<ReturnType<ReturnType<typeof stationStarter>['queryFn']>>>()
      for (const { station } of places) {
        const move = mainOption(station)?.move
        if (move && !found.has(move)) found.set(move, await queries.fetchQuery(stationStarter(move)))
      }
      let given = 0
      const give = (station: PlanStation) => {
        const proposal = found.get(mainOption(station)?.move ?? '')?.proposals[tier]
        if (!proposal || station.options.some((o) => o.tier === tier) || station.options.length >= 9) return station
        given++
        return { ...station, options: [...station.options, copyOfOption(proposal.option)] }
      }
      bench.each(`${tier} for many`, give)
      setSaid(
        given === 0
          ? 'Nothing to add: each has one already, or there is no suggestion.'
          : `${tier === 'easier' ? 'Easier' : 'Harder'} option added at ${many(given, 'station', 'stations')}.`,
      )
    } catch (error) {
      setSaid(`Nothing was changed. ${troubleWords(error)}`)
    }
  }

  const oneByOne = places.every(({ block }) => shapeOf(block) === 'circuit' || shapeOf(block) === 'sets')
  // A station has a rest of its own in straight sets; a block has one between its sets or its rounds.
  const rests = places.every(({ block }) => shapeOf(block) === 'sets')
    ? 'Rest between sets'
    : blocks && places.every(({ block }) => shapeOf(block) === 'sets' || blockTakes(shapeOf(block), 'betweenRounds'))
      ? 'Rest between rounds'
      : null
  const targets = plan.blocks.filter((block) => block.format !== 'talk')
  return (
    <div className={css.selectionRow}>
      <TextInput
        size="xs"
        aria-label="Target for all selected stations"
        placeholder="Target for all, then Enter"
        w={150}
        value={dose}
        onChange={(event) => setDose(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && dose.trim() !== '') void doseAll()
        }}
      />
      <NativeSelect
        size="xs"
        aria-label="Sides for all selected stations"
        w={150}
        value=""
        onChange={(event) => {
          const rule = event.currentTarget.value as SideHabit
          const apt = places.filter(({ station }) => rule !== 'split' || splits(station)).length
          bench.each('sides of many', (station, block) =>
            block.sidePass === 'round' || block.sidePass === 'alternate' ? station : withSides(station, rule),
          )
          setSaid(`Sides changed at ${many(apt, 'station', 'stations')}.`)
        }}
      >
        <option value="">Sides…</option>
        {sideRules.map((rule) => (
          <option key={rule.value} value={rule.value}>
            {rule.label}
          </option>
        ))}
      </NativeSelect>
      {oneByOne && (
        <NumberField
          label="Changeover before each selected station"
          hideLabel
          placeholder="Changeover, s"
          width={110}
          {...bounds.PlanStation.changeSeconds}
          value={undefined}
          onChange={(seconds) => {
            if (seconds === undefined) return
            bench.each('change of many', (station) => withField(station, 'changeSeconds', seconds))
            setSaid(`Changeover set at ${many(places.length, 'station', 'stations')}.`)
          }}
        />
      )}
      {rests && (
        <NumberField
          label={`${rests}, for everything selected`}
          hideLabel
          placeholder={`${rests}, s`}
          width={150}
          {...bounds.PlanStation.betweenSets}
          value={undefined}
          onChange={(seconds) => {
            if (seconds === undefined) return
            change('rest of many', (draft) => ({
              ...draft,
              plan: places.reduce(
                (next, { block, station }) => rested(next, block, station, seconds, blocks),
                draft.plan,
              ),
            }))
            setSaid('Rest changed.')
          }}
        />
      )}
      <Button size="xs" variant="default" onClick={() => void offer('easier')}>
        Add easier
      </Button>
      <Button size="xs" variant="default" onClick={() => void offer('harder')}>
        Add harder
      </Button>
      {!blocks && targets.length > 1 && (
        <NativeSelect
          size="xs"
          aria-label="Move all that is chosen to another block"
          w={140}
          value=""
          onChange={(event) => {
            const to = event.currentTarget.value
            change('move stations', (draft) => ({
              ...draft,
              plan: places.reduce((next, { station }) => moveStation(next, partId(station), to), draft.plan),
            }))
          }}
        >
          <option value="">Move to block…</option>
          {targets.map((block) => (
            <option key={block.id} value={partId(block)}>
              {block.name}
            </option>
          ))}
        </NativeSelect>
      )}
      <span role="status">{said}</span>
    </div>
  )
}
