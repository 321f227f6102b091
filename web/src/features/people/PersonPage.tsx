import { Anchor, Button, Checkbox, Loader, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useIsMutating, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, Refused, troubleWords } from '../../api/client'
import { useMoves } from '../../api/queries'
import { change as keepChange, saverOf, withoutRevision } from '../../save/documents'
import { SaveNote } from '../../save/SaveNote'
import { ErrorNote } from '../../ui/ErrorNote'
import { LeftText } from '../../ui/LeftText'
import { DecimalField, NumberField } from '../../ui/NumberField'
import { Page } from '../../ui/Page'
import { PickMenu } from '../../ui/PickMenu'
import { dayWords } from '../../ui/time'
import { UndoBar } from '../../ui/UndoBar'
import { MoveSelect } from '../build/MoveSelect'
import { EraseForm } from './EraseForm'
import { PersonHistory } from './Progress'
import css from './People.module.css'
import type { Person, PersonLimit, Tier } from './words'
import { levelled, limits, ranOut, ticks, tiers } from './words'

/** A quiet page for one person: what is known of them, and their right to take it along or have it erased. */
export function PersonPage() {
  const { person: id = '' } = useParams()
  // While changes are on their way, what the server has is older than what is shown.
  const busy = useIsMutating({ mutationKey: ['person', id] })
  const query = useQuery({
    queryKey: ['person', id],
    queryFn: () => answer(api.GET('/api/people/{id}', { params: { path: { id } } })),
    enabled: busy === 0,
    // It is fetched when it is gone to; from then on what is shown is what was typed last.
    staleTime: Infinity,
    refetchOnMount: 'always',
  })
  if (query.data) return <PersonForm key={query.data.id} stored={query.data} />
  return (
    <Page name="Person" narrow>
      {query.isError ? (
        <ErrorNote
          title={
            query.error instanceof Refused && query.error.status === 404
              ? 'This person is not on the list.'
              : `This page could not be loaded. ${troubleWords(query.error)}`
          }
        >
          <Anchor component={Link} to="/people">
            To all people
          </Anchor>
        </ErrorNote>
      ) : (
        <Loader aria-label="Opening" />
      )}
    </Page>
  )
}

