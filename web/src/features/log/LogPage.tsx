import { Anchor, Button, Checkbox, Loader, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import type { KeyboardEvent } from 'react'
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
import css from './Log.module.css'
import type { Log, LogRow, LogView } from './useLog'
import { useLog } from './useLog'

type Person = Schemas['Person']

/** Enter goes down a column, with Shift up, as in a table that is filled in. */
function down(event: KeyboardEvent<HTMLElement>) {
  if (event.key !== 'Enter') return
  event.preventDefault()
  const cell = event.currentTarget.closest('td')
  const row = cell?.closest('tr')
  const to = (event.shiftKey ? row?.previousElementSibling : row?.nextElementSibling) as HTMLTableRowElement | null
  const field = cell && to?.cells[cell.cellIndex]?.querySelector<HTMLElement>('select, input')
  field?.focus()
}

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
  if (id === '') return <ErrorNote title="This class has no occasion yet, so there is nothing to log." />
  if (query.isPending) return <Loader m="xl" aria-label="Opening the log" />
  if (query.isError) {
    return (
      <ErrorNote title={`There is no log to show. ${troubleWords(query.error)}`}>
        <Anchor component={Link} to="../build" relative="path">
          Back to building
        </Anchor>
      </ErrorNote>
    )
  }
  return <OpenLog key={id} session={id} log={query.data.log} left={query.data.left} />
}

function OpenLog({ session, log, left }: { session: string; log: LogView; left: Draft<Log> | null }) {
  const { saver, rows, note, others, setNote, setRow, setAll, add, learn, store, takeTheirs } = useLog(
    session,
    log,
    left,
  )
  const navigate = useNavigate()
  const came = rows.filter((r) => r.row.came).length

  return (
    <main className={css.page}>
      <div className={css.head}>
        <div>
          <p className={css.led}>{log.led}</p>
          <p className={css.aside}>
            {came} of {rows.length} came. Correct what was different; leave the rest.
          </p>
        </div>
        <SaveNote saver={saver} />
        <ConflictDialog saver={saver} onTheirs={takeTheirs} />
        <Button onClick={() => void store().then((saved) => saved && navigate('/'))}>Save the log</Button>
      </div>
      {rows.length === 0 ? (
        <p>
          {others.length > 0 ? (
            'Nobody is expected yet. Add who came below.'
          ) : (
            <>
              Nobody is on the roster yet. <Link to="/people">Add the people who come</Link>, then log them here.
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
                  <AllSelect
                    label="All or none came"
                    words={[
                      ['all', 'all'],
                      ['none', 'none'],
                    ]}
                    onPick={(word) => setAll((row) => ({ ...row, came: word === 'all' }))}
                  />
                </th>
                {log.columns.map((column) => (
                  <th key={column.station} scope="col" className={css.station}>
                    <FamilyMark family={column.family} size={15} /> {column.name}
                    <span>{[column.target, column.cut].filter(Boolean).join(', ')}</span>
                    <AllSelect
                      label={`Everyone at ${column.name}`}
                      words={tierWords}
                      onPick={(tier) => setAll((row) => (row.came ? withUse(row, column, tier) : row))}
                    />
                  </th>
                ))}
                <th scope="col">Note</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ name, row }) => (
                <Row
                  key={row.personId}
                  name={name}
                  row={row}
                  columns={log.columns}
                  onChange={(next) => setRow(row.personId, next)}
                />
              ))}
            </tbody>
          </table>
        </div>
      )}
      <WalkIn
        onAdded={(person) =>
          add({
            personId: person.id,
            came: true,
            uses: log.columns.map((column) => ({
              station: column.station,
              option: column.choices.find((c) => c.tier === 'main')!.id,
            })),
            note: '',
          })
        }
        learn={learn}
      />
      {others.length > 0 && (
        <NativeSelect
          mt="md"
          maw={260}
          label="Somebody else came"
          value=""
          onChange={(event) => {
            const person = others.find((r) => r.row.personId === event.currentTarget.value)
            if (person) add({ ...person.row, came: true })
          }}
        >
          <option value="">choose a name …</option>
          {others.map((r) => (
            <option key={r.row.personId} value={r.row.personId}>
              {r.name}
            </option>
          ))}
        </NativeSelect>
      )}
      <Textarea
        mt="md"
        label="About this class, for next time"
        autosize
        minRows={2}
        maxLength={2000}
        value={note}
        onChange={(event) => setNote(event.currentTarget.value)}
      />
    </main>
  )
}

