import { Textarea } from '@mantine/core'
import type { KeyboardEvent } from 'react'
import { useEffect, useId, useLayoutEffect, useRef, useState } from 'react'
import type { Evaluation, Plan, PlanBlock, PlanStation, Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useDoseForms } from '../../api/queries'
import { useClassEditor, useOutline } from '../editor/context'
import css from './Build.module.css'
import { partId, setBlock, withField } from '../../plan/edit'

type Read = Schemas['DoseRead']
type Problem = Schemas['DoseProblem']

/** Why it is not taken, and what would be. */
export const problemWords = (problem: Problem): string =>
  problem.right === '' ? problem.detail : `${problem.detail} Should be: ${problem.right}.`

/** What a text was read as, and against which class. */
type Understood = { text: string; of: Plan; read: Read } | { text: string; problem: Problem }

const READ_AFTER = 60

/** What was typed and could not be taken, by station: it is still there when the station is opened again. */
const drafts = new Map<string, string>()

const ofDose = ['dose', 'sides', 'chunk', 'sharing', 'waiting'] as const
const ofBlock = ['rounds', 'betweenRounds', 'betweenSets'] as const

/** What was typed, put into the block as it is by now: it may have changed elsewhere while it was read. */
export function taken(now: PlanBlock, asked: PlanBlock, read: PlanBlock, station: string): PlanBlock {
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

/** Reads a dose for a station of a class. */
export async function readDose(text: string, plan: Plan, station: string, signal?: AbortSignal): Promise<Understood> {
  try {
    const { read, problem } = await answer(
      api.POST('/api/plans/dose', { body: { text, class: plan, station }, signal }),
    )
    return read ? { text, of: plan, read } : { text, problem: problem! }
  } catch (error) {
    if (signal?.aborted) throw error
    return { text, problem: { detail: troubleWords(error), right: '', at: null } }
  }
}

/**
 * The dose, typed in the trade's short form. What was understood is said beneath while it is typed; Enter or leaving
 * takes it, Escape gives the old one back, and what cannot be read stays with the reason and out of the class.
 */
export function DoseInput({ station, block, name }: { station: PlanStation; block: PlanBlock; name: string }) {
  const [id, blockId] = [partId(station), partId(block)]
  const { core, evaluation, change } = useClassEditor()
  const outline = useOutline(blockId)
  const forms = useDoseForms().data ?? []
  const written = outline?.stations.find((o) => o.id === id)?.dose ?? ''
  const [typed, setTyped] = useState<string | null>(drafts.get(id) ?? null)
  const [understood, setUnderstood] = useState<Understood | null>(null)
  // Until the class is added up anew, what was taken stands there and not what it replaced.
  const [lately, setLately] = useState<{ of: Evaluation | null; text: string } | null>(null)
  const [said, setSaid] = useState('')
  const stop = useRef<AbortController | null>(null)
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const help = useId()
  const [helping, setHelping] = useState(false)
  const field = useRef<HTMLTextAreaElement>(null)

  // What stands there may arrive after the focus: it is chosen then too, so that the first key replaces it.
  useLayoutEffect(() => {
    if (document.activeElement === field.current && !drafts.has(id)) field.current?.select()
  }, [written, id])

  // What was left here unread is read again, so that the reason stands beside it.
  useEffect(() => {
    const left = drafts.get(id)
    if (left === undefined) return
    void readDose(left, core.store.getState().now.plan, id).then(setUnderstood, () => undefined)
  }, [core, id])

  useEffect(
    () => () => {
      clearTimeout(timer.current)
      stop.current?.abort()
    },
    [],
  )

  function read(text: string): Promise<Understood> {
    stop.current?.abort()
    const asked = new AbortController()
    stop.current = asked
    return readDose(text, core.store.getState().now.plan, id, asked.signal).then((result) => {
      setUnderstood(result)
      return result
    })
  }

  function type(text: string) {
    setTyped(text)
    drafts.set(id, text)
    setSaid('')
    clearTimeout(timer.current)
    timer.current = setTimeout(() => void read(text).catch(() => undefined), READ_AFTER)
  }

  function letGo() {
    clearTimeout(timer.current)
    stop.current?.abort()
    drafts.delete(id)
    setTyped(null)
    setUnderstood(null)
  }

  async function take() {
    if (typed === null) return
    clearTimeout(timer.current)
    if (typed.trim() === shown0) return letGo()
    const { plan: now } = core.store.getState().now
    const known = understood && understood.text === typed && 'read' in understood && understood.of === now
    // Leaving the station does not take back what leaving the field has asked for.
    const result = known ? understood : await readDose(typed, now, id).catch(() => null)
    if (result) setUnderstood(result)
    if (!result || !('read' in result)) return
    drafts.delete(id)
    const asked = result.of.blocks.find((b) => b.id === blockId) ?? block
    const unchanged = core.store.getState().now.plan === result.of
    change(
      `dose ${id} ${result.text}`,
      (draft) => ({
        ...draft,
        plan: setBlock(draft.plan, blockId, (b) => taken(b, asked, result.read.block, id)),
      }),
      unchanged ? (result.read.evaluation ?? undefined) : undefined,
    )
    setLately({ of: evaluation, text: result.text })
    setSaid(`Set. ${result.read.also}`)
    setTyped(null)
    setUnderstood(null)
  }

  function onKey(event: KeyboardEvent) {
    if (event.key === 'Enter') {
      event.preventDefault()
      void take()
    } else if (event.key === 'Escape' && typed !== null) {
      event.preventDefault()
      event.stopPropagation()
      letGo()
    }
  }

  const shown0 = lately && lately.of === evaluation ? lately.text : written
  const shown = typed ?? shown0
  const current = typed !== null && understood?.text === typed ? understood : null
  const problem = current && 'problem' in current ? current.problem : undefined
  return (
    <div className={css.doseInput}>
      <Textarea
        ref={field}
        id={`dose-station-${id}`}
        label="Target"
        aria-label={`Target of ${name}`}
        aria-describedby={help}
        size="sm"
        autosize
        minRows={1}
        maxRows={5}
        autoComplete="off"
        spellCheck={false}
        value={shown}
        error={problem && problemWords(problem)}
        onFocus={() => setHelping(true)}
        onChange={(event) => type(event.currentTarget.value.replaceAll('\n', ' '))}
        onKeyDown={onKey}
        onBlur={() => {
          setHelping(false)
          void take()
        }}
      />
      <div id={help} className={css.doseHelp}>
        {problem?.at != null && shown !== '' && (
          <code className={css.doseFault}>
            {shown.slice(0, problem.at)}
            <mark>{shown.slice(problem.at) || '…'}</mark>
          </code>
        )}
        {problem && <span>Not saved. Esc goes back to “{shown0}”.</span>}
        {current && 'read' in current && (
          <span role="status">
            {current.read.words}: {current.read.takes}. {current.read.also && <b>{current.read.also} </b>} Press Enter
            to set it.
          </span>
        )}
        {typed === null && said && <span role="status">{said}</span>}
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
