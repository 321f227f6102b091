import { Button } from '@mantine/core'
import { useEffect } from 'react'
import { useLocation } from 'react-router'
import { useMoves, useStarters } from '../../api/queries'
import { useClassEditor } from '../editor/context'
import { BlockCard } from './BlockCard'
import css from './Build.module.css'
import { Verdict } from './Verdict'

/** The bench: blocks and stations on the left, what it adds up to on the right. */
export function BuildPage() {
  const { plan, change } = useClassEditor()
  const moves = useMoves().data ?? []
  const starters = useStarters().data ?? []
  const location = useLocation()

  // The tape leads here: a block in the address is shown and focused, each time anew.
  useEffect(() => {
    if (location.hash !== '') document.getElementById(location.hash.slice(1))?.focus()
  }, [location.key, location.hash])

  return (
    <div className={css.bench}>
      <main className={css.blocks}>
        {plan.blocks.length === 0 && (
          <p className={css.empty}>
            An empty bench. Begin with a block: most classes are a talk, a warm-up, one or two main blocks and a
            wind-down. The tape above fills as you go.
          </p>
        )}
        {plan.blocks.map((block, b) => (
          <BlockCard key={b} block={block} index={b} moves={moves} />
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
                onClick={() =>
                  change('add block', (draft) => ({
                    ...draft,
                    plan: { ...draft.plan, blocks: [...draft.plan.blocks, structuredClone(starter.block)] },
                  }))
                }
              >
                + {starter.name}
              </Button>
            ))}
          </div>
        </section>
      </main>
      <Verdict />
    </div>
  )
}
