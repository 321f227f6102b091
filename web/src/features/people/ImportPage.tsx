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
  ['ignore', 'leave out'],
  ['name', 'name'],
  ['firstName', 'first name'],
  ['lastName', 'last name'],
  ['nick', 'called'],
  ['stature', 'stature, cm'],
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
  ['ready', 'seen to be sound'],
  ['boxCm', 'box, cm'],
  ['benchCm', 'bench, cm'],
  ['rearFootCm', 'rear foot on, cm'],
  ['band', 'band'],
  ['note', 'note'],
]

const doing: Record<Schemas['RosterChange'], string> = {
  new: 'new',
  changed: 'changed',
  same: 'unchanged',
  faulty: 'has faults',
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
        <Link to="/people">All people</Link>
      </p>
      <h1>Take in a table of people</h1>
      <p className={css.aside}>
        A CSV file or text copied from a spreadsheet, with commas, semicolons or tabs. People are known by their names:
        those who are there already are changed where a cell says something else; an empty cell leaves what is known.
      </p>
      <div className={css.add}>
        <FileButton accept=".csv,.txt,.tsv,text/csv,text/plain" onChange={(file) => void file?.text().then(put)}>
          {(props) => <Button {...props}>Choose a file</Button>}
        </FileButton>
      </div>
      <Textarea
        label="Or paste it here, and mend it here"
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
      {look.isError && <ErrorNote title={`This cannot be read. ${troubleWords(look.error)}`} />}
      {refused !== null && <ErrorNote title={`Nothing was taken in. ${troubleWords(refused)}`} />}
      {done && (
        <p role="status" className={css.done}>
          Taken in: {done.fresh} new, {done.changed} changed, {done.same} unchanged.{' '}
          <Link to="/people">To all people</Link>
        </p>
      )}
      {seen && !done && (
        <>
          <h2>What each column is</h2>
          <Checkbox
            label="The first row is a heading"
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
          <h2>What each row does</h2>
          <p role="status">
            {seen.fresh} new, {seen.changed} changed, {seen.same} unchanged
            {seen.faulty > 0 && `, ${seen.faulty} with faults`}. {seen.trouble}
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
                      {fault.what} Right would be: {fault.right}.
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
