import { replaceEqualDeep } from '@tanstack/react-query'
import { Fragment, memo, useContext, useEffect, useMemo, useState } from 'react'
import type { Move, PlanBlock } from '../../api/client'
import { troubleWords } from '../../api/client'
import { useMoves } from '../../api/queries'
import { blockOf, mainOption, partId } from '../../plan/edit'
import { EditorContext, useClassEditor } from '../editor/context'
import { MovePicker } from '../moves/MovePicker'
import { AddBlock } from './AddBlock'
import { BlockCard } from './BlockCard'
import css from './Build.module.css'
import type { Removed } from './Gone'
import { Gone } from './Gone'
import type { Picking } from './commands'
import { useCommands } from './commands'
import { KeySheet, Palette } from './Palette'
import { PasteMoves } from './PasteMoves'
import { SelectionBar } from './SelectionBar'
import { BenchContext, CopiedContext, SelectedContext, useBench, useBenchContext } from './useBench'
import { useKeys } from './useKeys'
import { OpenContext, useOpened, useOpening } from './useOpen'
import { PicturesContext, usePictures } from './usePictures'
import { useStations } from './useStations'
import { Totals, Verdict } from './Verdict'

/** From so many stations on, only a block that is open offers to take more: the class is to be seen at a glance. */
const LONG = 24

/** The bench: the whole class at a glance on the left, what it adds up to on the right. */
export function BuildPage() {
  const { plan } = useClassEditor()
  const library = useMoves().data
  // A class from elsewhere may carry moves that are not in this library.
  const moves = useMemo(() => {
    const known = new Set((library ?? []).map((move) => move.id))
    const carried = (plan.moves ?? []).filter((move) => !known.has(move.id)) as unknown as Move[]
    return [...(library ?? []), ...carried]
  }, [library, plan.moves])
  const { bench, selected, copied, list } = useBench()
  const pictures = usePictures()
  const opened = useOpening()
  const [removed, setRemoved] = useState<Removed | null>(null)
  const gone = removed && <Gone key={removed.key} words={removed.words} onGone={() => setRemoved(null)} />
  const many = plan.blocks.reduce((sum, block) => sum + (block.stations ?? []).length, 0)

  // The keys of the bench work from the start, and when what had the focus is gone with what was removed.
  useEffect(() => {
    // Only once the press has gone its way: while a field is left, nothing has the focus yet, and Tab is still under way.
    const wait = setTimeout(() => {
      if (document.activeElement === document.body) document.getElementById('bench')?.focus({ preventScroll: true })
    })
    return () => clearTimeout(wait)
  }, [plan])

  return (
    <BenchContext value={bench}>
      <SelectedContext value={selected}>
        <CopiedContext value={copied}>
          <PicturesContext value={pictures}>
            <OpenContext value={opened}>
              <div className={css.bench}>
                <main id="bench" tabIndex={-1} className={css.blocks} data-long={many > LONG} aria-label="The class">
                  {plan.blocks.length === 0 && (
                    <p className={css.empty}>
                      Nothing here yet. Most classes have a warm-up, one or two blocks of stations and a cool-down. The
                      tape above fills as you build.
                    </p>
                  )}
                  {plan.blocks.map((block, b) => (
                    <Fragment key={partId(block)}>
                      {removed?.at === b && gone}
                      <BlockScope block={block} index={b} moves={moves} onRemoved={setRemoved} />
                    </Fragment>
                  ))}
                  {removed && removed.at >= plan.blocks.length && gone}
                  <AddBlock empty={plan.blocks.length === 0} />
                </main>
                <Verdict />
                <Totals />
                <SelectionBar />
                <ByKeys moves={moves} list={list} />
              </div>
            </OpenContext>
          </PicturesContext>
        </CopiedContext>
      </SelectedContext>
    </BenchContext>
  )
}

