import { useContext, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Move } from '../../api/client'
import { blockOf, doubled, lacking, mainOption, moveStation, partId, setBlock } from '../../plan/edit'
import { copyOfBlock, copyOfStation } from '../../plan/ids'
import { useClassEditor } from '../editor/context'
import { SelectedContext, useBenchContext } from './useBench'
import type { Spot } from '../../plan/chosen'
import { useOpened } from './useOpen'

/** Something that can be done by its name or by a key. */
export interface Command {
  name: string
  /** Shown beside it; a single letter works wherever nothing is typed. */
  key?: string
  group: 'Add' | 'Here' | 'Go' | 'Class'
  /** Kept out of the sheet of keys: there is one for each station. */
  many?: boolean
  run: () => void
}

/** Where the focus is, else what is open. */
function spotOf(element: Element | null, open: string): Spot | null {
  const card = element?.closest<HTMLElement>('[data-block]') ?? document.getElementById(open)
  return card?.dataset.block ? { block: card.dataset.block, station: card.dataset.station } : null
}

const later = (act: () => void) => requestAnimationFrame(() => requestAnimationFrame(act))

/** What the bench can do without the mouse. */
export function useCommands(moves: Move[], pick: (what: Picking) => void) {
  const { plan, change, undo, redo } = useClassEditor()
  const { open, show } = useOpened()
  const bench = useBenchContext()
  const selected = useContext(SelectedContext)
  const navigate = useNavigate()
  const [from, setFrom] = useState<Spot | null>(null)
  const here = (): Spot | null => spotOf(document.activeElement, open) ?? from

  const nameOf = (id: string) => {
    const station = blockOf(plan, id)?.stations?.find((s) => s.id === id)
    const move = station && mainOption(station)?.move
    return station?.name ?? moves.find((m) => m.id === move)?.name ?? ''
  }
  const edit = (label: string, then: (p: typeof plan) => typeof plan) =>
    change(label, (draft) => ({ ...draft, plan: then(draft.plan) }))

  /** All cards as they stand on the page. */
  const cards = () => [...document.querySelectorAll<HTMLElement>('section[data-block], article[data-station]')]
  function step(by: 1 | -1, range: boolean) {
    const all = cards()
    const now = document.activeElement?.closest<HTMLElement>('[data-block]') ?? document.getElementById(open)
    const to = all[now ? all.indexOf(now) + by : by > 0 ? 0 : all.length - 1]
    to?.focus()
    to?.scrollIntoView({ block: 'nearest' })
    const spot = spotOf(to ?? null, '')
    if (range && spot?.station) bench.toggle(spot, selected.length > 0)
  }

  function toBlock(by: 1 | -1) {
    const spot = here()
    if (!spot?.station) return
    const takers = plan.blocks.filter((b) => b.format !== 'talk')
    const to = takers[takers.findIndex((b) => b.id === spot.block) + by]
    if (!to) return
    const { station } = spot
    edit('move station', (p) => moveStation(p, station, partId(to)))
    later(() => document.getElementById(`station-${station}`)?.focus())
  }

  function remove() {
    const spot = here()
    if (selected.length > 0) return bench.remove()
    if (!spot) return
    const all = cards()
    const at = all.findIndex((c) => c.id === (spot.station ? `station-${spot.station}` : `block-${spot.block}`))
    const next = (all[at + 1] ?? all[at - 1])?.id
    edit('remove', (p) =>
      spot.station
        ? setBlock(p, spot.block, (b) =>
            (b.stations?.length ?? 0) > 1 ? { ...b, stations: lacking(b.stations ?? [], spot.station!) } : b,
          )
        : { ...p, blocks: lacking(p.blocks, spot.block) },
    )
    later(() => (document.getElementById(next ?? '') ?? document.getElementById('bench'))?.focus())
  }

  function double() {
    const spot = here()
    if (selected.length > 0) return bench.duplicate()
    if (!spot) return
    edit('copy', (p) =>
      spot.station
        ? setBlock(p, spot.block, (b) => ({ ...b, stations: doubled(b.stations ?? [], spot.station!, copyOfStation) }))
        : { ...p, blocks: doubled(p.blocks, spot.block, copyOfBlock) },
    )
  }

  const station = (act: (id: string) => void) => () => {
    const spot = here()
    if (spot?.station) act(spot.station)
  }
  const goTo = (step: string) => () => void navigate(`../${step}`, { relative: 'path' })

  const commands: Command[] = [
    {
      group: 'Add',
      name: 'Add a station',
      key: 'A',
      run: () => {
        const spot = here()
        const takers = plan.blocks.filter((b) => b.format !== 'talk')
        const block = takers.find((b) => b.id === spot?.block) ?? takers.at(-1)
        if (block) pick({ to: 'add', block: partId(block), behind: spot?.station })
      },
    },
    {
      group: 'Add',
      name: 'Add a block',
      key: 'B',
      run: () => {
        document.getElementById('add-block')?.click()
        later(() => document.getElementById('find-block')?.focus())
      },
    },
    {
      group: 'Here',
      name: 'Open or close',
      key: 'Enter',
      run: () => {
        const spot = here()
        if (!spot) return
        const id = spot.station ? `station-${spot.station}` : `block-${spot.block}`
        show(open === id ? '' : id)
      },
    },
    { group: 'Here', name: 'Set its target', key: 'E', run: station((id) => show(`station-${id}`, 'dose')) },
    { group: 'Here', name: 'Swap its move', key: 'S', run: station((id) => pick({ to: 'swap', station: id })) },
    { group: 'Here', name: 'Duplicate', key: 'D', run: double },
    { group: 'Here', name: 'Remove it', key: 'Delete', run: remove },
    {
      group: 'Here',
      name: 'Select or unselect',
      key: 'X',
      run: () => {
        const spot = here()
        if (spot) bench.toggle(spot)
      },
    },
    {
      group: 'Here',
      name: 'Move up',
      key: 'Alt ↑',
      run: () => {
        const spot = here()
        if (spot) bench.nudge(spot, -1)
      },
    },
    {
      group: 'Here',
      name: 'Move down',
      key: 'Alt ↓',
      run: () => {
        const spot = here()
        if (spot) bench.nudge(spot, 1)
      },
    },
    { group: 'Here', name: 'Move to the previous block', key: '[', run: () => toBlock(-1) },
    { group: 'Here', name: 'Move to the next block', key: ']', run: () => toBlock(1) },
    { group: 'Go', name: 'Next row', key: '↓', run: () => step(1, false) },
    { group: 'Go', name: 'Previous row', key: '↑', run: () => step(-1, false) },
    { group: 'Go', name: 'Extend selection down', key: 'Shift ↓', run: () => step(1, true) },
    { group: 'Go', name: 'Extend selection up', key: 'Shift ↑', run: () => step(-1, true) },
    { group: 'Class', name: 'Undo', key: 'Ctrl Z', run: undo },
    { group: 'Class', name: 'Redo', key: 'Ctrl Y', run: redo },
    { group: 'Class', name: 'Go to the brief', run: goTo('brief') },
    { group: 'Class', name: 'Print the cards and the run sheet', run: goTo('cards') },
    { group: 'Class', name: 'Lead this class', run: goTo('lead') },
    ...plan.blocks.flatMap((block, b): Command[] => [
      {
        group: 'Go',
        many: true,
        name: `Block ${b + 1}: ${block.name}`,
        run: () => show(`block-${partId(block)}`, 'card'),
      },
      ...(block.stations ?? []).map((s, i): Command => ({
        group: 'Go',
        many: true,
        name: `${nameOf(partId(s))}, station ${i + 1} of ${block.name}`,
        run: () => show(`station-${partId(s)}`, 'dose'),
      })),
    ]),
  ]
  return { commands, remember: () => setFrom(here()) }
}

/** What a move is looked for. */
export type Picking = { to: 'add'; block: string; behind?: string } | { to: 'swap'; station: string }
