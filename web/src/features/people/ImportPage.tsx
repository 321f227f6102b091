import { Button, Checkbox, FileButton, NativeSelect, Textarea } from '@mantine/core'
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import { Page } from '../../ui/Page'
import css from './People.module.css'

type Column = Schemas['RosterColumn']

const columns: [Column, string][] = [
  ['ignore', 'ignore this column'],
  ['name', 'name'],
  ['firstName', 'first name'],
  ['lastName', 'last name'],
  ['nick', 'called in class'],
  ['stature', 'height, cm'],
  ['statureInches', 'stature, inches'],
  ['mass', 'weight, kg'],
  ['massPounds', 'weight, lb'],
  ['birthYear', 'year of birth'],
  ['level', 'usual option'],
  ['levelSquat', 'usual option in squats'],
  ['levelLunge', 'usual option in lunges'],
  ['levelHinge', 'usual option in hinges'],
  ['levelBridge', 'usual option in bridges'],
  ['limits', 'care'],
  ['ready', 'signed off'],
  ['boxCm', 'box, cm'],
  ['benchCm', 'bench, cm'],
  ['rearFootCm', 'rear-foot height, cm'],
  ['band', 'band'],
  ['note', 'note'],
]

const doing: Record<Schemas['RosterChange'], string> = {
  new: 'new',
  changed: 'changed',
  same: 'unchanged',
  faulty: 'to fix',
}

/** A table of people from elsewhere: what each column is, what each row would do, and then all of it or nothing. */
export function ImportPage() {
  const [text, setText] = useState('')
  const [heading, setHeading] = useState<boolean | null>(null)
  const [chosen, setChosen] = useState<Column[] | null>(null)
  const [done, setDone] = useState<Schemas['RosterTaken'] | null>(null)
  const [refused, setRefused] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
  const queries = useQueryClient()
  const body = { text, heading, columns: chosen }
  const look = useQuery({
    queryKey: ['roster', body],
    queryFn: () => answer(api.POST('/api/people/csv/look', { body })),
    enabled: text.trim() !== '' && done === null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
  const seen = text.trim() === '' ? undefined : look.data

  function put(next: string) {
    setText(next)
    setHeading(null)
    setChosen(null)
    setDone(null)
    setRefused(null)
  }

  async function take() {
    setBusy(true)
    setRefused(null)
    try {
      setDone(await answer(api.POST('/api/people/csv', { body })))
      await queries.invalidateQueries({ queryKey: ['people'] })
    } catch (error) {
      setRefused(error)
    }
    setBusy(false)
  }

  return (
    <Page name="Take in a table" className={css.import}>
      <p>
        <Link to="/people">‹ People</Link>
      </p>
      <h1>Import people from a table</h1>
      <p className={css.aside}>
        Use a CSV file or paste from a spreadsheet (commas, semicolons or tabs). People are matched by name: someone
        already on the list is updated, and an empty cell changes nothing.
      </p>
      <div className={css.add}>
        <FileButton accept=".csv,.txt,.tsv,text/csv,text/plain" onChange={(file) => void file?.text().then(put)}>
          {(props) => <Button {...props}>Choose a file</Button>}
        </FileButton>
      </div>
      <Textarea
        label="Or paste and edit it here"
        placeholder={'name;height;care\nAda Quill;168;\nGreta Holm;158;knee left strict'}
        autosize
        minRows={4}
        maxRows={14}
        value={text}
        onChange={(event) => {
          setText(event.currentTarget.value)
          setDone(null)
        }}
        classNames={{ input: css.table }}
      />
      {look.isError && <ErrorNote title={`This table could not be read. ${troubleWords(look.error)}`} />}
      {refused !== null && <ErrorNote title={`Nothing was imported. ${troubleWords(refused)}`} />}
      {done && (
        <p role="status" className={css.done}>
          Imported: {done.fresh} new, {done.changed} updated, {done.same} unchanged.{' '}
          <Link to="/people">Go to People</Link>
        </p>
      )}
      {seen && !done && (
        <>
          <h2>What each column means</h2>
          <Checkbox
            label="The first row has headings"
            checked={seen.heading}
            onChange={(event) => {
              setHeading(event.currentTarget.checked)
              setChosen(null)
            }}
          />
          <div className={css.columns}>
            {seen.columns.map((column, i) => (
              <div key={i} className={css.column}>
                <NativeSelect
                  label={column.heading || `Column ${i + 1}`}
                  value={column.is}
                  onChange={(event) => {
                    const next = seen.columns.map((c) => c.is)
                    next[i] = event.currentTarget.value as Column
                    setChosen(next)
                  }}
                >
                  {columns.map(([value, label]) => (
                    <option key={value} value={value}>
                      {label}
                    </option>
                  ))}
                </NativeSelect>
                <span className={css.soft}>{column.samples.join(' · ') || 'empty'}</span>
              </div>
            ))}
          </div>
          <h2>What will be imported</h2>
          <p role="status">
            {seen.fresh} new, {seen.changed} updated, {seen.same} unchanged
            {seen.faulty > 0 && `, ${seen.faulty} to fix`}. {seen.trouble}
          </p>
          <ul className={css.list} aria-label="Rows">
            {[...seen.rows]
              .sort((a, b) => Number(b.change === 'faulty') - Number(a.change === 'faulty'))
              .map((row) => (
                <li key={row.row} className={css.person} data-faulty={row.change === 'faulty'}>
                  <span className={css.rowNumber}>row {row.row}</span>
                  <strong>{row.name || 'no name'}</strong>
                  <span className={css.soft}>{doing[row.change]}</span>
                  {row.faults.map((fault, i) => (
                    <span key={i} className={css.over}>
                      {fault.column != null &&
                        `${seen.columns[fault.column]?.heading || `column ${fault.column + 1}`}: `}
                      {fault.what} Should be: {fault.right}.
                    </span>
                  ))}
                </li>
              ))}
          </ul>
          <Button
            mt="md"
            disabled={seen.trouble !== '' || look.isPlaceholderData}
            loading={busy}
            onClick={() => void take()}
          >
            {seen.take}
          </Button>
        </>
      )}
    </Page>
  )
}
