import { Anchor, Button, FileButton, Loader } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import type { DragEvent } from 'react'
import { useEffect, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { ClassView, Fault, Schemas } from '../../api/client'
import { answer, api, Refused } from '../../api/client'
import { useClasses } from '../../api/queries'
import { ErrorNote } from '../../ui/ErrorNote'
import { dayAndTime } from '../../ui/time'
import { UndoBar } from '../../ui/UndoBar'
import css from './Classes.module.css'

type Summary = Schemas['ClassSummary']

interface BadFile {
  name: string
  title: string
  faults: Fault[]
}

/** All classes: those to come, and those that were. */
export function ClassesPage() {
  const query = useClasses()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [bad, setBad] = useState<BadFile | null>(null)
  const [over, setOver] = useState(false)
  const [removed, setRemoved] = useState<Summary | null>(null)
  const refresh = () => queries.invalidateQueries({ queryKey: ['classes'] })

  useEffect(() => {
    document.title = 'Classes · Halterion'
  }, [])

  async function open(file: File | null | undefined) {
    if (!file) return
    setBad(null)
    try {
      // The bytes go as they are, so that they come back as they were.
      const body = await file.arrayBuffer()
      const made = (await answer(
        api.POST('/api/classes/file', {
          body: body as never,
          bodySerializer: (bytes) => bytes as never,
          headers: { 'Content-Type': 'application/json' },
        }),
      )) as ClassView
      await refresh()
      void navigate(`/classes/${made.id}/build`)
    } catch (error) {
      setBad(
        error instanceof Refused
          ? { name: file.name, title: error.message, faults: error.problem.errors ?? [] }
          : { name: file.name, title: 'The file could not be read, or the server does not answer.', faults: [] },
      )
    }
  }

  async function remove(line: Summary) {
    await answer(api.DELETE('/api/classes/{id}', { params: { path: { id: line.id } } }))
    setRemoved(line)
    await refresh()
  }

  async function restore(line: Summary) {
    await answer(api.POST('/api/classes/{id}/restore', { params: { path: { id: line.id } } }))
    setRemoved(null)
    await refresh()
  }

  function onDrop(event: DragEvent) {
    event.preventDefault()
    setOver(false)
    void open(event.dataTransfer.files[0])
  }

  const lines = query.data ?? []
  const planned = lines.filter((line) => line.status === 'planned')
  const led = lines.filter((line) => line.status !== 'planned').reverse()

  return (
    <main
      className={over ? `${css.page} ${css.dropping}` : css.page}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <div className={css.head}>
        <h1>Classes</h1>
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
        <ErrorNote title={`“${bad.name}” was not opened; nothing was changed. ${bad.title}`}>
          {bad.faults.length > 0 && (
            <ul>
              {bad.faults.map((fault, i) => (
                <li key={i}>
                  <code>{fault.pointer || 'the file'}</code>: {fault.detail} Right would be: {fault.right}.
                </li>
              ))}
            </ul>
          )}
        </ErrorNote>
      )}
      {query.isPending && <Loader aria-label="Fetching the classes" />}
      {query.isError && (
        <ErrorNote title="The classes cannot be fetched: the server does not answer.">
          <Anchor component="button" onClick={() => void query.refetch()}>
            Try again
          </Anchor>
        </ErrorNote>
      )}
      {query.isSuccess && lines.length === 0 && (
        <div className={css.empty}>
          <p>
            No classes yet. A class begins with its brief: how long the room is booked, how many people, what for. Then
            you build it from blocks and stations, and the tape on top shows at once whether it fits.
          </p>
          <Button component={Link} to="/classes/new" size="md">
            Plan your first class
          </Button>
          <p className={css.aside}>Have a class file from someone? Drop it anywhere on this page.</p>
        </div>
      )}
      {planned.length > 0 && <List title="To come" lines={planned} onRemove={(line) => void remove(line)} />}
      {led.length > 0 && <List title="Led" lines={led} onRemove={(line) => void remove(line)} />}
      {removed && (
        <UndoBar
          key={removed.id}
          words={`“${removed.title}” removed.`}
          onUndo={() => void restore(removed)}
          onGone={() => setRemoved(null)}
        />
      )}
    </main>
  )
}

function List({ title, lines, onRemove }: { title: string; lines: Summary[]; onRemove: (line: Summary) => void }) {
  return (
    <section aria-label={title}>
      <h2 className={css.part}>{title}</h2>
      <ul className={css.list}>
        {lines.map((line) => (
          <li key={line.id} className={css.line}>
            <span className={css.when}>{dayAndTime(line.booking.startsAt)}</span>
            <span className={css.what}>
              <Link to={`/classes/${line.id}/${line.status === 'planned' ? 'build' : 'log'}`} className={css.title}>
                {line.title}
              </Link>
              <span className={css.aside}>
                {line.status === 'planned'
                  ? `${line.booking.headCount} expected`
                  : line.status === 'logged'
                    ? `logged, ${line.came} came`
                    : 'led, not logged yet'}
              </span>
            </span>
            <span className={css.fit} data-over={line.verdict.endsWith('over')}>
              <strong>{line.length}</strong> {line.verdict}
            </span>
            <span className={css.acts}>
              {line.status === 'planned' && <Link to={`/classes/${line.id}/lead`}>Lead</Link>}
              <Link to={`/classes/new?copy=${line.id}`}>Copy</Link>
              <a href={`/api/classes/${line.id}/file`} download>
                Download
              </a>
              <button type="button" className={css.act} onClick={() => onRemove(line)}>
                Remove<span className="hidden"> {line.title}</span>
              </button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
