import { Button, Checkbox } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import type { Evaluation, Plan, Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { useSettings } from '../../api/queries'
import { change } from '../../save/documents'
import { NumberField } from '../../ui/NumberField'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'

type Terms = Schemas['FitTerms']
type FitAnswer = Schemas['FitAnswer']

const fields: { key: keyof Terms; label: string }[] = [
  { key: 'restFloor', label: 'Shortest rest, s' },
  { key: 'restCeiling', label: 'Longest rest, s' },
  { key: 'workFloor', label: 'Shortest work interval, s' },
  { key: 'workPercent', label: 'Most change to timed work, %' },
  { key: 'repsPercent', label: 'Most change to reps, %' },
  { key: 'roundsLess', label: 'Rounds it may take off a block' },
  { key: 'roundsMore', label: 'Rounds it may add to a block' },
  { key: 'restWeight', label: 'Avoid changing rests' },
  { key: 'changeWeight', label: 'Avoid changing changeovers' },
  { key: 'workWeight', label: 'Avoid changing timed work' },
  { key: 'repsWeight', label: 'Avoid changing reps' },
  { key: 'roundWeight', label: 'Avoid changing rounds' },
  { key: 'optionalRoundWeight', label: 'Avoid changing optional rounds' },
  { key: 'perChange', label: 'Avoid many small changes' },
  { key: 'spareWeight', label: 'Avoid ending early' },
]

/** Up to three ways to bring the class to its slot, each looked at on the tape before it is taken. */
export function FitPanel() {
  const { core, plan, change, setPreview } = useClassEditor()
  const settings = useSettings()
  const terms = settings.data?.fit
  const found = useStore(core.looker.store, (known) => known.fit)
  const trouble = useStore(core.looker.store, (known) => known.trouble)
  const [prices, setPrices] = useState(false)
  const looked = useRef<{ offer: Plan; evaluation: Evaluation } | null>(null)
  const fresh = found !== null && found.plan === plan

  useEffect(() => core.looker.want('fit'), [core])
  // Other limits, other ways.
  const limits = settings.data?.fitRevision
  useEffect(() => core.looker.again(), [core, limits])

  useEffect(() => () => setPreview(null), [setPreview])

  const looking = useRef<Plan | null>(null)

  function turnAway() {
    looking.current = null
    setPreview(null)
  }

  async function look(offer: FitAnswer['offers'][number]) {
    if (looking.current === offer.class) return
    looking.current = offer.class
    try {
      const known = looked.current?.offer === offer.class ? looked.current.evaluation : null
      const evaluation = known ?? (await answer(api.POST('/api/plans/evaluate', { body: offer.class })))
      looked.current = { offer: offer.class, evaluation }
      if (looking.current === offer.class) setPreview({ plan: offer.class, evaluation })
    } catch {
      turnAway()
    }
  }

  return (
    <>
      {trouble && (
        <p className={css.trouble} role="alert">
          {trouble}
        </p>
      )}
      <h2 className={css.fitTitle}>Make it fit {plan.slotMinutes} min</h2>
      {found?.answer.offers.map((offer, i) => (
        <button
          key={i}
          type="button"
          className={css.way}
          disabled={!fresh || offer.way.changes.length === 0}
          // It may come to lie under a pointer that has entered it before it could be pressed.
          onPointerEnter={() => void look(offer)}
          onPointerMove={() => void look(offer)}
          onPointerLeave={turnAway}
          onFocus={() => void look(offer)}
          onBlur={turnAway}
          onClick={() =>
            change(
              'fit',
              (draft) => ({ ...draft, plan: offer.class }),
              looked.current?.offer === offer.class ? looked.current.evaluation : undefined,
            )
          }
        >
          <strong>{offer.way.title}</strong>
          <span className={css.cost}>
            {offer.way.ends}
            {prices && `· score ${offer.way.cost} (lower is gentler)`}
          </span>
          {offer.way.changes.map((c) => (
            <span key={c.words}>
              {c.words} {prices && <em>{c.cost}</em>}
            </span>
          ))}
        </button>
      ))}
      {found && found.answer.offers.length === 0 && (
        <p className={css.aside} role="status">
          Your limits leave it {found.answer.shortBy} too long. What holds it back:
          {found.answer.obstacles.map((o) => (
            <span key={o.limit} className={css.obstacle}>
              {o.limit}: {o.words}
            </span>
          ))}
          Change a limit below, or remove a station or a block.
        </p>
      )}
      {terms && <Limits terms={terms} prices={prices} onPrices={setPrices} />}
    </>
  )
}

/** What a change costs and how far it may go: ours to begin with, the instructor's to change. */
interface LimitsProps {
  terms: Terms
  /** Whether what each change costs is shown with the offers. */
  prices: boolean
  onPrices: (shown: boolean) => void
}

function Limits({ terms, prices, onPrices }: LimitsProps) {
  const revision = useSettings().data?.fitRevision ?? 1
  const save = (next: Terms) => change('fit', 'all', terms, revision, next)
  return (
    <details className={css.more}>
      <summary>Limits and priorities</summary>
      <Checkbox
        size="xs"
        label="Show scores"
        checked={prices}
        onChange={(event) => onPrices(event.currentTarget.checked)}
      />
      <div className={css.limits}>
        {fields.map(({ key, label }) => (
          <NumberField
            key={key}
            label={label}
            suffix=""
            step={1}
            width={126}
            max={1000}
            needed
            value={terms[key] as number}
            onChange={(value) => value !== undefined && save({ ...terms, [key]: value })}
          />
        ))}
        <Button size="xs" variant="default" onClick={() => save({})}>
          Reset to defaults
        </Button>
      </div>
    </details>
  )
}
