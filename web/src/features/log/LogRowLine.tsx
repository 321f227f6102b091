import { Checkbox, TextInput } from '@mantine/core'
import type { KeyboardEvent } from 'react'
import { useState } from 'react'
import { PickMenu } from '../../ui/PickMenu'
import css from './Log.module.css'
import { RowMore } from './RowMore'
import type { DoneSet } from './sets'
import { read, same, written } from './sets'
import type { LogRow, LogView } from './useLog'

export type Column = LogView['columns'][number]
type Use = LogRow['uses'][number]

export const tierWords: [string, string][] = [
  ['harder', 'harder'],
  ['main', 'main'],
  ['easier', 'easier'],
  ['instead', 'alternative'],
  ['', 'left out'],
]

/** The row with an option at a station; empty: it was left out. Sets that were as planned become those of the option. */
export function withOption(row: LogRow, column: Column, option: string): LogRow {
  const before = row.uses.find((u) => u.station === column.station)
  const [was, is] = [before?.option, option].map((id) => column.choices.find((c) => c.id === id))
  const untouched = !before?.option || !was || same(before.sets ?? [], was.sets ?? [])
  const use: Use = is
    ? {
        ...before,
        station: column.station,
        option: is.id,
        sets: untouched ? is.sets : before.sets,
        note: before?.note ?? '',
      }
    : { station: column.station, sets: [], note: before?.note ?? '' }
  return withUse(row, use)
}

const withUse = (row: LogRow, use: Use): LogRow => ({
  ...row,
  uses: row.uses.some((u) => u.station === use.station)
    ? row.uses.map((u) => (u.station === use.station ? use : u))
    : [...row.uses, use],
})

/** The row with the first option of a tier, where the station has one; empty: left out. */
export function withTier(row: LogRow, column: Column, tier: string): LogRow {
  const choice = column.choices.find((c) => c.tier === tier)
  return tier !== '' && !choice ? row : withOption(row, column, choice?.id ?? '')
}

const kindOf = (field: Element) => (field.tagName === 'SELECT' ? 'select' : 'input:not([type=checkbox])')

/** The field in the same place of another cell, past cells that have none. */
function fieldAt(from: HTMLElement, dx: number, dy: number): HTMLElement | null {
  const cell = from.closest('td')
  let row = cell?.closest('tr') as HTMLTableRowElement | null | undefined
  let column = cell?.cellIndex ?? 0
  for (let step = 0; cell && row && step < 60; step++) {
    if (dy !== 0) {
      row = (dy > 0 ? row.nextElementSibling : row.previousElementSibling) as HTMLTableRowElement | null
      if (row?.dataset.more !== undefined) continue
    }
    column += dx
    const to = row?.cells[column]
    if (!to) return null
    const field =
      to.querySelector<HTMLElement>(kindOf(from)) ?? to.querySelector<HTMLElement>('select, input:not([type=checkbox])')
    if (field && !(field as HTMLInputElement).disabled) return field
  }
  return null
}

function go(event: KeyboardEvent<HTMLElement>, dx: number, dy: number) {
  const field = fieldAt(event.currentTarget, dx, dy)
  event.preventDefault()
  field?.focus()
  if (field instanceof HTMLInputElement) field.select()
}

/**
 * Arrows move from cell to cell, Enter goes down, with Shift up; letters choose an option, as they do in any list; a number begins the
 * sets. Inside a text the arrows to the side move in it until its ends.
 */
function keys(event: KeyboardEvent<HTMLElement>) {
  const field = event.currentTarget
  const text = field instanceof HTMLInputElement ? field : null
  const inText = (end: boolean) =>
    text !== null &&
    !(text.selectionStart === (end ? text.value.length : 0) && text.selectionEnd === text.selectionStart)
  if (event.altKey || event.ctrlKey || event.metaKey) return
  if (event.key === 'Enter') go(event, 0, event.shiftKey ? -1 : 1)
  else if (event.key === 'ArrowDown') go(event, 0, 1)
  else if (event.key === 'ArrowUp') go(event, 0, -1)
  else if (event.key === 'ArrowRight' && !inText(true)) go(event, 1, 0)
  else if (event.key === 'ArrowLeft' && !inText(false)) go(event, -1, 0)
  else if (!text && /^[0-9]$/.test(event.key)) {
    const sets = field.closest('td')?.querySelector<HTMLInputElement>('input')
    if (sets && !sets.disabled) {
      sets.focus()
      sets.select()
    }
  }
}

interface RowProps {
  name: string
  row: LogRow
  columns: LogView['columns']
  onChange: (next: (row: LogRow) => LogRow) => void
}

