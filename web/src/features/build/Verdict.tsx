import { Button } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Evaluation } from '../../api/client'
import { many, sentence } from '../../ui/words'
import { SaveNote } from '../../save/SaveNote'
import { FamilyMark } from '../../ui/FamilyMark'
import { clock, spoken } from '../../ui/time'
import { useClassEditor } from '../editor/context'
import { Redraw } from '../draft/Redraw'
import { Findings } from '../checks/Findings'
import css from './Build.module.css'
import { FitPanel } from './FitPanel'
import { Versions } from './Versions'

/** Whether the class fits its slot, in words, and what to do about it. */
export function Verdict() {
  const { plan, evaluation, faults, canUndo, canRedo, undo, redo, core } = useClassEditor()
  const [history, setHistory] = useState(false)
  const [redraw, setRedraw] = useState(false)
  const empty = plan.blocks.length === 0
  const [fitting, setFitting] = useState(false)

  return (
    <aside id="adds-up" className={css.verdict} aria-label="Class summary">
      <div className={css.history}>
        <Button variant="default" size="xs" disabled={!canUndo} onClick={undo} title="Ctrl+Z">
          Undo
        </Button>
        <Button variant="default" size="xs" disabled={!canRedo} onClick={redo} title="Ctrl+Y">
          Redo
        </Button>
        <Button variant="default" size="xs" onClick={() => setHistory(true)}>
          Versions
        </Button>
        {!empty && (
          <Button variant="default" size="xs" onClick={() => setRedraw(true)}>
            Vary
          </Button>
        )}
        <SaveNote saver={core.planSaver} />
      </div>
      {redraw && <Redraw pinned={[]} onClose={() => setRedraw(false)} />}
      {history && <Versions onClose={() => setHistory(false)} />}
      {!empty && evaluation && (
        <>
          <p className={css.slotFit} data-fits={evaluation.fits} role="status" data-testid="verdict">
            {evaluation.verdict}
          </p>
          <p className={css.sum}>
            <span aria-label={spoken(evaluation.totals.seconds)}>{clock(evaluation.totals.seconds)}</span> of{' '}
            {plan.slotMinutes} min booked
          </p>
        </>
      )}
      {!empty && faults.length > 0 && (
        <p className={css.stale} role="alert">
          {many(faults.length, 'entry does', 'entries do')} not work yet, so these figures are from before.{' '}
          {faults[0]?.detail}
        </p>
      )}
      {/* Above the findings: those come later, and must not move what is about to be pressed. */}
      {!empty && faults.length === 0 && evaluation && evaluation.totals.overSeconds !== 0 && (
        <section className={css.fit} aria-label="Fit the booked time">
          {/* Far from its slot a class is still being put together: offers would be in the way. */}
          {fitting || evaluation.fits === 'over' ? (
            <FitPanel />
          ) : (
            <button type="button" className={css.quiet} onClick={() => setFitting(true)}>
              Make it fit {plan.slotMinutes} min…
            </button>
          )}
        </section>
      )}
      {!empty && faults.length === 0 && <Findings />}
      {!empty && evaluation && <Shares evaluation={evaluation} />}
      {!empty && faults.length === 0 && (
        <Button component={Link} to="../ready" relative="path" fullWidth mt="md" variant="default">
          Check if it is ready
        </Button>
      )}
      {!empty && faults.length === 0 && (
        <Button component={Link} to="../lead" relative="path" fullWidth mt="xs">
          Lead this class
        </Button>
      )}
    </aside>
  )
}

/** Where the time goes, and what each leg does. */
function Shares({ evaluation }: { evaluation: Evaluation }) {
  const { totals, breakdown } = evaluation
  const leg = (reps: number, estimated: number, seconds: number) => {
    const counted = reps > 0 || estimated === 0 ? many(reps, 'rep', 'reps') : ''
    const guessed = estimated > 0 ? `about ${estimated} in timed work` : ''
    return `${clock(seconds)} · ${[counted, guessed].filter(Boolean).join(', plus ')}`
  }
  const rows: [string, string][] = (
    [
      ['Work', totals.workSeconds],
      ['Switching sides', totals.switchSeconds],
      ['Changeovers', totals.changeSeconds],
      ['Rest', totals.restSeconds],
      ['Waiting for the bell', totals.waitSeconds],
      ['Get ready', totals.leadInSeconds],
      ['Talk and demos', totals.talkSeconds],
    ] as [string, number][]
  )
    .filter(([, seconds]) => seconds > 0)
    .map(([name, seconds]) => [name, clock(seconds)])
  return (
    <section aria-label="Where the time goes">
      <h2 className={css.fitTitle}>Where the time goes</h2>
      <dl className={css.shares}>
        {rows.map(([name, value]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <h2 className={css.fitTitle}>Work per person</h2>
      <dl className={css.shares}>
        <div>
          <dt>Left leg</dt>
          <dd>{leg(totals.leftReps, totals.leftEstimatedReps, breakdown.leftSeconds)}</dd>
        </div>
        <div>
          <dt>Right leg</dt>
          <dd>{leg(totals.rightReps, totals.rightEstimatedReps, breakdown.rightSeconds)}</dd>
        </div>
        {breakdown.families.map((share) => (
          <div key={share.family}>
            <dt className={css.familyShare}>
              <FamilyMark family={share.family} size={14} /> {sentence(share.family)}
            </dt>
            <dd>{clock(share.workSeconds)}</dd>
          </div>
        ))}
      </dl>
    </section>
  )
}

/** On a phone the class comes first: what it adds up to stands in a bar beneath, and leads to the rest. */
export function Totals() {
  const { plan, evaluation, checks } = useClassEditor()
  if (!evaluation || plan.blocks.length === 0) return null
  return (
    <aside aria-label="In short">
      <a
        href="#adds-up"
        className={css.totals}
        onClick={(event) => {
          event.preventDefault()
          document.getElementById('adds-up')?.scrollIntoView()
        }}
      >
        <strong data-fits={evaluation.fits}>{evaluation.verdict}</strong>
        <span>
          {clock(evaluation.totals.seconds)} of {plan.slotMinutes} min
        </span>
        {checks.findings.some((f) => !f.waived) && (
          <span>{many(checks.findings.filter((f) => !f.waived).length, 'thing', 'things')} to check</span>
        )}
      </a>
    </aside>
  )
}
