import { Anchor, Button, Checkbox, Loader, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useAct } from '../../save/acts'
import { kept, leftBehind } from '../../save/kept'
import { ConflictDialog } from '../../save/ConflictDialog'
import { SaveNote } from '../../save/SaveNote'
import type { Draft } from '../../save/Saver'
import { ErrorNote } from '../../ui/ErrorNote'
import { FamilyMark } from '../../ui/FamilyMark'
import { useClassEditor } from '../editor/context'
import { AboutClass } from './AboutClass'
import { AsLed } from './AsLed'
import css from './Log.module.css'
import { Row, tierWords, withTier } from './LogRowLine'
import { PickMenu } from '../../ui/PickMenu'
import { UndoBar } from '../../ui/UndoBar'
import type { Log, LogRow, LogView } from './useLog'
import { useLog } from './useLog'

type Person = Schemas['Person']

/** Who came and what they did, filled in beforehand. */
export function LogPage() {
  const { session, flush } = useClassEditor()
  const id = session?.id ?? ''
  const query = useQuery({
    queryKey: ['log', id],
    enabled: id !== '',
    queryFn: async () => {
      await flush()
      const log = await answer(api.GET('/api/sessions/{id}/log', { params: { path: { id } } }))
      // What a tab that is gone, or this one before it was left, could not save.
      const left = (await leftBehind<Draft<Log>>('log', id))[0]?.value ?? kept<Draft<Log>>('log', id)
      return { log, left }
    },
    gcTime: 0,
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })
  if (id === '') return <ErrorNote title="This class has no date yet, so there is nothing to log." />
  if (query.isPending) return <Loader m="xl" aria-label="Opening the log" />
  if (query.isError) {
    return (
      <ErrorNote title={`The log could not be opened. ${troubleWords(query.error)}`}>
        <Anchor component={Link} to="../build" relative="path">
          Go to Build
        </Anchor>
      </ErrorNote>
    )
  }
  return <OpenLog key={id} session={id} log={query.data.log} left={query.data.left} />
}

