import { Anchor, Button, Checkbox, Loader, Textarea, TextInput } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link, useNavigate } from 'react-router'
import { answer, api } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import { FamilyMark } from '../../ui/FamilyMark'
import { useClassEditor } from '../editor/context'
import css from './Log.module.css'
import type { LogRow, LogSave, LogView } from './useLog'
import { useLog } from './useLog'

/** Who came and what they did, filled in beforehand. */
export function LogPage() {
  const { id, flush } = useClassEditor()
  const query = useQuery({
    queryKey: ['log', id],
    queryFn: async () => {
      await flush()
      return answer(api.GET('/api/classes/{id}/log', { params: { path: { id } } }))
    },
    gcTime: 0,
    refetchOnWindowFocus: false,
  })
  if (query.isPending) return <Loader m="xl" aria-label="Opening the log" />
  if (query.isError) {
    return (
      <ErrorNote title="There is no log to show: the class has faults, or the server does not answer.">
        <Anchor component={Link} to="../build" relative="path">
          Back to building
        </Anchor>
      </ErrorNote>
    )
  }
  return <OpenLog classId={id} log={query.data} />
}

const saveWords: Record<LogSave, string> = {
  untouched: 'Filled in beforehand; not saved yet.',
  saved: 'Saved',
  saving: 'Saving …',
  offline: 'Not saved: no server. Trying again.',
  conflict: 'Not saved: this log was changed in another tab. Open it again to see that one.',
}

function OpenLog({ classId, log }: { classId: string; log: LogView }) {
  const { rows, note, save, setNote, setRow, store } = useLog(classId, log)
  const navigate = useNavigate()
  const queries = useQueryClient()
  const came = rows.filter((r) => r.row.came).length

  useEffect(() => {
    if (save === 'saved') void queries.invalidateQueries({ queryKey: ['classes'] })
  }, [save, queries])

  return (
    <main className={css.page}>
      <div className={css.head}>
        <div>
          <p className={css.led}>{log.led}</p>
          <p className={css.aside}>
            {came} of {rows.length} came. Correct what was different; leave the rest.
          </p>
        </div>
        <span role="status" className={save === 'offline' || save === 'conflict' ? css.trouble : css.aside}>
          {saveWords[save]}
        </span>
        <Button onClick={() => void store().then((saved) => saved && navigate('/'))}>Save the log</Button>
      </div>
      {rows.length === 0 ? (
        <p>
          Nobody is on the roster yet. <Link to="/people">Add the people who come</Link>, then log them here.
        </p>
      ) : (
        <div className={css.scroll} role="region" aria-label="Log" tabIndex={0}>
          <table className={css.table}>
            <thead>
              <tr>
                <th scope="col">Person</th>
                <th scope="col">Came</th>
                {log.columns.map((column) => (
                  <th key={`${column.block}.${column.station}`} scope="col" className={css.station}>
                    <FamilyMark family={column.family} size={15} /> {column.name}
                    <span>{column.target}</span>
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

interface RowProps {
  name: string
  row: LogRow
  columns: LogView['columns']
  onChange: (next: (row: LogRow) => LogRow) => void
}

function Row({ name, row, columns, onChange }: RowProps) {
  return (
    <tr data-came={row.came}>
      <th scope="row">{name}</th>
      <td>
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
        const here = (use: { block: number; station: number }) =>
          use.block === column.block && use.station === column.station
        const option = row.uses.find(here)?.option ?? null
        return (
          <td key={`${column.block}.${column.station}`}>
            <select
              className={css.use}
              aria-label={`${name}, ${column.name}`}
              data-tier={option === null ? 'none' : column.choices[option]?.tier}
              disabled={!row.came}
              value={option ?? ''}
              onChange={(event) => {
                const value = event.currentTarget.value
                const next = {
                  block: column.block,
                  station: column.station,
                  option: value === '' ? null : Number(value),
                }
                onChange((r) => ({ ...r, uses: [...r.uses.filter((use) => !here(use)), next] }))
              }}
            >
              {column.choices.map((choice, i) => (
                <option key={i} value={i} title={choice.words}>
                  {choice.tier}
                </option>
              ))}
              <option value="">left out</option>
            </select>
          </td>
        )
      })}
      <td>
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
