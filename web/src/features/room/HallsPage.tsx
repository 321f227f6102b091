import { Button, Checkbox, Loader, NativeSelect, TextInput } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import type { Schemas } from '../../api/client'
import { troubleWords } from '../../api/client'
import { useAct } from '../../save/acts'
import { change as keepChange, withoutRevision } from '../../save/documents'
import { ErrorNote } from '../../ui/ErrorNote'
import { LeftText } from '../../ui/LeftText'
import { DecimalField, NumberField } from '../../ui/NumberField'
import { Page } from '../../ui/Page'
import { PickMenu } from '../../ui/PickMenu'
import { UndoBar } from '../../ui/UndoBar'
import { sentence } from '../../ui/words'
import css from './Room.module.css'
import { useHalls } from './useRoom'

type Hall = Schemas['StoredHall']
type Line = Schemas['StockLine']
type Fixture = Schemas['Fixture']
type Item = Line['item']

const items: [Item, string][] = [
  ['mat', 'mats'],
  ['pad', 'knee pads'],
  ['chair', 'chairs'],
  ['box', 'boxes'],
  ['step', 'steps'],
  ['bench', 'benches'],
  ['dumbbell', 'dumbbells (count each one)'],
  ['kettlebell', 'kettlebells'],
  ['barbell', 'barbells'],
  ['plate', 'plates'],
  ['ball', 'balls'],
  ['bottle', 'bottles'],
  ['band', 'bands'],
  ['longBand', 'long bands'],
  ['wall', 'free wall, in metres'],
  ['machine', 'machines'],
]
const weighed: Item[] = ['dumbbell', 'kettlebell', 'plate', 'ball', 'bottle']
const tall: Item[] = ['box', 'step', 'bench', 'chair']
const stretched: Item[] = ['band', 'longBand']

const fixtures: Record<Fixture['kind'], string> = {
  door: 'door',
  screen: 'wall screen',
  furniture: 'furniture',
  anchor: 'anchor for a long band',
  pillar: 'pillar',
}

/** Rooms: how large, what stands there, and what there is to use. */
export function HallsPage() {
  const halls = useHalls()
  const [name, setName] = useState('')
  const adder = useAct('addRoom')
  return (
    <Page name="Rooms">
      <h1>Rooms and kit</h1>
      <p className={css.soft}>Every class is checked against this: is there enough kit, and do the stations fit?</p>
      {halls.isError && <ErrorNote title={`Your rooms could not be loaded. ${troubleWords(halls.error)}`} />}
      {halls.isPending && <Loader aria-label="Opening" />}
      {halls.data?.map((hall) => (
        <HallForm key={hall.id} stored={hall} />
      ))}
      {halls.data?.length === 0 && <p>No rooms yet. Name your first one; then add its size and kit.</p>}
      <form
        className={css.floorHead}
        onSubmit={(event) => {
          event.preventDefault()
          if (name.trim() === '') return
          adder.mutate(
            { name: name.trim(), floor: { widthM: 8, lengthM: 12, fixtures: [] }, stock: [] },
            { onSuccess: () => setName('') },
          )
        }}
      >
        <TextInput
          label="New room"
          placeholder="e.g. Small hall"
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" disabled={name.trim() === ''}>
          Add
        </Button>
      </form>
    </Page>
  )
}

