import { Anchor, Button, FileButton, Loader, TextInput } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import type { DragEvent } from 'react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Fault, Plan, Schemas } from '../../api/client'
import { answer, api, Refused, troubleWords } from '../../api/client'
import { useClasses } from '../../api/queries'
import { useAct } from '../../save/acts'
import { ErrorNote } from '../../ui/ErrorNote'
import { UndoBar } from '../../ui/UndoBar'
import { Page } from '../../ui/Page'
import { ClassLine } from './ClassLine'
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

/** Every class once: the one under way, those with a date to come, then the rest. */
export function ClassesPage() {
  const [shown, setShown] = useState(WINDOW)
  const [search, setSearch] = useState('')
  const classes = useClasses(search, shown, true)
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

  const none = search === '' && classes.data?.all === 0

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
      {classes.isPending && <Loader aria-label="Loading classes" />}
      {classes.error && (
        <ErrorNote title={`Your classes could not be loaded. ${troubleWords(classes.error)}`}>
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
      {classes.data && !none && (
        <>
          <ul className={css.list} aria-label="Classes, the next first">
            {classes.data.classes.map((line) => (
              <ClassLine key={line.id} line={line} onRemoveClass={() => dropClass(line)} onRemoveDate={dropSession} />
            ))}
          </ul>
          {classes.data.all === 0 && <p className={css.aside}>No class title matches. Shorten the search.</p>}
          <More
            shown={classes.data.classes.length}
            all={classes.data.all}
            onMore={() => setShown((n) => n + 2 * WINDOW)}
          />
        </>
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
