import { Button, TextInput } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useContext, useState } from 'react'
import type { Move, PlanBlock } from '../../api/client'
import { troubleWords } from '../../api/client'
import { stationStarter } from '../../api/queries'
import { Tools } from '../../ui/Tools'
import { clock } from '../../ui/time'
import { useBlockStart, useClassEditor } from '../editor/context'
import { BlockTiming } from './BlockTiming'
import css from './Build.module.css'
import { BlockMore } from './BlockMore'
import { doubled, lacking, nudged, partId, setBlock } from '../../plan/edit'
import { copyOfBlock } from '../../plan/ids'
import { FaultsAt } from './FaultsAt'
import { Handle, useCard } from './Handle'
import { MoveSelect } from './MoveSelect'
import { StationCard } from './StationCard'
import { CopiedContext, useBenchContext } from './useBench'

export function BlockCard({ block, index, moves }: { block: PlanBlock; index: number; moves: Move[] }) {
  const { plan, evaluation, change } = useClassEditor()
  const queries = useQueryClient()
  const bench = useBenchContext()
  const id = partId(block)
  const card = useCard(bench, { block: id })
  const [trouble, setTrouble] = useState('')
  const [more, setMore] = useState(false)
  const outline = evaluation?.outline.find((o) => o.id === id)
  const stations = block.stations ?? []
  const copiedItems = useContext(CopiedContext)
  const setBlocks = (label: string, next: (blocks: PlanBlock[]) => PlanBlock[]) =>
    change(label, (draft) => ({ ...draft, plan: { ...draft.plan, blocks: next(draft.plan.blocks) } }))

  async function addStation(move: string) {
    const window = block.windowSeconds
    const roundGivesSide = block.sidePass === 'round' || block.sidePass === 'alternate'
    setTrouble('')
    try {
      const { station } = await queries.fetchQuery(
        stationStarter(move, typeof window === 'number' ? window : undefined, roundGivesSide),
      )
      change('add station', (draft) => ({
        ...draft,
        plan: setBlock(draft.plan, id, (b) => ({ ...b, stations: [...(b.stations ?? []), structuredClone(station)] })),
      }))
    } catch (error) {
      setTrouble(`The station was not added. ${troubleWords(error)}`)
    }
  }

  return (
    <section
      id={`block-${id}`}
      tabIndex={-1}
      className={css.block}
      aria-label={`Block ${index + 1}: ${block.name}`}
      {...card}
    >
      <div className={css.blockHead}>
        <Handle spot={{ block: id }} what={`block ${block.name}`} />
        <TextInput
          className={css.blockName}
          variant="unstyled"
          aria-label={`Name of block ${index + 1}`}
          maxLength={120}
          value={block.name}
          onChange={(event) => {
            const name = event.currentTarget.value
            change(`name ${id}`, (draft) => ({
              ...draft,
              plan: setBlock(draft.plan, id, (b) => ({ ...b, name })),
            }))
          }}
        />
        {outline && (
          <span className={css.blockTime}>
            <From id={id} /> <strong>{outline.words}</strong>
          </span>
        )}
        <Tools
          what={`block ${block.name}`}
          first={index === 0}
          last={index === plan.blocks.length - 1}
          onMove={(by) => setBlocks('move block', (blocks) => nudged(blocks, id, by))}
          onCopy={() => setBlocks('copy block', (blocks) => doubled(blocks, id, copyOfBlock))}
          onRemove={() => setBlocks('remove block', (blocks) => lacking(blocks, id))}
        />
      </div>
      <div className={css.timingRow}>
        <BlockTiming block={block} />
        <button type="button" className={css.moreButton} aria-expanded={more} onClick={() => setMore(!more)}>
          {more ? 'Less' : 'More'}
          <span className="hidden"> about block {block.name}</span>
        </button>
      </div>
      {more && <BlockMore block={block} moves={moves} />}
      <FaultsAt pointer={`/blocks/${index}`} shallow />
      {stations.map((station, s) => (
        <StationCard
          key={partId(station)}
          station={station}
          block={block}
          place={{ block: index, station: s }}
          moves={moves}
        />
      ))}
      {block.format !== 'talk' && stations.length < 16 && (
        <div className={css.addStation}>
          <MoveSelect
            moves={moves}
            value=""
            label={`Add a station to ${block.name}`}
            hideLabel
            placeholder="+ Add a station"
            onChange={(move) => void addStation(move)}
          />
          {copiedItems?.kind === 'stations' && (
            <Button size="xs" variant="default" onClick={() => bench.paste(id)}>
              Paste {copiedItems.items.length === 1 ? 'the station' : `${copiedItems.items.length} stations`}
            </Button>
          )}
          {trouble && (
            <span className={css.trouble} role="alert">
              {trouble}
            </span>
          )}
        </div>
      )}
    </section>
  )
}

function From({ id }: { id: string }) {
  const start = useBlockStart(id)
  return start === null ? null : <>from {clock(start)}</>
}