function HallForm({ stored }: { stored: Hall }) {
  const hall = stored
  const queries = useQueryClient()
  const [removing, setRemoving] = useState(false)
  const [before, setBefore] = useState<{ words: string; was: Partial<Hall> } | null>(null)
  const lines = useRef<HTMLTableElement>(null)
  const remover = useAct('removeRoom')
  const change = (next: Partial<Hall>) => {
    const all = queries.getQueryData<Hall[]>(['rooms']) ?? []
    const before = all.find((h) => h.id === hall.id) ?? hall
    void queries.cancelQueries({ queryKey: ['rooms'] })
    const shown = withoutRevision(before)
    keepChange('room', hall.id, shown, before.revision ?? 1, { ...shown, ...next })
  }
  const takeOut = (what: string, next: Partial<Hall>) => {
    setBefore({ words: `${sentence(what)} removed.`, was: { stock: hall.stock, floor: hall.floor } })
    change(next)
  }
  const setLine = (i: number, next: Partial<Line>) =>
    change({ stock: hall.stock.map((line, j) => (j === i ? { ...line, ...next } : line)) })
  const setFixture = (i: number, next: Partial<Fixture>) =>
    change({
      floor: { ...hall.floor, fixtures: hall.floor.fixtures.map((f, j) => (j === i ? { ...f, ...next } : f)) },
    })
  return (
    <section className={css.hall} aria-label={hall.name}>
      <h2>{hall.name}</h2>
      <div className={css.floorHead}>
        <LeftText size="xs" label="Name" most={120} needed value={hall.name} onChange={(name) => change({ name })} />
        <Metres
          label="Width"
          value={hall.floor.widthM}
          onChange={(widthM) => change({ floor: { ...hall.floor, widthM } })}
        />
        <Metres
          label="Length, front to back"
          width={150}
          value={hall.floor.lengthM}
          onChange={(lengthM) => change({ floor: { ...hall.floor, lengthM } })}
        />
        {removing ? (
          <>
            <Button size="xs" color="red.9" onClick={() => remover.mutate(hall.id)}>
              Remove {hall.name}
            </Button>
            <Button size="xs" variant="default" onClick={() => setRemoving(false)}>
              Cancel
            </Button>
          </>
        ) : (
          <Button size="xs" variant="subtle" onClick={() => setRemoving(true)}>
            Remove room…
          </Button>
        )}
      </div>

      {before && (
        <UndoBar
          words={before.words}
          onUndo={() => {
            change(before.was)
            setBefore(null)
          }}
          onGone={() => setBefore(null)}
        />
      )}

      <h3>Kit list</h3>
      {hall.stock.length > 0 && (
        <table className={css.stock} aria-label={`Kit list of ${hall.name}`} ref={lines}>
          <thead>
            <tr>
              {['Kit', 'How many', 'What each is', 'Condition', 'Kept where', 'Stand-in'].map((head) => (
                <th key={head} scope="col">
                  {head}
                </th>
              ))}
              <td />
            </tr>
          </thead>
          <tbody>
            {hall.stock.map((line, i) => (
              <StockRow
                key={`${i} ${line.item}`}
                line={line}
                onChange={(next) => setLine(i, next)}
                onRemove={() =>
                  takeOut(items.find(([item]) => item === line.item)?.[1] ?? line.item, {
                    stock: hall.stock.filter((_, j) => j !== i),
                  })
                }
              />
            ))}
          </tbody>
        </table>
      )}
      <PickMenu
        label={`Add kit to ${hall.name}`}
        shown="Add kit…"
        words={items}
        onPick={(picked) => {
          const item = picked as Item
          change({ stock: [...hall.stock, { item, count: 1, ...(item === 'wall' && { metres: 4 }) }] })
          // How many there are is typed next.
          setTimeout(() => lines.current?.querySelector<HTMLElement>('tbody tr:last-child input')?.focus(), 200)
        }}
      />

      <h3>Doors, pillars and furniture</h3>
      <div className={css.lines} role="list" aria-label={`Fixtures of ${hall.name}`}>
        {hall.floor.fixtures.map((fixture, i) => (
          <div key={i} className={css.line} role="listitem">
            <strong>{fixtures[fixture.kind]}</strong>
            <LeftText
              size="xs"
              label="Name"
              most={60}
              value={fixture.name ?? ''}
              onChange={(name) => setFixture(i, { name: name || null })}
            />
            <Metres label="From the left" value={fixture.x} least={0} onChange={(x) => setFixture(i, { x })} />
            <Metres label="From the front" value={fixture.y} least={0} onChange={(y) => setFixture(i, { y })} />
            <Metres label="Width" value={fixture.widthM} onChange={(widthM) => setFixture(i, { widthM })} />
            <Metres label="Length" value={fixture.lengthM} onChange={(lengthM) => setFixture(i, { lengthM })} />
            <Button
              size="xs"
              variant="subtle"
              onClick={() =>
                takeOut(fixtures[fixture.kind], {
                  floor: { ...hall.floor, fixtures: hall.floor.fixtures.filter((_, j) => j !== i) },
                })
              }
            >
              Remove
            </Button>
          </div>
        ))}
      </div>
      <PickMenu
        label={`Add to the floor of ${hall.name}`}
        shown="Add…"
        words={Object.entries(fixtures)}
        onPick={(picked) => {
          const kind = picked as Fixture['kind']
          change({
            floor: {
              ...hall.floor,
              fixtures: [
                ...hall.floor.fixtures,
                { kind, x: 0, y: 0, widthM: 1, lengthM: kind === 'furniture' ? 1 : 0.1 },
              ],
            },
          })
        }}
      />
    </section>
  )
}

