import { Button, NativeSelect, TextInput } from '@mantine/core'
import type { ReactNode } from 'react'
import { useContext, useId, useState } from 'react'
import type { PlanBlock, Schemas } from '../../api/client'
import { many } from '../../ui/words'
import { troubleWords } from '../../api/client'
import { fetchClass, useClasses, useStarters, useTemplates } from '../../api/queries'
import { partId } from '../../plan/edit'
import { copyOfBlock } from '../../plan/ids'
import { MOST_BLOCKS } from './useStations'
import { useAct } from '../../save/acts'
import { Thumb } from '../../ui/FigureView'
import { useClassEditor } from '../editor/context'
import { useThumbs } from '../moves/useMoveSearch'
import css from './Build.module.css'
import { CopiedContext, useBenchContext } from './useBench'
import { useOpened } from './useOpen'

/** Adds blocks to a class, the first of them opened with its name ready to type; before the cool-down, which stays last. */
export function useBlocks() {
  const { change } = useClassEditor()
  const { show } = useOpened()
  return (blocks: PlanBlock[]) => {
    const fresh = blocks.map(copyOfBlock)
    if (fresh.length === 0) return
    change('add block', (draft) => {
      const old = draft.plan.blocks
      const ends = fresh.some((b) => b.phase === 'cooldown' || b.format === 'talk')
      const last = ends ? old.length : old.findLastIndex((b) => b.phase !== 'cooldown' && b.format !== 'talk') + 1
      const at = last === 0 ? old.findLastIndex((b) => b.format === 'talk') + 1 : last
      return {
        ...draft,
        plan: { ...draft.plan, blocks: [...old.slice(0, at), ...fresh, ...old.slice(at)].slice(0, MOST_BLOCKS) },
      }
    })
    show(`block-${partId(fresh[0]!)}`, 'name')
  }
}

const fits = (text: string, looked: string) =>
  looked
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.toLowerCase().includes(word))

/** What a class is put together from: ready blocks by what one wants, one's own templates, and what there is already. */
export function AddBlock({ empty }: { empty: boolean }) {
  const { plan } = useClassEditor()
  const bench = useBenchContext()
  const copied = useContext(CopiedContext)
  const ready = useStarters()
  const starters = ready.data ?? []
  const templates = useTemplates().data ?? []
  const removeTemplate = useAct('removeTemplate')
  const add = useBlocks()
  const [unfolded, setUnfolded] = useState(false)
  const [looked, setLooked] = useState('')
  const full = plan.blocks.length >= MOST_BLOCKS
  const found = starters.filter((s) => fits(`${s.name} ${s.group} ${s.words} ${s.also}`, looked.trim()))
  const groups = [...new Set(found.map((s) => s.group))]
  const main = plan.blocks.filter((b) => b.format !== 'talk' && b.phase !== 'warmup' && b.phase !== 'cooldown')
  const put = (blocks: PlanBlock[]) => {
    setUnfolded(false)
    setLooked('')
    add(blocks)
  }

  if (!unfolded && empty)
    return (
      <FirstBlocks starters={starters} trouble={ready.error} onAdd={(block) => put([block])}>
        <Button id="add-block" variant="default" onClick={() => setUnfolded(true)} title="B">
          More kinds of block
        </Button>
        {copied?.kind === 'blocks' && <PasteBlocks count={copied.items.length} onPaste={() => bench.paste()} />}
      </FirstBlocks>
    )
  if (!unfolded) {
    return (
      <section className={css.adding} aria-label="Add a block">
        <Button id="add-block" variant="default" disabled={full} onClick={() => setUnfolded(true)} title="B">
          + Add a block
        </Button>
        {full && <p className={css.aside}>A class can have {MOST_BLOCKS} blocks.</p>}
      </section>
    )
  }
  return (
    <section className={css.adding} aria-label="Add a block">
      <div className={css.addHead}>
        <h2 className={css.addTitle}>Add a block</h2>
        <TextInput
          id="find-block"
          size="xs"
          aria-label="Find a ready-made block"
          placeholder="e.g. rotation, drop set, stretch"
          autoFocus
          value={looked}
          onChange={(event) => setLooked(event.currentTarget.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && found[0] && !full) put([found[0].block])
            if (event.key === 'Escape') setUnfolded(false)
          }}
        />
        <button type="button" className={css.quiet} onClick={() => setUnfolded(false)}>
          Close
        </button>
      </div>
      {ready.isPending && <p role="status">Loading ready-made blocks…</p>}
      {ready.isError && <p role="alert">The ready-made blocks could not be loaded. {troubleWords(ready.error)}</p>}
      {ready.data && found.length === 0 && <p>No ready-made block matches. Shorten the search.</p>}
      <div className={css.groups}>
        {groups.map((group) => (
          <div key={group} role="group" aria-label={group}>
            <h3>{group}</h3>
            {found
              .filter((s) => s.group === group)
              .map((s) => (
                <StarterButton key={s.name} starter={s} disabled={full} onAdd={() => put([s.block])} />
              ))}
          </div>
        ))}
      </div>
      <div className={css.starters}>
        {templates.length > 0 && <h3 className={css.addTitle}>Your templates</h3>}
        {templates.map((template) => (
          <Button.Group key={template.id}>
            <Button size="xs" variant="default" disabled={full} onClick={() => put([template.block])}>
              + {template.name}
            </Button>
            <Button
              size="xs"
              variant="default"
              px={8}
              aria-label={`Remove the template ${template.name}`}
              onClick={() => removeTemplate.mutate(template.id)}
            >
              ×
            </Button>
          </Button.Group>
        ))}
        {copied?.kind === 'blocks' && <PasteBlocks count={copied.items.length} onPaste={() => bench.paste()} />}
        {main.length > 0 && (
          <Button
            size="xs"
            variant="default"
            disabled={plan.blocks.length + main.length > MOST_BLOCKS}
            onClick={() => put(main.map((block) => ({ ...block, name: `${block.name}, second half`.slice(0, 120) })))}
          >
            + Repeat the main block as a second half
          </Button>
        )}
        <OtherClass onAdd={put} room={MOST_BLOCKS - plan.blocks.length} />
      </div>
    </section>
  )
}

