import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import type { Move, PlanBlock, PlanStation } from '../../api/client'
import { troubleWords } from '../../api/client'
import { stationStarter } from '../../api/queries'
import { FamilyMark } from '../../ui/FamilyMark'
import { Tools } from '../../ui/Tools'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { DoseInput } from './DoseInput'
import { doubled, lacking, mainOption, nudged, partId, setBlock, setStation } from '../../plan/edit'
import { copyOfStation } from '../../plan/ids'
import { FaultsAt } from './FaultsAt'
import { Handle, useCard } from './Handle'
import { OptionStack } from './OptionStack'
import { SideSelect } from './SideSelect'
import { StationMore } from './StationMore'
import { useBenchContext } from './useBench'

/** Where it stands just now; what it is goes by its id. */
export interface Place {
  block: number
  station: number
}

interface Props {
  station: PlanStation
  block: PlanBlock
  place: Place
  moves: Move[]
}

export function StationCard({ station, block, place, moves }: Props) {
  const { evaluation, change } = useClassEditor()
  const queries = useQueryClient()
  const { block: b, station: s } = place
  const [id, blockId] = [partId(station), partId(block)]
  const bench = useBenchContext()
  const card = useCard(bench, { block: blockId, station: id })
  const [trouble, setTrouble] = useState('')
  const [more, setMore] = useState(false)
  const stations = block.stations ?? []
  const outline = evaluation?.outline.find((o) => o.id === blockId)?.stations.find((o) => o.id === id)
  const main = mainOption(station)
  const move = moves.find((m) => m.id === main?.move)
  const name = station.name ?? move?.name ?? outline?.name ?? ''
  const place1 = `${s + 1}`
  const setStations = (label: string, next: (stations: PlanStation[]) => PlanStation[]) =>
    change(label, (draft) => ({
      ...draft,
      plan: setBlock(draft.plan, blockId, (old) => ({ ...old, stations: next(old.stations ?? []) })),
    }))

  const setThis = (label: string, next: (station: PlanStation) => PlanStation) =>
    change(`${label} ${id}`, (draft) => ({ ...draft, plan: setStation(draft.plan, id, next) }))

  /** Another main move: its own usual options come with it, the dose stays. */
  const wanted = useRef('')
  async function swapMove(to: string) {
    wanted.current = to
    setTrouble('')
    try {
      const starter = await queries.fetchQuery(stationStarter(to))
      // Searching the list with the keyboard passes over others on the way.
      if (wanted.current !== to) return
      change('swap move', (draft) => ({
        ...draft,
        plan: setStation(draft.plan, id, (old) => {
          // The main option stays the one it is, done with another move.
          const main = mainOption(old)
          const options = structuredClone(starter.station.options).map((option) =>
            option.tier === 'main' && main?.id ? { ...option, id: main.id } : option,
          )
          const next = { ...old, options }
          delete next.name
          return next
        }),
      }))
    } catch (error) {
      setTrouble(`The move was not changed. ${troubleWords(error)}`)
    }
  }

  return (
    <article
      className={css.station}
      aria-label={`Station ${place1}: ${name}`}
      id={`station-${id}`}
      tabIndex={-1}
      {...card}
    >
      <div className={css.stationHead}>
        <Handle spot={{ block: blockId, station: id }} what={`station ${name}`} />
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
          onMove={(by) => setStations('move station', (all) => nudged(all, id, by))}
          onCopy={() => setStations('copy station', (all) => doubled(all, id, copyOfStation))}
          onRemove={stations.length > 1 ? () => setStations('remove station', (all) => lacking(all, id)) : undefined}
        />
      </div>
      <div className={css.stationBody}>
        <div className={css.dose}>
          <DoseInput station={station} block={block} name={name} />
          <div className={css.doseRow}>
            <SideSelect station={station} block={block} onChange={setThis} />
            <button type="button" className={css.moreButton} aria-expanded={more} onClick={() => setMore(!more)}>
              {more ? 'Less' : 'More'}
              <span className="hidden"> about station {name}</span>
            </button>
          </div>
        </div>
        <OptionStack
          station={station}
          moves={moves}
          words={outline?.options ?? []}
          trades={outline?.trades ?? []}
          onSwapMain={swapMove}
        />
      </div>
      {more && <StationMore station={station} block={block} moves={moves} onChange={setThis} />}
      {trouble && (
        <p className={css.trouble} role="alert">
          {trouble}
        </p>
      )}
      <FaultsAt pointer={`/blocks/${b}/stations/${s}`} />
    </article>
  )
}
