import { Button } from '@mantine/core'
import { Link } from 'react-router'
import type { Evaluation, Plan } from '../../api/client'
import { answer, api } from '../../api/client'
import { clock, spoken } from '../../ui/time'
import { useClassEditor } from '../editor/context'
import { SaveNote } from '../editor/SaveNote'
import css from './Build.module.css'

type Finding = Evaluation['findings'][number]

/** Whether the class fits its slot, in words, and what to do about it. */
export function Verdict() {
  const { plan, evaluation, faults, canUndo, canRedo, undo, redo, change } = useClassEditor()
  const empty = plan.blocks.length === 0
  const over = evaluation !== null && evaluation.totals.overSeconds > 0

  async function mend(finding: Finding, repair: number) {
    const mended = await answer(
      api.POST('/api/plans/repair', { body: { class: plan as never, finding: finding.key ?? '', repair } }),
    )
    change('repair', (draft) => ({ ...draft, plan: mended.class as unknown as Plan }))
  }

  return (
    <aside className={css.verdict} aria-label="What it adds up to">
      <div className={css.history}>
        <Button variant="default" size="xs" disabled={!canUndo} onClick={undo} title="Ctrl+Z">
          Undo
        </Button>
        <Button variant="default" size="xs" disabled={!canRedo} onClick={redo} title="Ctrl+Y">
          Redo
        </Button>
        <SaveNote />
      </div>
      {!empty && evaluation && (
        <>
          <p className={over ? css.over : css.fits} role="status" data-testid="verdict">
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
      {!empty && evaluation && <Shares totals={evaluation.totals} />}
      {!empty && faults.length === 0 && (
        <ul className={css.findings} aria-label="Findings">
          {evaluation?.findings.map((finding) => (
            <li key={finding.key} className={css.finding} data-severity={finding.severity}>
              <strong>{finding.what}</strong>
              <span className={css.aside} title={`Source: ${finding.source}`}>
                {finding.why}
              </span>
              {finding.repairs.map((repair, i) => (
                <button key={i} type="button" className={css.offer} onClick={() => void mend(finding, i)}>
                  {repair.title}
                </button>
              ))}
            </li>
          ))}
          {evaluation?.findings.length === 0 && <li className={css.aside}>Nothing to mend.</li>}
        </ul>
      )}
      {!empty && faults.length === 0 && (
        <Button component={Link} to="../lead" relative="path" fullWidth mt="md">
          Lead this class
        </Button>
      )}
    </aside>
  )
}

function Shares({ totals }: { totals: Evaluation['totals'] }) {
  const rows: [string, string][] = [
    ['Work', clock(totals.workSeconds)],
    ['Rest', clock(totals.restSeconds)],
    ['Changes', clock(totals.changeSeconds)],
    ['Talk', clock(totals.talkSeconds)],
    ['Reps, left leg', `${totals.leftReps}${totals.leftEstimatedReps ? ` + about ${totals.leftEstimatedReps}` : ''}`],
    [
      'Reps, right leg',
      `${totals.rightReps}${totals.rightEstimatedReps ? ` + about ${totals.rightEstimatedReps}` : ''}`,
    ],
  ]
  return (
    <dl className={css.shares}>
      {rows.map(([name, value]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  )
}
