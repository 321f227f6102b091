import { Anchor, Button, FileButton, Loader, TextInput } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import type { DragEvent } from 'react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Fault, Plan, Schemas } from '../../api/client'
import { many } from '../../ui/words'
import { answer, api, Refused, troubleWords } from '../../api/client'
import { useClasses, useClockFormat, useSessions } from '../../api/queries'
import { useAct } from '../../save/acts'
import { ErrorNote } from '../../ui/ErrorNote'
import { dayAndTime } from '../../ui/time'
import { UndoBar } from '../../ui/UndoBar'
import { Page } from '../../ui/Page'
import css from './Classes.module.css'

type Occasion = Schemas['SessionSummary']
type Summary = Schemas['ClassSummary']

/** What was taken out of a list last. */
interface Removed {
  kind: 'class' | 'session'
  id: string
  title: string
}

const WINDOW = 20

interface BadFile {
  name: string
  title: string
  faults: Fault[]
}

/** What is to come and what was held, with the plans behind them. */
export function ClassesPage() {
  const [shownHeld, setShownHeld] = useState(WINDOW)
  const [shownPlans, setShownPlans] = useState(WINDOW)
  const [search, setSearch] = useState('')
  const toCome = useSessions(false, 200)
  const held = useSessions(true, shownHeld)
  const plans = useClasses(search, shownPlans)
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [bad, setBad] = useState<BadFile | null>(null)
  const [over, setOver] = useState(false)
  const [removed, setRemoved] = useState<Removed | null>(null)
  const [removeClass, restoreClass] = [useAct('removeClass'), useAct('restoreClass')]
  const [removeSession, restoreSession] = [useAct('removeSession'), useAct('restoreSession')]

  async function open(file: File | null | undefined) {
    if (!file) return
    setBad(null)
    try {
      // The bytes go as they are, so that they come back as they were.
      const body = await file.arrayBuffer()
      const made = await answer(
        api.POST('/api/classes/file', {
          body: {} as Plan,
          bodySerializer: () => body,
          headers: { 'Content-Type': 'application/json' },
        }),
      )
      void queries.invalidateQueries({ queryKey: ['sessions'] })
      await queries.invalidateQueries({ queryKey: ['classes'] })
      void navigate(`/classes/${made.id}/build`)
    } catch (error) {
      setBad(
        error instanceof Refused
          ? { name: file.name, title: error.message, faults: error.problem.errors ?? [] }
          : { name: file.name, title: troubleWords(error), faults: [] },
      )
    }
  }

  const dropClass = (line: Summary) =>
    removeClass.mutate(line.id, { onSuccess: () => setRemoved({ kind: 'class', id: line.id, title: line.title }) })
  const dropSession = (line: Occasion) =>
    removeSession.mutate(line.id, { onSuccess: () => setRemoved({ kind: 'session', id: line.id, title: line.title }) })
  const restore = ({ kind, id }: Removed) =>
    (kind === 'class' ? restoreClass : restoreSession).mutate(id, { onSuccess: () => setRemoved(null) })

  function onDrop(event: DragEvent) {
    event.preventDefault()
    setOver(false)
    void open(event.dataTransfer.files[0])
  }

  /** Occasions whose title has every word that is looked for. */
  const fitting = (lines: Occasion[]) => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean)
    return lines.filter((line) => words.every((word) => line.title.toLowerCase().includes(word)))
  }

  const failed = toCome.error ?? held.error ?? plans.error
  const pending = toCome.isPending || held.isPending || plans.isPending
  const none = !pending && !failed && search === '' && plans.data?.all === 0 && held.data?.all === 0

  return (
    <Page
      name="Classes"
      className={over ? `${css.whole} ${css.dropping}` : css.whole}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <div className={css.head}>
        <h1>Classes</h1>
        {!none && (
          <TextInput
            aria-label="Find a class"
            placeholder="Search titles"
            value={search}
            onChange={(event) => setSearch(event.currentTarget.value)}
          />
        )}
        <FileButton onChange={(file) => void open(file)} accept=".json,application/json">
          {(props) => (
            <Button variant="default" {...props}>
              Open a class file
            </Button>
          )}
        </FileButton>
        <Button component={Link} to="/classes/new">
          New class
        </Button>
      </div>
      {bad && (
        <ErrorNote title={`“${bad.name}” could not be opened. Nothing was changed. ${bad.title}`}>
          {bad.faults.length > 0 && (
            <ul>
              {bad.faults.map((fault, i) => (
                <li key={i}>
                  {fault.place}: {fault.detail} Should be: {fault.right}.
                </li>
              ))}
            </ul>
          )}
        </ErrorNote>
      )}
      {pending && !failed && <Loader aria-label="Loading classes" />}
      {failed && (
        <ErrorNote title={`Your classes could not be loaded. ${troubleWords(failed)}`}>
          <Anchor component="button" onClick={() => void queries.refetchQueries({ type: 'active' })}>
            Try again
          </Anchor>
        </ErrorNote>
      )}
      {none && (
        <div className={css.empty}>
          <p>
            No classes yet. Start with a brief: how long you have the room, how many people, and what the class is for.
            Then build it from blocks and stations; the tape shows straight away whether it fits.
          </p>
          <Button component={Link} to="/classes/new" size="md">
            Plan your first class
          </Button>
          <p className={css.aside}>Got a class file? Drop it anywhere on this page.</p>
        </div>
      )}
      {toCome.data && toCome.data.all > 0 && (
        <Sessions title="Coming up" lines={fitting(toCome.data.sessions)} onRemove={dropSession} />
      )}
      {held.data && held.data.all > 0 && (
        <>
          <Sessions title="Past" lines={fitting(held.data.sessions)} onRemove={dropSession} />
          <More
            shown={held.data.sessions.length}
            all={held.data.all}
            onMore={() => setShownHeld((n) => n + 2 * WINDOW)}
          />
        </>
      )}
      {plans.data && (plans.data.all > 0 || search !== '') && (
        <section aria-label="All classes">
          <div className={css.head}>
            <h2 className={css.part}>All classes</h2>
          </div>
          <ul className={css.list}>
            {plans.data.classes.map((line) => (
              <PlanLine key={line.id} line={line} onRemove={() => dropClass(line)} />
            ))}
          </ul>
          {plans.data.all === 0 && <p className={css.aside}>No class title matches. Shorten the search.</p>}
          <More
            shown={plans.data.classes.length}
            all={plans.data.all}
            onMore={() => setShownPlans((n) => n + 2 * WINDOW)}
          />
        </section>
      )}
      {removed && (
        <UndoBar
          key={removed.id}
          words={`“${removed.title}” removed.`}
          onUndo={() => restore(removed)}
          onGone={() => setRemoved(null)}
        />
      )}
    </Page>
  )
}

