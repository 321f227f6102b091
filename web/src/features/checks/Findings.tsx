import { Button, TextInput } from '@mantine/core'
import type { Dispatch, SetStateAction } from 'react'
import { createContext, useContext, useEffect, useEffectEvent, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { Plan, Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { change as keepChange, idOf, revisionSeen } from '../../save/documents'
import { partId, withField } from '../../plan/edit'
import { clock } from '../../ui/time'
import { many } from '../../ui/words'
import { useClassEditor } from '../editor/context'
import css from './Checks.module.css'
import type { Finding, Offer } from '../editor/useChecks'
import { useRules } from '../editor/useChecks'

const severities = {
  stop: 'Don’t run it like this',
  fix: 'Needs fixing',
  consider: 'Consider',
  note: 'Worth knowing',
} as const

type Severity = keyof typeof severities

const UNFOLDED = 'halterion.findings'

/** Whether this tab shows what is not the worst: who has opened it once wants to see it. */
function unfolded() {
  try {
    return sessionStorage.getItem(UNFOLDED) === 'open'
  } catch {
    return false
  }
}

function keepUnfolded(is: boolean) {
  try {
    sessionStorage.setItem(UNFOLDED, is ? 'open' : 'folded')
  } catch {
    // Without a place to keep it, it is folded the next time.
  }
}

/** "11 more: 4 need fixing, 7 to consider". */
function restWords(findings: Finding[]) {
  const of = (which: Severity[]) => findings.filter((f) => which.includes(f.severity)).length
  const [grave, soft, note] = [of(['stop', 'fix']), of(['consider']), of(['note'])]
  const parts = [
    grave > 0 && many(grave, 'needs fixing', 'need fixing'),
    soft > 0 && `${soft} to consider`,
    note > 0 && `${note} worth knowing`,
  ].filter(Boolean)
  return `${findings.length} more: ${parts.join(', ')}`
}

type Reasons = Record<string, string | null>

/** Reasons that are being typed, by finding: what was found anew may put a finding elsewhere in the list under the hands. */
const ReasonsContext = createContext<[Reasons, Dispatch<SetStateAction<Reasons>>]>([{}, () => {}])

/**
 * The findings of a class by what matters; one cause is one line; what was left as it is stands apart. Beside the class the worst
 * is told, the rest is folded; `whole`: all of it stands open.
 */
export function Findings({ whole = false }: { whole?: boolean }) {
  const { checks, core } = useClassEditor()
  const [trouble, setTrouble] = useState('')
  const reasons = useState<Reasons>({})
  // Who comes, with which care, and what there is may have changed on another screen.
  useEffect(() => core.looker.again(), [core])
  const [leftOpen, setLeftOpen] = useState(false)
  const [restOpen, setRestOpen] = useState(() => unfolded())
  const unfold = (is: boolean) => {
    setRestOpen(is)
    keepUnfolded(is)
  }
  const open = checks.findings.filter((f) => !f.waived)
  const left = checks.findings.filter((f) => f.waived)
  const all = (Object.keys(severities) as Severity[]).flatMap((of) => groups(open.filter((f) => f.severity === of)))
  const [first, rest] = whole ? [all, []] : [all.slice(0, 1), all.slice(1)]
  return (
    <ReasonsContext value={reasons}>
      <section aria-label="Checks" className={css.all}>
        {trouble && (
          <p className={css.trouble} role="alert">
            {trouble}
          </p>
        )}
        {checks.trouble && (
          <p className={css.trouble} role="alert">
            People, kit, room and fixes could not be checked. {checks.trouble}
          </p>
        )}
        {open.length === 0 && !checks.trouble && <p className={css.soft}>Nothing to fix.</p>}
        <Grouped groups={first} onTrouble={setTrouble} />
        {rest.length > 0 && (
          <details className={css.rest} open={restOpen} onToggle={(event) => unfold(event.currentTarget.open)}>
            <summary>{restWords(rest.flat())}</summary>
            <Grouped groups={rest} said={first[0]?.[0]?.severity} onTrouble={setTrouble} />
          </details>
        )}
        {checks.fresh && checks.untried > 0 && (
          <p className={css.soft}>
            {many(checks.untried, 'more way', 'more ways')} to fix this class could not be tried in time. Fix something
            first, and they are tried next.
          </p>
        )}
        {left.length > 0 && (
          <details className={css.left} open={leftOpen} onToggle={(event) => setLeftOpen(event.currentTarget.open)}>
            <summary>Accepted as is: {left.length}</summary>
            <ul className={css.list}>
              {left.map((finding) => (
                <li key={finding.key} className={css.finding} data-severity="waived">
                  <strong>{finding.what}</strong>
                  <span className={css.soft}>{finding.waived}</span>
                  <Waive finding={finding} onTrouble={setTrouble} />
                </li>
              ))}
            </ul>
          </details>
        )}
      </section>
    </ReasonsContext>
  )
}

interface GroupedProps {
  groups: Finding[][]
  /** A severity whose heading stands above already. */
  said?: Severity | undefined
  onTrouble: (words: string) => void
}

/** Groups of findings under the heading of their severity. */
function Grouped({ groups: all, said, onTrouble }: GroupedProps) {
  return (Object.keys(severities) as Severity[]).map((severity) => {
    const here = all.filter((group) => group[0]!.severity === severity)
    if (here.length === 0) return null
    return (
      <section
        key={severity}
        aria-label={severity === said ? undefined : severities[severity]}
        className={css.ofSeverity}
      >
        {severity !== said && (
          <h2 className={css.severity} data-severity={severity}>
            {severities[severity]} <span className={css.number}>{here.flat().length}</span>
          </h2>
        )}
        <ul className={css.list}>
          {here.map((group) => (
            <Group key={group[0]!.code} findings={group} onTrouble={onTrouble} />
          ))}
        </ul>
      </section>
    )
  })
}

/** Findings of one rule stand together, where the first of them stands. */
function groups(findings: Finding[]): Finding[][] {
  const by = new Map<string, Finding[]>()
  for (const finding of findings) by.set(finding.code, [...(by.get(finding.code) ?? []), finding])
  return [...by.values()]
}

const MANY = 2

function Group({ findings, onTrouble }: { findings: Finding[]; onTrouble: (words: string) => void }) {
  const rules = useRules()
  const first = findings[0]!
  if (findings.length < MANY)
    return (
      <li className={css.finding} data-severity={first.severity}>
        <One finding={first} onTrouble={onTrouble} />
      </li>
    )
  const rule = rules.data?.find((r) => r.code === first.code)
  const says = rule?.several ? `${findings.length} ${rule.several}` : (rule?.says ?? first.what)
  return (
    <li className={css.finding} data-severity={first.severity}>
      <details>
        <summary>
          <strong>{says}:</strong>{' '}
          <span className={css.soft}>{[...new Set(findings.map((f) => f.where))].join(', ')}</span>
        </summary>
        <ul className={css.list}>
          {findings.map((finding) => (
            <li key={finding.key} className={css.finding}>
              <One finding={finding} onTrouble={onTrouble} />
            </li>
          ))}
        </ul>
      </details>
    </li>
  )
}

function One({ finding, onTrouble }: { finding: Finding; onTrouble: (words: string) => void }) {
  const { plan, checks } = useClassEditor()
  const offers = checks.offers.filter((offer) => offer.finding === finding.key)
  const link = seenTo(finding, plan)
  return (
    <>
      <strong>{finding.what}</strong>
      {offers.map((offer) => (
        <OfferButton key={offer.repair} offer={offer} onTrouble={onTrouble} />
      ))}
      <details className={css.why}>
        <summary>Why</summary>
        <p>{finding.why}</p>
        {finding.behind && <p>{finding.behind}</p>}
        {finding.others && <p>Some do it differently: {finding.others}</p>}
        <p className={css.soft}>{finding.source}</p>
      </details>
      <span className={css.small}>
        {link && (
          <Link to={link.to} relative="path">
            {link.words}
          </Link>
        )}
        <Waive finding={finding} onTrouble={onTrouble} />
      </span>
    </>
  )
}

/** Where it is seen to; null for what is about the class as a whole. */
function seenTo(finding: Finding, plan: Plan): { to: string; words: string } | null {
  if (finding.code === 'people.expired') return { to: '/people', words: 'Open People' }
  if (finding.place === 'class') return null
  if (finding.code.startsWith('kit.')) return { to: '../room?view=kit', words: 'Open Kit' }
  if (finding.ofSession) return { to: '../room', words: 'Open Room' }
  // An option is seen to at its station.
  const [, , block, , station] = (finding.pointer ?? '').split('/')
  const at = plan.blocks[Number(block)]
  const within = at?.stations?.[Number(station)]
  if (!at) return null
  return {
    to: `../build#${within ? `station-${partId(within)}` : `block-${partId(at)}`}`,
    words: `Go to ${finding.where} (${clock(finding.at ?? 0)})`,
  }
}

/** A repair, looked at on the tape before it is taken; one click takes it. */
function OfferButton({ offer, onTrouble }: { offer: Offer; onTrouble: (words: string) => void }) {
  const { plan, core, change, setPreview, checks } = useClassEditor()
  const looked = useRef<{ plan: unknown; answer: Schemas['RepairResult'] } | null>(null)
  const looking = useRef(false)
  const [over, setOver] = useState(false)
  const [waits, setWaits] = useState(false)
  // Whoever looks at something else keeps looking at it when this one goes.
  useEffect(
    () => () => {
      if (looking.current) setPreview(null)
    },
    [setPreview],
  )

  const ask = () =>
    answer(api.POST('/api/plans/repair', { body: { class: plan, finding: offer.finding, repair: offer.repair } }))

  async function look() {
    if (looking.current) return
    looking.current = true
    try {
      const known = looked.current?.plan === plan ? looked.current.answer : await ask()
      looked.current = { plan, answer: known }
      if (looking.current) setPreview({ plan: known.class, evaluation: known.evaluation })
    } catch {
      looking.current = false
    }
  }

  function turnAway() {
    looking.current = false
    setOver(false)
    setPreview(null)
  }

  // An offer that stands on the screen may still be one for the class before the last change: look and press wait for what is known now.
  const known = useEffectEvent(() => {
    if (over) void look()
    if (waits) void take()
  })
  useEffect(() => {
    if (checks.fresh) known()
  }, [over, waits, checks.fresh])

  async function take() {
    onTrouble('')
    setWaits(!checks.fresh)
    if (!checks.fresh) return
    try {
      const mended = looked.current?.plan === plan ? looked.current.answer : await ask()
      if (core.store.getState().now.plan !== plan)
        onTrouble('The class changed in the meantime, so the fix was not used. Press it again.')
      else change(`repair ${offer.finding}`, (draft) => ({ ...draft, plan: mended.class }), mended.evaluation)
    } catch (error) {
      onTrouble(`Nothing was changed. ${troubleWords(error)}`)
    }
  }

  return (
    <button
      type="button"
      className={css.offer}
      aria-disabled={!checks.fresh}
      onPointerEnter={() => setOver(true)}
      onPointerLeave={turnAway}
      onFocus={() => setOver(true)}
      onBlur={turnAway}
      onClick={() => void take()}
    >
      <span>{offer.title}</span>
      <span className={css.then}>
        {offer.words.slice(0, 3).join('; ')}
        {offer.words.length > 3 && `; and ${offer.words.length - 3} more`}. The class is then {offer.verdict}.
        {waits && !checks.fresh && ' Checking your last change first…'}
      </span>
    </button>
  )
}

/** Leaves a finding as it is, with a reason: in the class, or for this occasion; or takes it up again. */
function Waive({ finding, onTrouble }: { finding: Finding; onTrouble: (words: string) => void }) {
  const { change, core, session } = useClassEditor()
  const [reasons, setReasons] = useContext(ReasonsContext)
  const key = finding.key ?? `${finding.code}@${finding.place}`
  const reason = reasons[key] ?? null
  const setReason = (words: string | null) => setReasons((all) => ({ ...all, [key]: words }))
  const is = (w: { code: string; place: string }) => w.code === finding.code && w.place === finding.place

  function leave(words: string | null) {
    onTrouble('')
    setReason(null)
    if (!finding.ofSession) {
      change(words === null ? 'take up' : 'leave', (draft) => {
        const left = (draft.plan.waivers ?? []).filter((w) => !is(w))
        if (words !== null) left.push({ code: finding.code, place: finding.place, reason: words })
        return { ...draft, plan: withField(draft.plan, 'waivers', left.length === 0 ? undefined : left) }
      })
      return
    }
    const of = session?.id ?? ''
    const before = finding.waived ?? null
    const saver = keepChange('waiver', idOf(of, finding.code, finding.place), before, revisionSeen('waiver', of), words)
    void saver.flush().then(() => core.looker.again())
  }

  // Without an occasion there is nothing to leave it for.
  if (finding.ofSession && !session) return null
  if (finding.waived)
    return (
      <button type="button" className={css.quiet} onClick={() => leave(null)}>
        Reopen
      </button>
    )
  if (reason === null)
    return (
      <button type="button" className={css.quiet} onClick={() => setReason('')}>
        Accept as is…
      </button>
    )
  return (
    <form
      className={css.waive}
      onSubmit={(event) => {
        event.preventDefault()
        if (reason.trim() !== '') leave(reason.trim())
      }}
    >
      <TextInput
        size="xs"
        aria-label="Reason"
        placeholder={finding.ofSession ? 'Why is it right this time?' : 'Why is it right for this class?'}
        maxLength={400}
        autoFocus
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <Button size="xs" type="submit" variant="default">
        Accept
      </Button>
    </form>
  )
}