function PersonForm({ stored }: { stored: Person }) {
  const person = stored
  const [erasing, setErasing] = useState(false)
  const [gone, setGone] = useState<{ words: string; before: Partial<Person> } | null>(null)
  const queries = useQueryClient()
  const moves = useMoves().data ?? []
  const [saver] = useState(() => saverOf('person', stored.id, withoutRevision(stored), stored.revision ?? 1))

  /** What is shown is sent whole, the latest with what is new, so that two quick changes do not undo each other. */
  function change(next: Partial<Person>) {
    const before = queries.getQueryData<Person>(['person', person.id]) ?? person
    void queries.cancelQueries({ queryKey: ['person', person.id] })
    const shown = withoutRevision(before)
    keepChange('person', person.id, shown, before.revision ?? 1, { ...shown, ...next })
  }
  const setLimits = (next: PersonLimit[]) => change({ limits: next })
  const setUp = person.setUp ?? {}
  const loads = Object.entries(person.loads ?? {})

  return (
    <Page name={person.name} className={css.quiet}>
      <p>
        <Link to="/people">All people</Link>
      </p>
      <div className={css.top}>
        <h1>{person.name}</h1>
        <SaveNote saver={saver} />
      </div>
      <p data-screen-only>
        <Link to={`/people/${person.id}/sheet`}>A sheet to hand out</Link>
      </p>
      <h2>Kept of them</h2>
      <div className={css.fields}>
        <LeftText label="Name" w={260} most={120} value={person.name} needed onChange={(name) => change({ name })} />
        <LeftText
          w={260}
          most={60}
          label="Called in class"
          value={person.nick ?? ''}
          onChange={(nick) => change({ nick: nick || null })}
        />
      </div>

      <h2>Usual option</h2>
      <div className={css.fields}>
        {levelled.map((family) => (
          <NativeSelect
            key={family}
            label={`In ${family === 'bridge' ? 'bridges' : `${family}s`}`}
            data={tiers}
            value={person.level?.[family] ?? 'main'}
            onChange={(event) => change({ level: { ...person.level, [family]: event.currentTarget.value as Tier } })}
          />
        ))}
        <PickMenu
          label="The same in all families"
          shown="All four the same…"
          words={tiers.map((tier) => [tier.value, tier.label])}
          onPick={(tier, shown) => {
            setGone({ words: `Usual option set to ${shown} in all four.`, before: { level: person.level ?? {} } })
            change({ level: Object.fromEntries(levelled.map((family) => [family, tier as Tier])) })
          }}
        />
      </div>
      <fieldset className={css.ticks}>
        <legend>Signed off (you have seen them do it well)</legend>
        {ticks.map((tick) => (
          <Checkbox
            key={tick.value}
            label={tick.label}
            checked={(person.ready ?? []).includes(tick.value)}
            onChange={(event) =>
              change({
                ready: event.currentTarget.checked
                  ? [...(person.ready ?? []), tick.value]
                  : (person.ready ?? []).filter((t) => t !== tick.value),
              })
            }
          />
        ))}
      </fieldset>

      <h2>Care notes</h2>
      <p className={css.aside}>
        Only what planning needs, in their own words. You see it here and when options are chosen, never on the wall,
        the cards, a class file or a sheet for the room. It is not a diagnosis or a clearance: their own doctor, midwife
        or physiotherapist comes first.
      </p>
      {(person.limits ?? []).map((limit, i) => (
        <Limit
          key={i}
          limit={limit}
          number={i + 1}
          onChange={(next) => setLimits(person.limits!.map((l, j) => (j === i ? next : l)))}
          onEnd={() => {
            setGone({ words: 'Care note ended.', before: { limits: person.limits } })
            setLimits(person.limits!.filter((_, j) => j !== i))
          }}
        />
      ))}
      <PickMenu
        label="Add a care note"
        shown="Add a care note…"
        words={limits.map((limit) => [limit.value, limit.label])}
        onPick={(limit) => setLimits([...(person.limits ?? []), { limit: limit as PersonLimit['limit'] }])}
      />

      <h2>Their set-up</h2>
      <div className={css.fields}>
        <Whole label="Height" max={230} min={100} value={person.statureCm} onChange={(v) => change({ statureCm: v })} />
        <DecimalField
          label="Weight"
          unit="kg"
          size="sm"
          min={25}
          max={300}
          value={person.massKg ?? undefined}
          onChange={(v) => change({ massKg: v ?? null })}
        />
        <NumberField
          label="Year of birth"
          suffix=""
          size="sm"
          step={1}
          min={1900}
          max={2100}
          value={person.birthYear ?? undefined}
          onChange={(v) => change({ birthYear: v ?? null })}
        />
        <Whole
          label="Box height"
          max={120}
          min={1}
          value={setUp.boxCm}
          onChange={(v) => change({ setUp: { ...setUp, boxCm: v } })}
        />
        <Whole
          label="Bench height"
          max={120}
          min={1}
          value={setUp.benchCm}
          onChange={(v) => change({ setUp: { ...setUp, benchCm: v } })}
        />
        <Whole
          label="Rear-foot height"
          max={120}
          min={1}
          value={setUp.rearFootCm}
          onChange={(v) => change({ setUp: { ...setUp, rearFootCm: v } })}
        />
        <NativeSelect
          label="Band"
          data={[
            { value: '', label: 'not set' },
            { value: 'light', label: 'light' },
            { value: 'medium', label: 'medium' },
            { value: 'strong', label: 'strong' },
          ]}
          value={setUp.band ?? ''}
          onChange={(event) =>
            change({ setUp: { ...setUp, band: (event.currentTarget.value || null) as Schemas['BandStrength'] | null } })
          }
        />
      </div>

      <h2>Usual loads</h2>
      {loads.length === 0 && <p className={css.soft}>No loads yet.</p>}
      {loads.map(([move, load]) => (
        <div key={move} className={css.fields}>
          <span className={css.load}>{moves.find((m) => m.id === move)?.name ?? move}</span>
          <NativeSelect
            aria-label={`Held for ${moves.find((m) => m.id === move)?.name ?? move}`}
            data={['dumbbell', 'kettlebell', 'barbell', 'plate', 'ball', 'bottle', 'machine']}
            value={load.implement}
            onChange={(event) =>
              change({
                loads: {
                  ...person.loads,
                  [move]: { ...load, implement: event.currentTarget.value as typeof load.implement },
                },
              })
            }
          />
          <DecimalField
            unit="kg"
            size="sm"
            min={0.25}
            max={600}
            needed
            label={`Total weight for ${moves.find((m) => m.id === move)?.name ?? move}`}
            hideLabel
            value={load.kg}
            onChange={(kg) => kg !== undefined && change({ loads: { ...person.loads, [move]: { ...load, kg } } })}
          />
          <Button
            size="xs"
            variant="subtle"
            onClick={() => {
              setGone({ words: 'Load removed.', before: { loads: person.loads } })
              change({ loads: Object.fromEntries(loads.filter(([other]) => other !== move)) })
            }}
          >
            Remove
          </Button>
        </div>
      ))}
      <MoveSelect
        moves={moves}
        value=""
        label="Add a usual load"
        hideLabel
        placeholder="Add a usual load…"
        onChange={(move) => change({ loads: { [move]: { implement: 'dumbbell', kg: 6 }, ...person.loads } })}
      />

      <h2>Note</h2>
      <Textarea
        aria-label="Note"
        key={person.note ?? ''}
        defaultValue={person.note ?? ''}
        autosize
        minRows={2}
        maxLength={4000}
        onBlur={(event) => {
          const note = event.currentTarget.value.trim()
          if (note !== (person.note ?? '')) change({ note: note || null })
        }}
      />

      {gone && (
        <UndoBar
          words={gone.words}
          onUndo={() => {
            change(gone.before)
            setGone(null)
          }}
          onGone={() => setGone(null)}
        />
      )}

      <PersonHistory person={person.id} />

      <h2>Their data</h2>
      <p className={css.fields}>
        <a href={`/api/people/${person.id}/export`} download={`${person.name}.json`}>
          Everything stored about them (data file)
        </a>
        <a href={`/api/people/${person.id}/export.txt`} download={`${person.name}.txt`}>
          the same, as plain text
        </a>
        <Link to="/people/slip">“Before you join” slip</Link>
      </p>
      {erasing ? (
        <EraseForm person={person} onCancel={() => setErasing(false)} />
      ) : (
        <Button size="xs" variant="subtle" onClick={() => setErasing(true)}>
          Erase…
        </Button>
      )}
    </Page>
  )
}