/** One person's line. */
export function Row({ name, row, columns, onChange }: RowProps) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <tr data-came={row.came}>
        <th scope="row">
          {name}
          {row.came && columns.length > 1 && (
            <PickMenu
              label={`All of ${name}`}
              shown="set all…"
              words={tierWords}
              onPick={(tier) => onChange((r) => columns.reduce((next, column) => withTier(next, column, tier), r))}
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
        {columns.map((column) => (
          <StationCell
            key={column.station}
            name={name}
            column={column}
            use={row.uses.find((use) => use.station === column.station)}
            came={row.came}
            onOption={(option) => onChange((r) => withOption(r, column, option))}
            onSets={(sets) =>
              onChange((r) => {
                const use = r.uses.find((u) => u.station === column.station)
                return use ? withUse(r, { ...use, sets }) : r
              })
            }
          />
        ))}
        <td data-label="effort">
          <Effort
            name={name}
            value={row.effort ?? null}
            came={row.came}
            onChange={(effort) => onChange((r) => ({ ...r, effort }))}
          />
        </td>
        <td data-label="note">
          <div className={css.noteCell}>
            <TextInput
              size="xs"
              w={138}
              aria-label={`Note on ${name}`}
              maxLength={2000}
              value={row.note}
              onKeyDown={keys}
              onChange={(event) => {
                const note = event.currentTarget.value
                onChange((r) => ({ ...r, note }))
              }}
            />
            <button
              type="button"
              className={css.more}
              aria-expanded={open}
              aria-label={`More on ${name}`}
              data-said={hasMore(row)}
              onClick={() => setOpen(!open)}
            >
              {hasMore(row) ? 'more •' : 'more'}
            </button>
          </div>
        </td>
      </tr>
      {open && (
        <tr data-more="">
          <td colSpan={columns.length + 4}>
            <RowMore name={name} row={row} columns={columns} onChange={onChange} />
          </td>
        </tr>
      )}
    </>
  )
}

/** Something is said that the line does not show. */
const hasMore = (row: LogRow) =>
  Boolean(row.pain ?? row.felt) ||
  Boolean(row.wishes) ||
  row.uses.some((u) => Boolean(u.pain ?? u.changedTo) || u.clean === false || u.effort != null)

interface CellProps {
  name: string
  column: Column
  use: Use | undefined
  came: boolean
  onOption: (option: string) => void
  onSets: (sets: DoneSet[]) => void
}

/** What was done at a station: the option, and the sets as one types them. */
function StationCell({ name, column, use, came, onOption, onSets }: CellProps) {
  const option = use?.option ?? ''
  const stands = written(use?.sets ?? [])
  const [typed, setTyped] = useState<string | null>(null)
  const wrong = typed !== null && read(typed, column.timed) === null
  return (
    <td data-label={column.name}>
      <select
        className={css.use}
        aria-label={`${name}, ${column.name}`}
        data-tier={column.choices.find((choice) => choice.id === option)?.tier ?? 'none'}
        disabled={!came}
        value={option}
        onKeyDown={keys}
        onChange={(event) => {
          setTyped(null)
          onOption(event.currentTarget.value)
        }}
      >
        {column.choices.map((choice) => (
          <option key={choice.id} value={choice.id} title={choice.words}>
            {choice.short}
          </option>
        ))}
        <option value="">left out</option>
      </select>
      <input
        className={css.sets}
        aria-label={`${name}, ${column.name}, sets`}
        aria-invalid={wrong}
        title={wrong ? 'Sets as 12 12 10, left and right as 12/10, a weight as 12 10, 16 kg' : undefined}
        disabled={!came || option === ''}
        maxLength={200}
        data-pain={use?.pain ? true : undefined}
        value={typed ?? stands}
        onKeyDown={keys}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => {
          const text = event.currentTarget.value
          setTyped(text)
          const sets = read(text, column.timed)
          if (sets) onSets(sets)
        }}
        // What says no sets stays to be mended; what does is shown as it is kept.
        onBlur={() => !wrong && setTyped(null)}
      />
    </td>
  )
}

/** How hard it was, 0 to 10. */
function Effort({
  name,
  value,
  came,
  onChange,
}: {
  name: string
  value: number | null
  came: boolean
  onChange: (effort: number | null) => void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const wrong = typed !== null && !effortOf(typed).ok
  return (
    <input
      className={css.effort}
      aria-label={`Effort of ${name}`}
      aria-invalid={wrong}
      title={wrong ? 'A number from 0 to 10' : undefined}
      inputMode="decimal"
      disabled={!came}
      maxLength={4}
      value={typed ?? (value === null ? '' : String(value))}
      onKeyDown={keys}
      onFocus={(event) => event.currentTarget.select()}
      onChange={(event) => {
        const text = event.currentTarget.value
        setTyped(text)
        const read = effortOf(text)
        if (read.ok) onChange(read.effort)
      }}
      onBlur={() => !wrong && setTyped(null)}
    />
  )
}

/** Empty: not told. */
export function effortOf(text: string): { ok: boolean; effort: number | null } {
  const word = text.trim().replace(',', '.')
  if (word === '') return { ok: true, effort: null }
  const effort = Number(word)
  return /^\d{1,2}(\.\d)?$/.test(word) && effort <= 10 ? { ok: true, effort } : { ok: false, effort: null }
}
