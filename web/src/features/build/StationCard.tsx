import type { MouseEvent } from 'react'
import { useContext, useState } from 'react'
import type { Evaluation, Move, PlanBlock, PlanStation } from '../../api/client'
import { troubleWords } from '../../api/client'
import { FamilyMark } from '../../ui/FamilyMark'
import { Thumb } from '../../ui/FigureView'
import { Tools } from '../../ui/Tools'
import { useClassEditor, useOutline } from '../editor/context'
import css from './Build.module.css'
import { DoseInput } from './DoseInput'
import { doubled, inOrder, lacking, mainOption, nudged, partId, setBlock, setStation } from '../../plan/edit'
import { copyOfStation } from '../../plan/ids'
import { FaultsAt } from './FaultsAt'
import { Handle, useCard } from './Handle'
import { OptionStack } from './OptionStack'
import { SideSelect } from './SideSelect'
import { StationMore } from './StationMore'
import { useBenchContext } from './useBench'
import { useOpened } from './useOpen'
import type { Removed } from './Gone'
import { removedAt } from './Gone'
import { PicturesContext } from './usePictures'
import { useStations } from './useStations'
import { tierWord } from '../../ui/words'

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
  onRemoved: (removed: Removed) => void
}

type Finding = Evaluation['findings'][number]

/** How many things are to be looked at here; what they are is told in the list beside the class. */
export function Mark({ findings }: { findings: Finding[] }) {
  const open = findings.filter((finding) => !finding.waived)
  if (open.length === 0) return null
  const words = open.map((finding) => finding.what).join(' ')
  const grave = open.some((finding) => finding.severity === 'fix' || finding.severity === 'stop')
  return (
    <span className={css.mark} data-grave={grave} title={words}>
      {open.length}
      <span className="hidden"> to check: {words}</span>
    </span>
  )
}

/** A station as a row of the class; opened, with all that can be set. */
export function StationCard({ station, block, place, moves, onRemoved }: Props) {
  const { checks, change } = useClassEditor()
  const { block: b, station: s } = place
  const [id, blockId] = [partId(station), partId(block)]
  const bench = useBenchContext()
  const card = useCard(bench, { block: blockId, station: id })
  const { open, show } = useOpened()
  const pictures = useContext(PicturesContext)
  const isOpen = open === `station-${id}`
  const stations = block.stations ?? []
  const outline = useOutline(blockId)?.stations.find((o) => o.id === id)
  const main = mainOption(station)
  const move = moves.find((m) => m.id === main?.move)
  const name = station.name ?? move?.name ?? outline?.name ?? ''
  const setStations = (label: string, next: (stations: PlanStation[]) => PlanStation[]) =>
    change(label, (draft) => ({
      ...draft,
      plan: setBlock(draft.plan, blockId, (old) => ({ ...old, stations: next(old.stations ?? []) })),
    }))
  const toggle = () => show(isOpen ? '' : `station-${id}`)
  const onRow = (event: MouseEvent) => {
    if (!(event.target as HTMLElement).closest('button, input, label, a')) toggle()
  }
  const figure = (option: string | undefined) => (option === undefined ? undefined : pictures?.get(option))
  const mainFigure = figure(main?.id)

  return (
    <article
      className={css.station}
      aria-label={`Station ${s + 1}: ${name}`}
      id={`station-${id}`}
      tabIndex={-1}
      data-open={isOpen}
      data-station={id}
      data-block={blockId}
      {...card}
    >
      <div className={css.row} onClick={onRow}>
        <Handle spot={{ block: blockId, station: id }} what={`station ${name}`} />
        <span className={css.rowFigure}>{mainFigure && <Thumb figure={mainFigure} />}</span>
        <button type="button" className={css.rowName} aria-expanded={isOpen} onClick={toggle}>
          {move && <FamilyMark family={move.family} size={15} />}
          <span>{name}</span>
        </button>
        <span className={css.rowDose} title={outline?.dose}>
          {outline?.dose}
          {station.withNext && ' ↓ linked with the next'}
        </span>
        <span className={css.rowOptions}>
          {inOrder(station.options)
            .filter(({ option }) => option.tier !== 'main')
            .slice(0, 3)
            .map(({ option, index }) => (
              <span key={partId(option)} title={`${tierWord(option.tier)}: ${outline?.options[index] ?? option.move}`}>
                {figure(option.id) && <Thumb figure={figure(option.id)!} />}
                <i>{tierWord(option.tier)}</i>
              </span>
            ))}
        </span>
        <span className={css.rowMark}>
          <Mark
            findings={checks.findings.filter(
              (finding) => finding.place === id || station.options.some((o) => o.id === finding.place),
            )}
          />
        </span>
        {/* What is said beside it already is not said twice. */}
        <span className={css.rowTime}>{outline?.words === outline?.dose ? '' : outline?.words}</span>
        <Tools
          what={`station ${name}`}
          first={s === 0}
          last={s === stations.length - 1}
          onMove={(by) => setStations('move station', (all) => nudged(all, id, by))}
          onCopy={() => setStations('copy station', (all) => doubled(all, id, copyOfStation))}
          onRemove={
            stations.length > 1
              ? () => {
                  setStations('remove station', (all) => lacking(all, id))
                  onRemoved(removedAt(name, s))
                }
              : undefined
          }
        />
      </div>
      {isOpen && <StationBody station={station} block={block} name={name} moves={moves} outline={outline} />}
      <FaultsAt pointer={`/blocks/${b}/stations/${s}`} />
    </article>
  )
}

interface BodyProps {
  station: PlanStation
  block: PlanBlock
  name: string
  moves: Move[]
  outline: Evaluation['outline'][number]['stations'][number] | undefined
}

function StationBody({ station, block, name, moves, outline }: BodyProps) {
  const { change } = useClassEditor()
  const maker = useStations()
  const [trouble, setTrouble] = useState('')
  const [more, setMore] = useState(false)
  const id = partId(station)
  const setThis = (label: string, next: (station: PlanStation) => PlanStation) =>
    change(`${label} ${id}`, (draft) => ({ ...draft, plan: setStation(draft.plan, id, next) }))

  async function swapMove(to: string) {
    setTrouble('')
    try {
      await maker.swap(id, to)
    } catch (error) {
      setTrouble(`The move could not be changed. ${troubleWords(error)}`)
    }
  }

  return (
    <>
      <div className={css.stationBody}>
        <div className={css.dose}>
          <DoseInput station={station} block={block} name={name} />
          <div className={css.doseRow}>
            <SideSelect station={station} block={block} onChange={setThis} />
            <button type="button" className={css.moreButton} aria-expanded={more} onClick={() => setMore(!more)}>
              {more ? 'Less' : 'More'}
              <span className="hidden"> settings for {name}</span>
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
    </>
  )
}
