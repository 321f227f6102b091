import { Button, Checkbox } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Booking } from '../../api/client'
import { answer, api } from '../../api/client'
import { usePeople } from '../../api/queries'
import css from './Room.module.css'

interface Props {
  booking: Booking
  /** Who is taken to be expected while nobody is named. */
  usual?: string[]
  onChange: (booking: Booking) => void
}

/** Who is expected, by name: a group with one click, a latecomer ticked, an early leaver unticked. */
export function Expected({ booking, usual = [], onChange }: Props) {
  const people = usePeople().data ?? []
  const circles = useQuery({ queryKey: ['circles'], queryFn: () => answer(api.GET('/api/circles')) }).data ?? []
  const [open, setOpen] = useState(false)
  const named = booking.expected ?? []
  const here = named.length > 0 ? named : usual
  const unnamed = Math.max(0, booking.headCount - named.length)

  /** Who has no name stays counted; who goes is counted no more. */
  function put(next: string[]) {
    const nameless = Math.max(0, booking.headCount - here.length)
    onChange({ ...booking, expected: next, headCount: next.length + nameless })
  }

  if (people.length === 0) {
    return (
      <p className={css.soft}>
        Your People list is empty. <Link to="/people">Add people</Link> and everyone gets an option that suits them.
      </p>
    )
  }
  return (
    <section aria-label="Who is expected">
      <p className={css.expected}>
        <Button size="xs" variant="default" aria-expanded={open} onClick={() => setOpen(!open)}>
          Who is coming
        </Button>
        <span>
          {named.length === 0
            ? 'No names chosen: planned for those who came last time, or for everyone.'
            : `${named.length} by name${unnamed > 0 ? `, ${unnamed} more without a name` : ''}`}
        </span>
      </p>
      {open && (
        <>
          <p className={css.expected}>
            {circles
              .filter((circle) => circle.people.length > 0)
              .map((circle) => (
                <Button
                  key={circle.id}
                  size="xs"
                  variant="default"
                  onClick={() => onChange({ ...booking, expected: circle.people, headCount: circle.people.length })}
                >
                  {circle.name}
                </Button>
              ))}
            <Button
              size="xs"
              variant="default"
              onClick={() => onChange({ ...booking, expected: people.map((p) => p.id), headCount: people.length })}
            >
              Select everyone
            </Button>
          </p>
          <div className={css.names} role="group" aria-label="Expected">
            {people.map((person) => (
              <Checkbox
                key={person.id}
                size="xs"
                label={person.name}
                checked={here.includes(person.id)}
                onChange={(event) =>
                  put(event.currentTarget.checked ? [...here, person.id] : here.filter((id) => id !== person.id))
                }
              />
            ))}
          </div>
        </>
      )}
    </section>
  )
}
