import { useState } from 'react'
import type { Schemas } from '../../api/client'
import type { Lead } from '../../leading/useLead'
import css from './Stage.module.css'
import { Sheet } from './Sheet'

interface Props {
  lead: Lead
  /** Who is expected; undefined: it is not known yet. */
  who: Schemas['LeadPerson'][] | undefined
  /** The scene that a note is taken in. */
  scene: number
  onClose: () => void
}

const taps: { tap: Schemas['QuickTap']; words: string }[] = [
  { tap: 'easier', words: 'Took the easier option' },
  { tap: 'dropped', words: 'Put a weight down hard' },
  { tap: 'pain', words: 'Pain' },
]

/** Where it hurts, as it is asked with one tap. */
const places = ['left knee', 'right knee', 'hip', 'lower back', 'ankle or foot', 'shoulder or hand', 'elsewhere']

/** Who came, and what was seen of whom: one tap each, or a few words. The log is filled in with it. */
export function PeoplePanel({ lead, who: expected, scene, onClose }: Props) {
  const who = expected ?? []
  const [of, setOf] = useState<string | null>(null)
  const [text, setText] = useState('')
  const [kept, setKept] = useState('')
  const [asksWhere, setAsksWhere] = useState(false)
  const notes = lead.commands.flatMap((command) =>
    command.kind === 'note' && command.payload ? [command.payload] : [],
  )
  const ticks = new Map(
    notes.flatMap((n) => (n.person && (n.tap === 'came' || n.tap === 'away') ? [[n.person, n.tap] as const] : [])),
  )
  const came = (id: string) => ticks.get(id) === 'came'
  const named = who.find((person) => person.id === of)

  function note(tap?: Schemas['QuickTap'], where?: string) {
    const words = [where, text.trim()].filter(Boolean).join(', ')
    setAsksWhere(false)
    if (!tap && !words) return
    lead.send('note', { ...(of && { person: of }), ...(tap && { tap }), ...(words && { text: words }), scene })
    setKept(`Noted${named ? ` for ${named.called}` : ''}.`)
    setText('')
  }

  return (
    <Sheet title="Who is here" onClose={onClose}>
      {expected?.length === 0 && <p>No names yet. Add them in the brief.</p>}
      {!expected && <p>Fetching who is expected…</p>}
      <div className={css.people} role="group" aria-label="Who came">
        {who.map((person) => (
          <button
            type="button"
            key={person.id}
            aria-pressed={came(person.id)}
            className={css.person}
            onClick={() => lead.send('note', { person: person.id, tap: came(person.id) ? 'away' : 'came' })}
          >
            {came(person.id) ? '✓ ' : ''}
            {person.called}
          </button>
        ))}
      </div>
      {who.length > 0 && (
        <p>
          {who.filter((person) => came(person.id)).length} of {who.length} are here.{' '}
          <button
            type="button"
            className={css.way}
            onClick={() =>
              who.filter((p) => !came(p.id)).forEach((p) => lead.send('note', { person: p.id, tap: 'came' }))
            }
          >
            Everyone is here
          </button>
        </p>
      )}
      <h3>A note for the log</h3>
      <label>
        Of{' '}
        <select
          aria-label="Of whom"
          className={css.control}
          value={of ?? ''}
          onChange={(e) => setOf(e.currentTarget.value || null)}
        >
          <option value="">the class</option>
          {who.map((person) => (
            <option key={person.id} value={person.id}>
              {person.called}
            </option>
          ))}
        </select>
      </label>
      <div className={css.people}>
        {taps.map(({ tap, words }) => (
          <button
            type="button"
            key={tap}
            className={css.person}
            aria-expanded={tap === 'pain' ? asksWhere : undefined}
            onClick={() => (tap === 'pain' ? setAsksWhere(!asksWhere) : note(tap))}
          >
            {words}
          </button>
        ))}
      </div>
      {asksWhere && (
        <div className={css.people} role="group" aria-label="Where it hurts">
          {places.map((place) => (
            <button type="button" key={place} className={css.person} onClick={() => note('pain', place)}>
              {place}
            </button>
          ))}
        </div>
      )}
      <form
        onSubmit={(event) => {
          event.preventDefault()
          note()
        }}
      >
        <input
          className={css.control}
          aria-label="In a few words"
          placeholder="In a few words"
          maxLength={500}
          value={text}
          onChange={(e) => setText(e.currentTarget.value)}
        />{' '}
        <button type="submit" className={css.way}>
          Save note
        </button>
      </form>
      <p role="status">{kept}</p>
    </Sheet>
  )
}