function OpenLog({ session, log, left }: { session: string; log: LogView; left: Draft<Log> | null }) {
  const {
    saver,
    log: now,
    rows,
    others,
    setAbout,
    setRow,
    setAll,
    add,
    learn,
    store,
    takeTheirs,
  } = useLog(session, log, left)
  const navigate = useNavigate()
  const came = rows.filter((r) => r.row.came).length
  const main = log.columns.filter((column) => column.main)
  const [all, setAllColumns] = useState(false)
  // What many rows were before they were all set, for Undo.
  const [before, setBefore] = useState<{ words: string; rows: LogRow[] } | null>(null)
  const setEvery = (who: string, what: string, next: (row: LogRow) => LogRow) => {
    setBefore({ words: `${who}: ${what}.`, rows: now.rows })
    setAll(next)
  }
  // What is warmed up and stretched with is rarely otherwise than planned.
  const columns = all || main.length === 0 ? log.columns : main

  return (
    <main className={css.page}>
      <div className={css.head}>
        <div>
          <p className={css.led}>{log.led}</p>
          <p className={css.aside}>
            {came} of {rows.length} came. Change only what was different.
          </p>
        </div>
        {main.length > 0 && main.length < log.columns.length && (
          <Checkbox
            label="Warm-up and stretches too"
            checked={all}
            onChange={(event) => setAllColumns(event.currentTarget.checked)}
          />
        )}
        <SaveNote saver={saver} />
        <ConflictDialog saver={saver} onTheirs={takeTheirs} />
        <Button onClick={() => void store().then((saved) => saved && navigate('/'))}>Save the log</Button>
      </div>
      {rows.length === 0 ? (
        <p>
          {others.length > 0 ? (
            'Nobody was expected. Add who came below.'
          ) : (
            <>
              Your People list is empty. <Link to="/people">Add the people who come</Link>, then log them here.
            </>
          )}
        </p>
      ) : (
        <div className={css.scroll} role="region" aria-label="Log" tabIndex={0}>
          <table className={css.table}>
            <thead>
              <tr>
                <th scope="col">Person</th>
                <th scope="col">
                  Came
                  <PickMenu
                    label="Mark all or none as here"
                    shown="set all…"
                    words={[
                      ['all', 'all came'],
                      ['none', 'none came'],
                    ]}
                    onPick={(word) =>
                      setEvery('Everyone', word === 'all' ? 'came' : 'is marked as not here', (row) => ({
                        ...row,
                        came: word === 'all',
                      }))
                    }
                  />
                </th>
                {columns.map((column) => (
                  <th key={column.station} scope="col" className={css.station}>
                    <FamilyMark family={column.family} size={15} /> {column.name}
                    <span>{[column.target, column.cut].filter(Boolean).join(', ')}</span>
                    {column.sided && <span>left/right</span>}
                    <PickMenu
                      label={`Everyone at ${column.name}`}
                      shown="set all…"
                      words={tierWords}
                      onPick={(tier, said) =>
                        setEvery(`Everyone at ${column.name}`, said, (row) =>
                          row.came ? withTier(row, column, tier) : row,
                        )
                      }
                    />
                  </th>
                ))}
                <th scope="col">Effort 0–10</th>
                <th scope="col">Note</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ name, row }) => (
                <Row
                  key={row.personId}
                  name={name}
                  row={row}
                  columns={columns}
                  onChange={(next) => setRow(row.personId, next)}
                />
              ))}
            </tbody>
          </table>
        </div>
      )}
      {before && (
        <UndoBar
          words={before.words}
          onUndo={() => {
            const was = new Map(before.rows.map((row) => [row.personId, row]))
            setAll((row) => was.get(row.personId) ?? row)
            setBefore(null)
          }}
          onGone={() => setBefore(null)}
        />
      )}
      <WalkIn
        onAdded={(person) =>
          add({
            personId: person.id,
            came: true,
            uses: log.columns.map((column) => {
              const main = column.choices.find((c) => c.tier === 'main')!
              return { station: column.station, option: main.id, sets: main.sets, note: '' }
            }),
            note: '',
            wishes: '',
          })
        }
        learn={learn}
      />
      {others.length > 0 && (
        <p>
          Someone else from your list came:{' '}
          <PickMenu
            label="Someone else from your list came"
            shown="Choose a name…"
            words={others.map((r) => [r.row.personId, r.name])}
            onPick={(id) => {
              const person = others.find((r) => r.row.personId === id)
              if (person) add({ ...person.row, came: true })
            }}
          />
        </p>
      )}
      <AboutClass log={now} columns={log.columns} onChange={setAbout} />
      {log.led !== 'Not led yet' && <AsLed session={session} />}
      {log.past.length > 0 && <PastLogs session={session} past={log.past} />}
    </main>
  )
}

/** Somebody who came and was not on the roster. */
function WalkIn({ onAdded, learn }: { onAdded: (person: Person) => void; learn: (person: Person) => void }) {
  const adder = useAct('addPerson')
  const [name, setName] = useState('')
  const [trouble, setTrouble] = useState('')
  async function put() {
    setTrouble('')
    try {
      const person = await adder.mutateAsync({ id: '', name: name.trim() })
      learn(person)
      onAdded(person)
      setName('')
    } catch (error) {
      setTrouble(`They were not added. ${troubleWords(error)}`)
    }
  }
  return (
    <form
      className={css.walkIn}
      onSubmit={(event) => {
        event.preventDefault()
        if (name.trim() !== '') void put()
      }}
    >
      <TextInput
        label="Someone new came"
        placeholder="name"
        maxLength={80}
        w={260}
        value={name}
        error={trouble || undefined}
        description={adder.isPaused ? 'Halterion is not answering; they will be added when it is back.' : undefined}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Button type="submit" variant="default" disabled={name.trim() === '' || adder.isPending}>
        Add to People and to this log
      </Button>
    </form>
  )
}

/** A log that was corrected late stays as it was, beside what it is now. */
function PastLogs({ session, past }: { session: string; past: LogView['past'] }) {
  return (
    <p className={css.aside}>
      Corrected since:{' '}
      {past.map((version, i) => (
        <span key={version.version}>
          {i > 0 && ', '}
          <a href={`/api/sessions/${session}/log/past/${version.version}`}>as it was on {dayWords(version.savedAt)}</a>
        </span>
      ))}
    </p>
  )
}

const dayWords = (at: string) =>
  new Date(at).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })
