import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import type { Move, PlanStation } from '../../api/client'
import { stationStarter } from '../../api/queries'
import { FamilyMark } from '../../ui/FamilyMark'
import { Tools } from '../../ui/Tools'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { DoseInput } from './DoseInput'
import { copied, mainOption, moved, setBlock, setStation, without } from './edit'
import { FaultsAt } from './FaultsAt'
import { Handle, useCard } from './Handle'
import { OptionStack } from './OptionStack'
import { SideSelect } from './SideSelect'
import { StationMore } from './StationMore'
import { useBenchContext } from './useBench'

export interface Place {
  block: number
  station: number
}

interface Props {
  station: PlanStation
  place: Place
  moves: Move[]
}

export function StationCard({ station, place, moves }: Props) {
  const { plan, evaluation, change } = useClassEditor()
  const queries = useQueryClient()
  const { block: b, station: s } = place
  const bench = useBenchContext()
  const card = useCard(bench, place, plan.blocks[b]?.stations?.length ?? 0)
  const [more, setMore] = useState(false)
  const stations = plan.blocks[b]?.stations ?? []
  const outline = evaluation?.outline[b]?.stations[s]
  const main = mainOption(station)
  const move = moves.find((m) => m.id === main?.move)
  const name = station.name ?? move?.name ?? 'Station'
  const place1 = `${s + 1}`
  const setStations = (label: string, next: (stations: PlanStation[]) => PlanStation[]) =>
    change(label, (draft) => ({
      ...draft,
      plan: setBlock(draft.plan, b, (block) => ({ ...block, stations: next(block.stations ?? []) })),
    }))

  const setThis = (label: string, next: (station: PlanStation) => PlanStation) =>
    change(`${label} ${b} ${s}`, (draft) => ({ ...draft, plan: setStation(draft.plan, b, s, next) }))

  /** Another main move: its own usual options come with it, the dose stays. */
  const wanted = useRef('')
  async function swapMove(to: string) {
    wanted.current = to
    const starter = await queries.fetchQuery(stationStarter(to))
    // Searching the list with the keyboard passes over others on the way.
    if (wanted.current !== to) return
    change('swap move', (draft) => ({
      ...draft,
      plan: setStation(draft.plan, b, s, (old) => {
        const next = { ...old, options: structuredClone(starter.station.options) }
        delete next.name
        return next
      }),
    }))
  }

  return (
    <article
      className={css.station}
      aria-label={`Station ${place1}: ${name}`}
      id={`station-${b}-${s}`}
      tabIndex={-1}
      {...card}
    >
      <div className={css.stationHead}>
        <Handle spot={place} what={`station ${name}`} />
        {move && <FamilyMark family={move.family} />}
        <h3 className={css.stationName}>{name}</h3>
        {outline && (
          <span className={css.needs}>
            {outline.target !== outline.words && outline.target} <strong>{outline.words}</strong>
          </span>
        )}
        <Tools
          what={`station ${name}`}
          first={s === 0}
          last={s === stations.length - 1}
          onMove={(by) => setStations('move station', (all) => moved(all, s, s + by))}
          onCopy={() => setStations('copy station', (all) => copied(all, s))}
          onRemove={stations.length > 1 ? () => setStations('remove station', (all) => without(all, s)) : undefined}
        />
      </div>
      <div className={css.stationBody}>
        <div className={css.dose}>
          <DoseInput place={place} name={name} />
          <div className={css.doseRow}>
            <SideSelect station={station} place={place} onChange={setThis} />
            <button type="button" className={css.moreButton} aria-expanded={more} onClick={() => setMore(!more)}>
              {more ? 'Less' : 'More'}
              <span className="hidden"> about station {name}</span>
            </button>
          </div>
        </div>
        <OptionStack
          station={station}
          place={place}
          moves={moves}
          words={outline?.options ?? []}
          trades={outline?.trades ?? []}
          onSwapMain={swapMove}
        />
      </div>
      {more && <StationMore station={station} place={place} moves={moves} onChange={setThis} />}
      <FaultsAt pointer={`/blocks/${b}/stations/${s}`} />
    </article>
  )
}
