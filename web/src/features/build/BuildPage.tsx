import { Button } from '@mantine/core'
import { memo, useEffect, useMemo } from 'react'
import { useLocation } from 'react-router'
import type { Move, PlanBlock } from '../../api/client'
import { useMoves, useStarters, useTemplates } from '../../api/queries'
import { partId } from '../../plan/edit'
import { copyOfBlock } from '../../plan/ids'
import { useAct } from '../../save/acts'
import { EditorContext, useClassEditor } from '../editor/context'
import { BlockCard } from './BlockCard'
import css from './Build.module.css'
import { SelectionBar } from './SelectionBar'
import { BenchContext, CopiedContext, SelectedContext, useBench } from './useBench'
import { Verdict } from './Verdict'

/** The bench: blocks and stations on the left, what it adds up to on the right. */
export function BuildPage() {
  const { plan, change } = useClassEditor()
  const library = useMoves().data
  // A class from elsewhere may carry moves that are not in this library.
  const moves = useMemo(() => {
    const known = new Set((library ?? []).map((move) => move.id))
    const carried = (plan.moves ?? []).filter((move) => !known.has(move.id)) as unknown as Move[]
    return [...(library ?? []), ...carried]
  }, [library, plan.moves])
  const starters = useStarters().data ?? []
  const templates = useTemplates()
  const removeTemplate = useAct('removeTemplate')
  const { bench, selected, copied } = useBench()
  const location = useLocation()
  const addBlock = (block: PlanBlock) =>
    change('add block', (draft) => ({
      ...draft,
      plan: { ...draft.plan, blocks: [...draft.plan.blocks, copyOfBlock(block)] },
    }))

  // The tape leads here: a block in the address is shown and focused, each time anew.
  useEffect(() => {
    if (location.hash !== '') document.getElementById(location.hash.slice(1))?.focus()
  }, [location.key, location.hash])

  return (
    <BenchContext value={bench}>
      <SelectedContext value={selected}>
        <CopiedContext value={copied}>
          <div className={css.bench}>
            <main className={css.blocks}>
              {plan.blocks.length === 0 && (
                <p className={css.empty}>
                  An empty bench. Begin with a block: most classes are a talk, a warm-up, one or two main blocks and a
                  wind-down. The tape above fills as you go.
                </p>
              )}
              {plan.blocks.map((block, b) => (
                <BlockScope key={partId(block)} block={block} index={b} moves={moves} />
              ))}
              <section className={css.adding} aria-label="Add a block">
                <h2 className={css.addTitle}>Add a block</h2>
                <div className={css.starters}>
                  {starters.map((starter) => (
                    <Button
                      key={starter.name}
                      variant="default"
                      size="xs"
                      title={starter.words}
                      disabled={plan.blocks.length >= 30}
                      onClick={() => addBlock(starter.block)}
                    >
                      + {starter.name}
                    </Button>
                  ))}
                  {copied?.kind === 'blocks' && (
                    <Button size="xs" variant="default" onClick={() => bench.paste()}>
                      Paste {copied.items.length === 1 ? 'the block' : `${copied.items.length} blocks`}
                    </Button>
                  )}
                </div>
                {(templates.data ?? []).length > 0 && (
                  <>
                    <h3 className={css.addTitle}>Your templates</h3>
                    <div className={css.starters}>
                      {templates.data?.map((template) => (
                        <Button.Group key={template.id}>
                          <Button
                            size="xs"
                            variant="default"
                            disabled={plan.blocks.length >= 30}
                            onClick={() => addBlock(template.block)}
                          >
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
                    </div>
                  </>
                )}
              </section>
            </main>
            <Verdict />
            <SelectionBar />
          </div>
        </CopiedContext>
      </SelectedContext>
    </BenchContext>
  )
}

interface ScopeProps {
  block: PlanBlock
  index: number
  moves: Move[]
}

const Card = memo(BlockCard)

/** Gives a block the editor anew only when something that concerns the block has changed: typing in one leaves the others be. */
function BlockScope({ block, index, moves }: ScopeProps) {
  const editor = useClassEditor()
  const { plan, evaluation, faults } = editor
  // When a block begins is told by a part of its own, or every key would draw anew all that come after.
  const outline = JSON.stringify({ ...evaluation?.outline.find((o) => o.id === block.id), start: 0, end: 0, block: 0 })
  const here = JSON.stringify(faults.filter((fault) => fault.pointer.startsWith(`/blocks/${index}`)))
  const shell = JSON.stringify({ ...plan, blocks: plan.blocks.length, waivers: null })
  const scoped = useMemo(
    () => editor,
    // eslint-disable-next-line react-hooks/exhaustive-deps -- all that a block shows of the editor is in these
    [block, outline, here, shell, index, editor.change],
  )
  return (
    <EditorContext value={scoped}>
      <Card block={block} index={index} moves={moves} />
    </EditorContext>
  )
}
