import { Button, TextInput } from '@mantine/core'
import { Fragment, useContext, useState } from 'react'
import type { Move, PlanBlock } from '../../api/client'
import { troubleWords } from '../../api/client'
import { Tools } from '../../ui/Tools'
import { clock } from '../../ui/time'
import { useBlockStart, useClassEditor, useOutline } from '../editor/context'
import { BlockTiming } from './BlockTiming'
import css from './Build.module.css'
import { BlockMore } from './BlockMore'
import { doubled, lacking, nudged, partId, setBlock } from '../../plan/edit'
import { copyOfBlock } from '../../plan/ids'
import { FaultsAt } from './FaultsAt'
import type { Removed } from './Gone'
import { Gone, removedAt } from './Gone'
import { Handle, useCard } from './Handle'
import { MoveSelect } from './MoveSelect'
import { PasteMoves } from './PasteMoves'
import { Mark, StationCard } from './StationCard'
import { CopiedContext, useBenchContext } from './useBench'
import { useOpened } from './useOpen'
import { MOST_STATIONS, useStations } from './useStations'

/** A block as a heading over its stations; opened, with its clock. */
interface BlockProps {
  block: PlanBlock
  index: number
  moves: Move[]
  onRemoved: (removed: Removed) => void
}

export function BlockCard({ block, index, moves, onRemoved }: BlockProps) {
  const { plan, checks, change } = useClassEditor()
  const bench = useBenchContext()
  const id = partId(block)
  const card = useCard(bench, { block: id })
  const { open, show } = useOpened()
  const isOpen = open === `block-${id}`
  const [more, setMore] = useState(false)
  const [removed, setRemoved] = useState<Removed | null>(null)
  const gone = removed && <Gone key={removed.key} words={removed.words} onGone={() => setRemoved(null)} />
  const outline = useOutline(id)
  const stations = block.stations ?? []
  const setBlocks = (label: string, next: (blocks: PlanBlock[]) => PlanBlock[]) =>
    change(label, (draft) => ({ ...draft, plan: { ...draft.plan, blocks: next(draft.plan.blocks) } }))
  const toggle = () => show(isOpen ? '' : `block-${id}`)

  return (
    <section
      id={`block-${id}`}
      tabIndex={-1}
      className={css.block}
      aria-label={`Block ${index + 1}: ${block.name}`}
      data-open={isOpen}
      data-block={id}
      {...card}
    >
      <div className={css.blockHead}>
        <Handle spot={{ block: id }} what={`block ${block.name}`} />
        {isOpen ? (
          <TextInput
            id={`name-block-${id}`}
            className={css.blockName}
            variant="unstyled"
            aria-label={`Name of block ${index + 1}`}
            maxLength={120}
            value={block.name}
            onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
            onChange={(event) => {
              const name = event.currentTarget.value
              change(`name ${id}`, (draft) => ({
                ...draft,
                plan: setBlock(draft.plan, id, (b) => ({ ...b, name })),
              }))
            }}
          />
        ) : (
          <button type="button" className={css.blockTitle} aria-expanded={false} onClick={toggle}>
            <strong>{block.name}</strong> <span>{outline?.runs}</span>
          </button>
        )}
        <Mark findings={checks.findings.filter((finding) => finding.place === id)} />
        {outline && (
          <span className={css.blockTime}>
            <From id={id} /> <strong>{outline.words}</strong>
          </span>
        )}
        {isOpen && (
          <button type="button" className={css.moreButton} aria-expanded onClick={toggle}>
            Close
            <span className="hidden"> block {block.name}</span>
          </button>
        )}
        <Tools
          what={`block ${block.name}`}
          first={index === 0}
          last={index === plan.blocks.length - 1}
          onMove={(by) => setBlocks('move block', (blocks) => nudged(blocks, id, by))}
          onCopy={() => setBlocks('copy block', (blocks) => doubled(blocks, id, copyOfBlock))}
          onRemove={() => {
            setBlocks('remove block', (blocks) => lacking(blocks, id))
            onRemoved(removedAt(block.name, index))
          }}
        />
      </div>
      {isOpen && (
        <>
          <div className={css.timingRow}>
            <BlockTiming block={block} />
            <button type="button" className={css.moreButton} aria-expanded={more} onClick={() => setMore(!more)}>
              {more ? 'Less' : 'More'}
              <span className="hidden"> settings for {block.name}</span>
            </button>
          </div>
          {more && <BlockMore block={block} moves={moves} />}
        </>
      )}
      <FaultsAt pointer={`/blocks/${index}`} shallow />
      {stations.map((station, s) => (
        <Fragment key={partId(station)}>
          {removed?.at === s && gone}
          <StationCard
            station={station}
            block={block}
            place={{ block: index, station: s }}
            moves={moves}
            onRemoved={setRemoved}
          />
        </Fragment>
      ))}
      {removed && removed.at >= stations.length && gone}
      {block.format !== 'talk' && stations.length < MOST_STATIONS && <Adding block={block} moves={moves} />}
    </section>
  )
}

/** Adds stations to a block: one from the library, what was copied, or a list of moves. */
function Adding({ block, moves }: { block: PlanBlock; moves: Move[] }) {
  const bench = useBenchContext()
  const copied = useContext(CopiedContext)
  const { show } = useOpened()
  const maker = useStations()
  const [trouble, setTrouble] = useState('')
  const [pasting, setPasting] = useState(false)

  async function add(move: string) {
    setTrouble('')
    try {
      show(`station-${await maker.add(block, move)}`, 'dose')
    } catch (error) {
      setTrouble(`The station could not be added. ${troubleWords(error)}`)
    }
  }

  return (
    <div className={css.addStation}>
      <MoveSelect
        moves={moves}
        value=""
        label={`Add a station to ${block.name}`}
        hideLabel
        placeholder="+ Add a station"
        onChange={(move) => void add(move)}
      />
      <button type="button" className={css.quiet} onClick={() => setPasting(true)}>
        Paste a list of moves
        <span className="hidden"> to {block.name}</span>
      </button>
      {copied?.kind === 'stations' && (
        <Button size="xs" variant="default" onClick={() => bench.paste(partId(block))}>
          Paste {copied.items.length === 1 ? 'the station' : `${copied.items.length} stations`}
        </Button>
      )}
      {pasting && <PasteMoves block={block} onClose={() => setPasting(false)} />}
      {trouble && (
        <span className={css.trouble} role="alert">
          {trouble}
        </span>
      )}
    </div>
  )
}

function From({ id }: { id: string }) {
  const start = useBlockStart(id)
  return start === null ? null : <>starts {clock(start)}</>
}
