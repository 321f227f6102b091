import { Button, Loader } from '@mantine/core'
import { useMemo } from 'react'
import type { Schemas } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import { Tape } from '../../ui/Tape'
import { shapesOf } from '../editor/ClassTape'
import css from './Draft.module.css'
import type { Drafting } from './useDrafts'

type Draft = Schemas['StudioDraft']

interface Props {
  drafting: Drafting
  onTake: (draft: Draft) => void
  onAnother: () => void
  onStop: () => void
}

const heading: Record<number, string> = {
  1: 'One draft',
  2: 'Two drafts, the best first',
  3: 'Three drafts, the best first',
}

/** Up to three classes side by side: what each is, how it runs, why, and what it changes. */
export function DraftCards({ drafting, onTake, onAnother, onStop }: Props) {
  const { busy, answer, trouble } = drafting
  return (
    <section className={css.drafts} aria-label="Drafts" aria-busy={busy}>
      {busy && (
        <p className={css.busy} role="status">
          <Loader size="sm" aria-hidden="true" /> Working out classes for your evening…
          <Button size="xs" variant="default" onClick={onStop}>
            Stop
          </Button>
        </p>
      )}
      {trouble && <ErrorNote title={`No classes were drafted, and nothing was changed. ${trouble}`} />}
      {answer && answer.drafts.length === 0 && (
        <ErrorNote title={`No class can keep to all of this. ${answer.reason ?? ''}`}>{answer.wayOut}</ErrorNote>
      )}
      {answer && answer.drafts.length > 0 && (
        <>
          <h2>{heading[answer.drafts.length]}</h2>
          <ol className={css.cards} data-dim={busy}>
            {answer.drafts.map((draft, i) => (
              <Card key={i} draft={draft} number={i + 1} onTake={() => onTake(draft)} />
            ))}
          </ol>
          <p className={css.after}>
            <Button variant="default" onClick={onAnother}>
              Others
            </Button>
            {!answer.solved && <span>Drafted without the solver, which is not on this machine.</span>}
          </p>
        </>
      )}
    </section>
  )
}

function Card({ draft, number, onTake }: { draft: Draft; number: number; onTake: () => void }) {
  const { evaluation, plan } = draft
  // Small: it is looked at, not walked along.
  const { blocks, spans } = useMemo(() => {
    const shapes = shapesOf(evaluation, plan)
    return { ...shapes, spans: shapes.spans.map((span) => ({ ...span, words: undefined })) }
  }, [evaluation, plan])
  return (
    <li className={css.card} aria-label={`Draft ${number}: ${draft.words}`}>
      <h3>
        {draft.words} <span>{evaluation.verdict}</span>
      </h3>
      <Tape spans={spans} blocks={blocks} slot={plan.slotMinutes * 60} />
      <p className={css.whole}>{draft.why[0]}</p>
      <ol className={css.stations}>
        {draft.why.slice(1).map((line, i) => (
          <li key={i}>{line}</li>
        ))}
      </ol>
      {draft.changes && (
        <details className={css.changes}>
          <summary>What changes</summary>
          <ul>
            {draft.changes.map((line, i) => (
              <li key={i}>{line}</li>
            ))}
          </ul>
        </details>
      )}
      <Button onClick={onTake}>Take this one</Button>
    </li>
  )
}
