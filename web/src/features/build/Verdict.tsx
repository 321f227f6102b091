import { Button, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Evaluation } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { withField } from '../../plan/edit'
import { SaveNote } from '../../save/SaveNote'
import { FamilyMark } from '../../ui/FamilyMark'
import { clock, spoken } from '../../ui/time'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { FitPanel } from './FitPanel'
import { Versions } from './Versions'

type Finding = Evaluation['findings'][number]

/** Whether the class fits its slot, in words, and what to do about it. */
export function Verdict() {
  const { plan, evaluation, faults, canUndo, canRedo, undo, redo, change, core } = useClassEditor()
  const isNow = (asked: typeof plan) => core.store.getState().now.plan === asked
  const [trouble, setTrouble] = useState('')
  const [history, setHistory] = useState(false)
  const empty = plan.blocks.length === 0
  const [fitting, setFitting] = useState(false)

  async function mend(finding: Finding, repair: number) {
    setTrouble('')
    try {
      const mended = await answer(
        api.POST('/api/plans/repair', { body: { class: plan, finding: finding.key ?? '', repair } }),
      )
      if (!isNow(plan)) setTrouble('The class was changed meanwhile, so nothing was mended. Press it once more.')
      else change(`repair ${finding.key}`, (draft) => ({ ...draft, plan: mended.class }), mended.evaluation)
    } catch (error) {
      setTrouble(`Nothing was changed. ${troubleWords(error)}`)
    }
  }

  return (
    <aside id="adds-up" className={css.verdict} aria-label="What it adds up to">
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
        <SaveNote saver={core.planSaver} />
      </div>
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
          {faults.length === 1 ? 'One thing' : `${faults.length} things`} cannot be read; these are the last good
          figures. {faults[0]?.detail}
        </p>
      )}
      {!empty && faults.length === 0 && (
        <ul className={css.findings} aria-label="Findings">
          {trouble && (
            <li className={css.trouble} role="alert">
              {trouble}
            </li>
          )}
          {evaluation?.findings.map((finding) => (
            <li key={finding.key} className={css.finding} data-severity={finding.waived ? 'waived' : finding.severity}>
              <strong>{finding.what}</strong>
              <span className={css.aside} title={`Source: ${finding.source}`}>
                {finding.waived ? `Left as it is: ${finding.waived}` : finding.why}
              </span>
              {!finding.waived &&
                finding.repairs.map((repair, i) => (
                  <button key={i} type="button" className={css.offer} onClick={() => void mend(finding, i)}>
                    {repair.title}
                  </button>
                ))}
              <Waive finding={finding} />
            </li>
          ))}
          {evaluation?.findings.length === 0 && <li className={css.aside}>Nothing to mend.</li>}
        </ul>
      )}
      {/* Beneath the findings: its offers come later, and must not move what is about to be pressed. */}
      {!empty && faults.length === 0 && evaluation && evaluation.totals.overSeconds !== 0 && (
        <section className={css.fit} aria-label="Fit to the slot">
          {/* Far from its slot a class is still being put together: offers would be in the way. */}
          {fitting || evaluation.fits === 'over' ? (
            <FitPanel />
          ) : (
            <button type="button" className={css.quiet} onClick={() => setFitting(true)}>
              Bring it to {plan.slotMinutes} min …
            </button>
          )}
        </section>
      )}
      {!empty && evaluation && <Shares evaluation={evaluation} />}
      {!empty && faults.length === 0 && (
        <Button component={Link} to="../lead" relative="path" fullWidth mt="md">
          Lead this class
        </Button>
      )}
    </aside>
  )
}

/** Leaves a finding as it is, with a reason that stays with the class; or takes it up again. */
function Waive({ finding }: { finding: Finding }) {
  const { change } = useClassEditor()
  const [reason, setReason] = useState<string | null>(null)
  const is = (w: { code: string; place: string }) => w.code === finding.code && w.place === finding.place
  if (finding.waived) {
    return (
      <button
        type="button"
        className={css.quiet}
        onClick={() =>
          change('take up', (draft) => {
            const left = (draft.plan.waivers ?? []).filter((w) => !is(w))
            return { ...draft, plan: withField(draft.plan, 'waivers', left.length === 0 ? undefined : left) }
          })
        }
      >
        Look at it again
      </button>
    )
  }
  if (reason === null) {
    return (
      <button type="button" className={css.quiet} onClick={() => setReason('')}>
        Leave it, with a reason …
      </button>
    )
  }
  return (
    <form
      className={css.waive}
      onSubmit={(event) => {
        event.preventDefault()
        if (reason.trim() === '') return
        change('leave', (draft) => ({
          ...draft,
          plan: {
            ...draft.plan,
            waivers: [
              ...(draft.plan.waivers ?? []),
              { code: finding.code, place: finding.place, reason: reason.trim() },
            ],
          },
        }))
      }}
    >
      <TextInput
        size="xs"
        aria-label="Reason"
        placeholder="Why it is right so"
        maxLength={400}
        autoFocus
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <Button size="xs" type="submit" variant="default">
        Leave it
      </Button>
    </form>
  )
}

/** Where the time goes, and what each leg does. */
function Shares({ evaluation }: { evaluation: Evaluation }) {
  const { totals, breakdown } = evaluation
  const leg = (reps: number, estimated: number, seconds: number) =>
    `${clock(seconds)}, ${[reps > 0 || estimated === 0 ? String(reps) : '', estimated > 0 ? `about ${estimated}` : ''].filter(Boolean).join(' + ')} reps`
  const rows: [string, string][] = (
    [
      ['Work', totals.workSeconds],
      ['Switching sides', totals.switchSeconds],
      ['Changes', totals.changeSeconds],
      ['Rest', totals.restSeconds],
      ['Waiting', totals.waitSeconds],
      ['Lead-in', totals.leadInSeconds],
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
      <h2 className={css.fitTitle}>What one person does</h2>
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
              <FamilyMark family={share.family} size={14} /> {share.family}
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
  const { plan, evaluation } = useClassEditor()
  if (!evaluation || plan.blocks.length === 0) return null
  return (
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
      {evaluation.findings.some((f) => !f.waived) && (
        <span>{evaluation.findings.filter((f) => !f.waived).length} to look at</span>
      )}
    </a>
  )
}
