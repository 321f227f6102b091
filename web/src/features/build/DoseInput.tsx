import { TextInput } from '@mantine/core'
import { useEffect, useId, useRef, useState } from 'react'
import type { PlanBlock, PlanStation } from '../../api/client'
import { answer, api, Refused, troubleWords } from '../../api/client'
import { useDoseForms } from '../../api/queries'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { partId, setBlock, withField } from '../../plan/edit'

interface Understood {
  words?: string
  problem?: { detail: string; right: string; at: number | null }
}

const ofDose = ['dose', 'sides', 'chunk', 'sharing', 'waiting'] as const
const ofBlock = ['rounds', 'betweenRounds', 'betweenSets'] as const

/** What was typed, put into the block as it is by now: it may have changed elsewhere while it was read. */
function taken(now: PlanBlock, asked: PlanBlock, read: PlanBlock, station: string): PlanBlock {
  const typed = read.stations?.find((s) => s.id === station)
  const next = {
    ...now,
    stations: now.stations?.map((old) => {
      if (old.id !== station || !typed) return old
      return ofDose.reduce((into, key) => withField(into, key, typed[key]), old)
    }),
  }
  return ofBlock.reduce(
    (into, key) => (JSON.stringify(read[key]) === JSON.stringify(asked[key]) ? into : withField(into, key, read[key])),
    next,
  )
}

/** The dose, typed in the trade's short form: read as it is typed, and what was understood said beneath. */
export function DoseInput({ station, block, name }: { station: PlanStation; block: PlanBlock; name: string }) {
  const [id, blockId] = [partId(station), partId(block)]
  const { plan, evaluation, faults, change } = useClassEditor()
  const forms = useDoseForms().data ?? []
  const outline = evaluation?.outline.find((o) => o.id === blockId)
  const written = outline?.stations.find((o) => o.id === id)?.dose ?? ''
  const [typed, setTyped] = useState<string | null>(null)
  const [understood, setUnderstood] = useState<Understood>({})
  const stop = useRef<AbortController | null>(null)
  const box = useRef<HTMLInputElement>(null)
  const help = useId()
  const [helping, setHelping] = useState(false)

  useEffect(() => () => stop.current?.abort(), [])

  async function read(text: string) {
    stop.current?.abort()
    const asked = new AbortController()
    stop.current = asked
    try {
      const result = await answer(
        api.POST('/api/plans/dose', {
          body: {
            text,
            block,
            station: block.stations?.findIndex((s) => s.id === id) ?? 0,
            ...(plan.moves ? { moves: plan.moves } : {}),
          },
          signal: asked.signal,
        }),
      )
      setUnderstood({ words: `${result.words}: ${result.takes}` })
      change(`dose ${id}`, (draft) => ({
        ...draft,
        plan: setBlock(draft.plan, blockId, (now) => taken(now, block, result.block, id)),
      }))
    } catch (error) {
      if (asked.signal.aborted) return
      const fault = error instanceof Refused ? error.problem.errors?.[0] : undefined
      setUnderstood({
        problem: fault
          ? { detail: fault.detail, right: fault.right, at: (error as Refused).problem.at ?? null }
          : { detail: troubleWords(error), right: '', at: null },
      })
    }
  }

  const shown = typed ?? written
  const problem = typed === null ? undefined : understood.problem
  return (
    <div className={css.doseInput}>
      <TextInput
        ref={box}
        label="Dose"
        aria-label={`Dose of ${name}`}
        aria-describedby={help}
        size="sm"
        autoComplete="off"
        spellCheck={false}
        value={shown}
        disabled={written === '' && typed === null && faults.length > 0}
        error={problem ? `${problem.detail}${problem.right && ` Right would be: ${problem.right}.`}` : undefined}
        onFocus={() => setHelping(true)}
        onChange={(event) => {
          const text = event.currentTarget.value
          setTyped(text)
          void read(text)
        }}
        onBlur={() => {
          setHelping(false)
          // What could not be read stays as it was typed; what was read takes its usual form.
          if (!understood.problem) setTyped(null)
        }}
      />
      <div id={help} className={css.doseHelp}>
        {problem?.at != null && shown !== '' && (
          <code className={css.doseFault}>
            {shown.slice(0, problem.at)}
            <mark>{shown.slice(problem.at) || '…'}</mark>
          </code>
        )}
        {typed !== null && !problem && understood.words && <span role="status">{understood.words}</span>}
        {helping && (
          <details className={css.more}>
            <summary
              onMouseDown={(event) => {
                // The field keeps the focus while the help is opened.
                event.preventDefault()
              }}
            >
              What can I type?
            </summary>
            <dl className={css.forms}>
              {forms.map((form) => (
                <div key={form.form}>
                  <dt>{form.form}</dt>
                  <dd>{form.means}</dd>
                </div>
              ))}
            </dl>
          </details>
        )}
      </div>
    </div>
  )
}
