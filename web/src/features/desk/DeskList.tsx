import { Button, NativeSelect } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useClockFormat, usePeople } from '../../api/queries'
import { dayAndTime } from '../../ui/time'
import css from './Desk.module.css'
import type { DeskClass } from './useDesk'
import { useDesk } from './useDesk'

type Guest = DeskClass['guests'][number]

/** What the desk says of one session; nothing where it says nothing. */
export function DeskOfSession({ session }: { session: string }) {
  const mine = useDesk().data?.classes.filter((c) => c.session === session) ?? []
  return mine.map((of) => <DeskClassCard key={of.uid} of={of} choices={[]} inClass />)
}

interface Props {
  of: DeskClass
  /** The sessions that it may be. */
  choices: Schemas['DeskChoice'][]
  /** It stands on a screen of its class. */
  inClass?: boolean
}

/** A class on the desk's list: how many come, who waits, and whom nobody knows yet. */
export function DeskClassCard({ of, choices, inClass }: Props) {
  const queries = useQueryClient()
  const format = useClockFormat()
  const [trouble, setTrouble] = useState('')
  const asked = of.guests.filter((g) => g.asked)
  const waiting = of.guests.filter((g) => g.standing === 'waiting')
  const gone = of.guests.filter((g) => g.standing === 'gone')

  async function act(what: () => Promise<unknown>) {
    setTrouble('')
    try {
      await what()
    } catch (error) {
      setTrouble(`Nothing was changed. ${troubleWords(error)}`)
    }
    for (const key of ['desk', 'people', 'sessions', 'classes', 'room'])
      await queries.invalidateQueries({ queryKey: [key] })
  }

  const link = (session: string | null) =>
    act(() => answer(api.PUT('/api/desk/link', { body: { uid: of.uid, session } })))

  const name = inClass ? 'From the booking desk' : of.title
  return (
    <section className={css.class} aria-label={name}>
      {inClass ? (
        <h3>{name}</h3>
      ) : (
        <h2>
          {of.title} <span className={css.soft}>{dayAndTime(local(of.starts), format)}</span>
        </h2>
      )}
      {trouble && (
        <p role="alert" className={css.trouble}>
          {trouble}
        </p>
      )}
      {of.cancelled ? (
        <p className={css.trouble}>
          The booking desk cancelled this class, so nobody on its list is expected. You decide whether it goes ahead.
        </p>
      ) : (
        <p>
          {of.coming} booked
          {waiting.length > 0 && ` · on the waiting list: ${waiting.map((g) => g.name).join(', ')}`}
          {gone.length > 0 && ` · cancelled: ${gone.map((g) => g.name).join(', ')}`}
        </p>
      )}
      {of.held && <p className={css.soft}>This class has been led, so bookings no longer change it.</p>}
      {asked.length > 0 && (
        <ul className={css.asks} aria-label="Who is that?">
          {asked.map((guest) => (
            <Ask key={guest.key} guest={guest} act={act} />
          ))}
        </ul>
      )}
      {!inClass && of.session && of.classId && (
        <p className={css.ask}>
          <Link to={`/classes/${of.classId}/on/${of.session}/brief`}>Open class</Link>
          <Button size="xs" variant="default" onClick={() => void link(null)}>
            Wrong class
          </Button>
        </p>
      )}
      {!inClass && !of.session && (
        <div className={css.ask}>
          <NativeSelect
            aria-label={`Which class is ${of.title}`}
            value=""
            data={[
              { value: '', label: choices.length > 0 ? 'Which class is this?…' : 'No classes planned' },
              ...choices.map((c) => ({ value: c.session, label: `${c.title}, ${dayAndTime(c.startsAt, format)}` })),
            ]}
            disabled={choices.length === 0}
            onChange={(event) => event.currentTarget.value && void link(event.currentTarget.value)}
          />
          <span className={css.soft}>
            No single class of yours starts at that time, so choose which one this list is for.
          </span>
        </div>
      )}
    </section>
  )
}

/** A name that nobody on the roster has, or more than one: it is asked about, never guessed. */
function Ask({ guest, act }: { guest: Guest; act: (what: () => Promise<unknown>) => Promise<void> }) {
  const people = usePeople().data ?? []
  const say = (person: string | null) =>
    act(() => answer(api.PUT('/api/desk/guests/{key}', { params: { path: { key: guest.key } }, body: { person } })))
  const add = () =>
    act(async () => {
      const person = await answer(api.POST('/api/people', { body: { id: '', name: guest.name } }))
      await answer(
        api.PUT('/api/desk/guests/{key}', { params: { path: { key: guest.key } }, body: { person: person.id } }),
      )
    })
  return (
    <li className={css.ask}>
      <span>
        Who is <b>{guest.name}</b>?
      </span>
      <NativeSelect
        size="xs"
        aria-label={`Who ${guest.name} is`}
        value=""
        data={[{ value: '', label: 'On your People list…' }, ...people.map((p) => ({ value: p.id, label: p.name }))]}
        onChange={(event) => event.currentTarget.value && void say(event.currentTarget.value)}
      />
      <Button size="xs" variant="default" onClick={() => void add()}>
        Add as a new person
      </Button>
      <Button size="xs" variant="subtle" onClick={() => void say(null)}>
        Count without a name
      </Button>
    </li>
  )
}

/** A moment as the clock on the wall here has it. */
function local(moment: number): string {
  const date = new Date(moment)
  return new Date(moment - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 16)
}