/** One kind of kit: "4 × 12 kg", how good it is, and where it is kept. The heads of the table say what a field is. */
function StockRow(props: { line: Line; onChange: (next: Partial<Line>) => void; onRemove: () => void }) {
  const { line, onChange, onRemove } = props
  const name = items.find(([item]) => item === line.item)![1]
  const labelled = (what: string) => `${what}, ${name}`
  return (
    <tr>
      <th scope="row">{name}</th>
      <td data-head="How many">
        {line.item === 'wall' ? (
          <Metres
            label={labelled('Metres')}
            hideLabel
            value={line.metres ?? 1}
            onChange={(metres) => onChange({ metres, count: 1 })}
          />
        ) : (
          <NumberField
            label={labelled('How many')}
            hideLabel
            suffix=""
            step={1}
            min={0}
            max={1000}
            needed
            value={line.count}
            onChange={(count) => count !== undefined && onChange({ count })}
          />
        )}
      </td>
      <td data-head="What each is">
        <Each line={line} labelled={labelled} onChange={onChange} />
      </td>
      <td data-head="Condition">
        <NativeSelect
          size="xs"
          aria-label={labelled('Condition')}
          value={line.condition ?? 'good'}
          onChange={(event) => onChange({ condition: event.currentTarget.value as Line['condition'] })}
          data={[
            { value: 'good', label: 'good' },
            { value: 'check', label: 'check first' },
            { value: 'out', label: 'out of use' },
          ]}
        />
      </td>
      <td data-head="Kept where">
        <LeftText
          size="xs"
          label={labelled('Kept where')}
          hideLabel
          most={120}
          value={line.place ?? ''}
          onChange={(place) => onChange({ place: place || null })}
        />
      </td>
      <td data-head="Stand-in">
        <Checkbox
          size="xs"
          aria-label={labelled('Stand-in')}
          checked={line.standIn ?? false}
          onChange={(event) => onChange({ standIn: event.currentTarget.checked })}
        />
      </td>
      <td>
        <Button size="xs" variant="subtle" onClick={onRemove} aria-label={`Remove ${name}`}>
          Remove
        </Button>
      </td>
    </tr>
  )
}

interface EachProps {
  line: Line
  labelled: (what: string) => string
  onChange: (next: Partial<Line>) => void
}

/** What one piece is: how heavy, how high, how strong, or which. */
function Each({ line, labelled, onChange }: EachProps) {
  if (weighed.includes(line.item))
    return (
      <span className={css.each}>
        ×
        <DecimalField
          label={labelled('Weight each')}
          hideLabel
          width={90}
          unit="kg"
          min={0.25}
          max={300}
          value={line.kg ?? undefined}
          onChange={(kg) => onChange({ kg: kg ?? null })}
        />
      </span>
    )
  if (tall.includes(line.item))
    return (
      <span className={css.each}>
        ×
        <NumberField
          label={labelled('Height')}
          hideLabel
          suffix=" cm"
          step={1}
          min={1}
          max={120}
          value={line.heightCm ?? undefined}
          onChange={(heightCm) => onChange({ heightCm: heightCm ?? null })}
        />
      </span>
    )
  if (stretched.includes(line.item))
    return (
      <NativeSelect
        size="xs"
        aria-label={labelled('Strength')}
        value={line.strength ?? ''}
        onChange={(event) => onChange({ strength: (event.currentTarget.value || null) as Line['strength'] })}
        data={[
          { value: '', label: 'strength not known' },
          { value: 'light', label: 'light' },
          { value: 'medium', label: 'medium' },
          { value: 'strong', label: 'strong' },
        ]}
      />
    )
  if (line.item === 'machine')
    return (
      <LeftText
        size="xs"
        label={labelled('Which')}
        hideLabel
        most={120}
        value={line.name ?? ''}
        onChange={(name) => onChange({ name: name || null })}
      />
    )
  return null
}

function Metres(props: {
  label: string
  hideLabel?: boolean
  value: number
  least?: number
  width?: number
  onChange: (metres: number) => void
}) {
  const { label, hideLabel, value, least = 0.05, width = 96, onChange } = props
  return (
    <DecimalField
      label={label}
      hideLabel={hideLabel}
      width={width}
      unit="m"
      min={least}
      max={100}
      needed
      value={value}
      onChange={(metres) => metres !== undefined && onChange(metres)}
    />
  )
}