function PasteBlocks({ count, onPaste }: { count: number; onPaste: () => void }) {
  return (
    <Button size="xs" variant="default" onClick={onPaste}>
      Paste {count === 1 ? 'the block' : `${count} blocks`}
    </Button>
  )
}

interface FirstProps {
  starters: Schemas['Starter'][]
  trouble: unknown
  onAdd: (block: PlanBlock) => void
  children: ReactNode
}

const usualOrder = ['warmup', 'main', 'cooldown']

/** What nearly every class has, in its order; all other kinds of block are behind “more”. */
function FirstBlocks({ starters, trouble, onAdd, children }: FirstProps) {
  const place = ({ block }: Schemas['Starter']) => usualOrder.indexOf(block.phase ?? 'main')
  const first = starters.filter((s) => s.first != null).sort((a, b) => place(a) - place(b))
  return (
    <section className={css.adding} aria-label="Add a block">
      {trouble != null && <p role="alert">The ready-made blocks could not be loaded. {troubleWords(trouble)}</p>}
      <div className={css.firstBlocks}>
        {first.map((s) => (
          <StarterButton key={s.name} starter={s} name={s.first!} disabled={false} onAdd={() => onAdd(s.block)} />
        ))}
      </div>
      <div className={css.starters}>{children}</div>
    </section>
  )
}

interface StarterProps {
  starter: Schemas['Starter']
  name?: string
  disabled: boolean
  onAdd: () => void
}

function StarterButton({ starter, name = starter.name, disabled, onAdd }: StarterProps) {
  const thumbs = useThumbs()
  const words = useId()
  const figures = starter.moves.flatMap((id) => thumbs?.get(id)?.figure ?? [])
  return (
    <div className={css.starter}>
      <span className={css.starterFigures}>
        {figures.slice(0, 2).map((figure, i) => (
          <Thumb key={i} figure={figure} />
        ))}
      </span>
      <span>
        <button type="button" disabled={disabled} aria-describedby={words} onClick={onAdd}>
          + {name}
        </button>
        <span id={words}>{starter.words}</span>
      </span>
    </div>
  )
}

/** Two short classes in one slot: all blocks of another class behind these. */
function OtherClass({ onAdd, room }: { onAdd: (blocks: PlanBlock[]) => void; room: number }) {
  const { id } = useClassEditor()
  const others = (useClasses().data?.classes ?? []).filter((c) => c.id !== id)
  const [trouble, setTrouble] = useState('')
  if (others.length === 0) return null
  return (
    <>
      <NativeSelect
        size="xs"
        aria-label="Add the blocks of another class"
        w={220}
        value=""
        onChange={(event) => {
          setTrouble('')
          fetchClass(event.currentTarget.value).then(
            (view) =>
              view.plan.blocks.length > room
                ? setTrouble(
                    `That class has ${many(view.plan.blocks.length, 'block', 'blocks')}; there is room for ${room}.`,
                  )
                : onAdd(view.plan.blocks),
            (error: unknown) => setTrouble(`Nothing was added. ${troubleWords(error)}`),
          )
        }}
      >
        <option value="">+ Blocks from another class…</option>
        {others.map((other) => (
          <option key={other.id} value={other.id}>
            {other.title}
          </option>
        ))}
      </NativeSelect>
      {trouble && (
        <span role="alert" className={css.trouble}>
          {trouble}
        </span>
      )}
    </>
  )
}