function Whole(props: {
  label: string
  min: number
  max: number
  value?: number | null
  onChange: (v: number | null) => void
}) {
  return (
    <NumberField
      label={props.label}
      suffix=" cm"
      size="sm"
      step={1}
      min={props.min}
      max={props.max}
      value={props.value ?? undefined}
      onChange={(v) => props.onChange(v ?? null)}
    />
  )
}

function Limit(props: {
  limit: PersonLimit
  number: number
  onChange: (next: PersonLimit) => void
  onEnd: () => void
}) {
  const { limit, number, onChange, onEnd } = props
  const name = limits.find((l) => l.value === limit.limit)!.label
  const over = ranOut(limit)
  return (
    <fieldset className={css.limit}>
      <legend>
        {number}. {name}
      </legend>
      {over && (
        <p role="status" className={css.over}>
          {limit.limit === 'pregnancy'
            ? `The due date, ${dayWords(limit.until!)}, has passed. Ask them, then end it or add “pelvic floor, after birth”.`
            : `This expired on ${dayWords(limit.until!)} and is no longer used. Ask them, then renew or end it.`}
        </p>
      )}
      <div className={css.fields}>
        {limit.limit !== 'pregnancy' && limit.limit !== 'balance' && limit.limit !== 'pelvicFloor' && (
          <NativeSelect
            label="Side"
            data={[
              { value: '', label: 'both, or not set' },
              { value: 'left', label: 'left' },
              { value: 'right', label: 'right' },
            ]}
            value={limit.side ?? ''}
            onChange={(event) =>
              onChange({ ...limit, side: (event.currentTarget.value || null) as PersonLimit['side'] })
            }
          />
        )}
        <TextInput
          label={limit.limit === 'pregnancy' ? 'Due date' : 'Until'}
          type="date"
          value={limit.until ?? ''}
          onChange={(event) => onChange({ ...limit, until: event.currentTarget.value || null })}
        />
        <Checkbox
          className={css.strict}
          label="Strict: keep a wider margin"
          checked={limit.strict ?? false}
          onChange={(event) => onChange({ ...limit, strict: event.currentTarget.checked })}
        />
        <Button size="xs" variant="subtle" onClick={onEnd} aria-label={`End care note: ${name}`}>
          End care note
        </Button>
      </div>
      <LeftText
        label="In their words"
        most={2000}
        value={limit.note ?? ''}
        onChange={(note) => onChange({ ...limit, note: note || null })}
      />
    </fieldset>
  )
}