function More({ shown, all, onMore }: { shown: number; all: number; onMore: () => void }) {
  if (shown >= all) return null
  return (
    <p className={css.aside}>
      {shown} of {all}{' '}
      <Anchor component="button" onClick={onMore}>
        Show more
      </Anchor>
    </p>
  )
}

interface SessionsProps {
  title: string
  lines: Occasion[]
  onRemove: (line: Occasion) => void
}

/** Occasions, each with its day and what became of it. */
function Sessions({ title, lines, onRemove }: SessionsProps) {
  const format = useClockFormat()
  if (lines.length === 0) return null
  return (
    <section aria-label={title}>
      <h2 className={css.part}>{title}</h2>
      <ul className={css.list}>
        {lines.map((line) => {
          const at = `/classes/${line.classId}/on/${line.id}`
          const planned = line.status === 'planned'
          const running = line.status === 'running'
          return (
            <li key={line.id} className={css.line} data-running={running || undefined}>
              <span className={css.when}>
                {line.booking.startsAt || !line.startedAt
                  ? dayAndTime(line.booking.startsAt, format)
                  : dayAndTime(localMinute(line.startedAt), format)}
              </span>
              <span className={css.what}>
                <Link to={`${at}/${running ? 'lead' : planned ? 'build' : 'log'}`} className={css.title}>
                  {line.title}
                </Link>
                <span className={css.aside}>
                  {planned
                    ? `${line.booking.headCount} expected`
                    : running
                      ? 'in progress'
                      : line.status === 'logged'
                        ? `logged · ${many(line.came, 'person', 'people')} came`
                        : 'led, not logged yet'}
                  {line.copyOf && `· copied from “${line.copyOf}”`}
                </span>
              </span>
              <SmallTape id={line.classId} version={line.length + line.verdict} />
              <span className={css.fit} data-over={line.verdict.endsWith('over')}>
                <strong>{line.length}</strong> {line.verdict}
              </span>
              <span className={css.acts}>
                {/* Also once it has started: a class that is under way is found again from any device. */}
                {line.status !== 'logged' && <Link to={`${at}/lead`}>Lead</Link>}
                <Link to={`/classes/new?copy=${line.classId}`}>Make a copy</Link>
                <button type="button" className={css.act} onClick={() => onRemove(line)}>
                  Remove<span className="hidden"> {line.title}</span>
                </button>
              </span>
            </li>
          )
        })}
      </ul>
    </section>
  )
}

/** The class at a glance; what it adds up to stands in words beside it. */
function SmallTape({ id, version }: { id: string; version: string }) {
  return (
    <img
      className={css.tape}
      src={`/api/classes/${id}/tape.svg?at=${encodeURIComponent(version)}`}
      alt=""
      loading="lazy"
      width={170}
      height={26}
    />
  )
}

/** A moment as this machine's wall clock has it. */
function localMinute(moment: number): string {
  const at = new Date(moment)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`
}

/** A plan: how long it is, and how often it was held. */
function PlanLine({ line, onRemove }: { line: Summary; onRemove: () => void }) {
  const held = line.held === 0 ? 'not led yet' : `led ${line.held === 1 ? 'once' : `${line.held} times`}`
  return (
    <li className={css.line}>
      <span className={css.when}>{held}</span>
      <span className={css.what}>
        <Link to={`/classes/${line.id}/build`} className={css.title}>
          {line.title}
        </Link>
        <span className={css.aside}>
          {line.copyOf ? `copied from “${line.copyOf}” · ` : ''}
          {line.toCome === 0 ? 'no date planned' : `${many(line.toCome, 'date', 'dates')} coming up`}
        </span>
      </span>
      <SmallTape id={line.id} version={String(line.savedAt)} />
      <span className={css.fit} data-over={line.verdict.endsWith('over')}>
        <strong>{line.length}</strong> {line.verdict}
      </span>
      <span className={css.acts}>
        <Link to={`/classes/new?copy=${line.id}`}>Make a copy</Link>
        <a href={`/api/classes/${line.id}/file`} download>
          Download
        </a>
        <button type="button" className={css.act} onClick={onRemove}>
          Remove<span className="hidden"> {line.title} and all its dates</span>
        </button>
      </span>
    </li>
  )
}