/** What is done without the mouse, and the windows that belong to it. */
function ByKeys({ moves, list }: { moves: Move[]; list: string }) {
  const { plan } = useClassEditor()
  const { open, show } = useOpened()
  const maker = useStations()
  const [picking, setPicking] = useState<Picking | null>(null)
  const [shown, setShown] = useState<'palette' | 'sheet' | null>(null)
  const [trouble, setTrouble] = useState('')
  const takers = plan.blocks.filter((b) => b.format !== 'talk')
  const into =
    takers.find((b) => open === `block-${b.id}` || b.stations?.some((s) => open === `station-${s.id}`)) ?? takers.at(-1)
  const bench = useBenchContext()
  const selected = useContext(SelectedContext)
  const { commands, remember } = useCommands(moves, setPicking)
  useKeys(commands, {
    palette: () => {
      remember()
      setShown('palette')
    },
    sheet: () => setShown('sheet'),
    escape: () => {
      if (open === '' && selected.length > 0) return bench.clear()
      const card = document.getElementById(open) ?? document.getElementById('bench')
      card?.focus()
      if (open !== '') show('')
    },
  })

  /** A window that closes gives the focus back; where that is gone, to the bench and not to the page behind. */
  function close() {
    setShown(null)
    setPicking(null)
    setTimeout(() => {
      if (document.activeElement === document.body) document.getElementById('bench')?.focus({ preventScroll: true })
    }, 80)
  }

  async function choose(what: Picking, move: string) {
    setTrouble('')
    try {
      if (what.to === 'swap') {
        await maker.swap(what.station, move)
        show(`station-${what.station}`, 'card')
      } else {
        const block = plan.blocks.find((b) => b.id === what.block)
        if (block) show(`station-${await maker.add(block, move, what.behind)}`, 'dose')
      }
    } catch (error) {
      setTrouble(`Nothing was changed. ${troubleWords(error)}`)
    }
  }

  const swapped = picking?.to === 'swap' ? blockOf(plan, picking.station) : undefined
  const station = swapped?.stations?.find((s) => picking?.to === 'swap' && s.id === picking.station)
  return (
    <>
      <p className={css.keyHint} data-screen-only>
        <button type="button" className={css.quiet} title="Ctrl K" onClick={() => setShown('palette')}>
          All commands (Ctrl K)
        </button>
        <button type="button" className={css.quiet} title="?" onClick={() => setShown('sheet')}>
          Shortcuts (?)
        </button>
      </p>
      {trouble && (
        <p role="alert" className={css.trouble}>
          {trouble}
        </p>
      )}
      {list !== '' && into && <PasteMoves block={into} first={list} onClose={() => bench.takeList('')} />}
      {shown === 'palette' && <Palette commands={commands} onClose={close} />}
      {shown === 'sheet' && <KeySheet commands={commands} onClose={close} />}
      {picking && (
        <MovePicker
          title={picking.to === 'add' ? 'Add a station' : 'Swap the move'}
          current={station ? (mainOption(station)?.move ?? '') : ''}
          onChoose={(move) => {
            setPicking(null)
            void choose(picking, move)
          }}
          onClose={close}
        />
      )}
    </>
  )
}

interface ScopeProps {
  block: PlanBlock
  index: number
  moves: Move[]
  onRemoved: (removed: Removed) => void
}

const Card = memo(BlockCard)

/** A value that stays the same object while it says the same. */
function useKept<T>(value: T): T {
  const [kept, keep] = useState(value)
  const next = replaceEqualDeep(kept, value)
  if (next !== kept) keep(next)
  return next
}

/** Gives a block the editor anew only when something that concerns the block has changed: typing in one leaves the others be. */
function BlockScope({ block, index, moves, onRemoved }: ScopeProps) {
  const editor = useClassEditor()
  const { plan, evaluation, checks, faults } = editor
  // When a block begins is told by a part of its own, or every key would draw anew all that come after.
  const outline = useKept({ ...evaluation?.outline.find((o) => o.id === block.id), start: 0, end: 0, block: 0 })
  const at = `/blocks/${index}`
  const here = useKept(faults.filter((fault) => fault.pointer.startsWith(at)))
  const found = useKept(
    checks.findings
      .filter((f) => f.pointer === at || f.pointer?.startsWith(`${at}/`))
      .map((f) => [f.place, f.what, f.waived]),
  )
  const shell = useKept({ ...plan, blocks: plan.blocks.length, waivers: null })
  const scoped = useMemo(
    () => editor,
    // eslint-disable-next-line react-hooks/exhaustive-deps -- all that a block shows of the editor is in these
    [block, outline, here, found, shell, index, editor.change],
  )
  return (
    <EditorContext value={scoped}>
      <Card onRemoved={onRemoved} block={block} index={index} moves={moves} />
    </EditorContext>
  )
}