const tierWords: [string, string][] = [
  ['harder', 'harder'],
  ['main', 'main'],
  ['easier', 'easier'],
  ['instead', 'instead'],
  ['', 'left out'],
]

type Column = LogView['columns'][number]

/** The row with this tier at a station, where it has one; empty: it was left out. */
function withUse(row: LogRow, column: Column, tier: string): LogRow {
  const choice = column.choices.find((c) => c.tier === tier)
  if (tier !== '' && !choice) return row
  const use = { station: column.station, ...(choice ? { option: choice.id } : {}) }
  return { ...row, uses: [...row.uses.filter((u) => u.station !== column.station), use] }
}

/** Sets a whole row or a whole column at once. */
function AllSelect({
  label,
  words,
  onPick,
}: {
  label: string
  words: [string, string][]
  onPick: (word: string) => void
}) {
  return (
    <select
      className={css.all}
      aria-label={label}
      value="-"
      onChange={(event) => {
        onPick(event.currentTarget.value)
        event.currentTarget.value = '-'
      }}
    >
      <option value="-">all …</option>
      {words.map(([word, shown]) => (
        <option key={word} value={word}>
          {shown}
        </option>
      ))}
    </select>
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
      setTrouble(`Not added yet. ${troubleWords(error)}`)
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
        label="Somebody new walked in"
        placeholder="name"
        maxLength={80}
        w={260}
        value={name}
        error={trouble || undefined}
        description={adder.isPaused ? 'Waits for the server, and is added as soon as it answers.' : undefined}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Button type="submit" variant="default" disabled={name.trim() === '' || adder.isPending}>
        Add to the roster and the log
      </Button>
    </form>
  )
}

interface RowProps {
  name: string
  row: LogRow
  columns: LogView['columns']
  onChange: (next: (row: LogRow) => LogRow) => void
}

function Row({ name, row, columns, onChange }: RowProps) {
  return (
    <tr data-came={row.came}>
      <th scope="row">
        {name}
        {row.came && columns.length > 1 && (
          <AllSelect
            label={`All of ${name}`}
            words={tierWords}
            onPick={(tier) => onChange((r) => columns.reduce((next, column) => withUse(next, column, tier), r))}
          />
        )}
      </th>
      <td data-label="came">
        <Checkbox
          aria-label={`${name} came`}
          checked={row.came}
          onChange={(event) => {
            const came = event.currentTarget.checked
            onChange((r) => ({ ...r, came }))
          }}
        />
      </td>
      {columns.map((column) => {
        const option = row.uses.find((use) => use.station === column.station)?.option
        return (
          <td key={column.station} data-label={column.name}>
            <select
              className={css.use}
              aria-label={`${name}, ${column.name}`}
              data-tier={column.choices.find((choice) => choice.id === option)?.tier ?? 'none'}
              disabled={!row.came}
              value={option ?? ''}
              onKeyDown={down}
              onChange={(event) => {
                const value = event.currentTarget.value
                const next = { station: column.station, ...(value === '' ? {} : { option: value }) }
                onChange((r) => ({ ...r, uses: [...r.uses.filter((use) => use.station !== column.station), next] }))
              }}
            >
              {column.choices.map((choice) => (
                <option key={choice.id} value={choice.id} title={choice.words}>
                  {choice.tier}
                </option>
              ))}
              <option value="">left out</option>
            </select>
          </td>
        )
      })}
      <td data-label="note">
        <TextInput
          size="xs"
          w={158}
          aria-label={`Note on ${name}`}
          maxLength={2000}
          value={row.note}
          onChange={(event) => {
            const note = event.currentTarget.value
            onChange((r) => ({ ...r, note }))
          }}
        />
      </td>
    </tr>
  )
}
