import { Button, Checkbox, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import type { FormEvent } from 'react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { troubleWords } from '../../api/client'
import { usePeople } from '../../api/queries'
import { answer, api } from '../../api/client'
import { useAct } from '../../save/acts'
import { change, withoutRevision } from '../../save/documents'
import { ErrorNote } from '../../ui/ErrorNote'
import { MoreMenu } from '../../ui/MoreMenu'
import { Page } from '../../ui/Page'
import { many } from '../../ui/words'
import { UndoBar } from '../../ui/UndoBar'
import css from './People.module.css'
import type { Person } from './words'
import { cautions, ranOut, usually } from './words'

/** So many names can be looked over without searching. */
const AT_A_GLANCE = 20

/** The roster: who they are and what they usually do; what is private stands on each one's own page. */
export function PeoplePage() {
  const people = usePeople()
  const [name, setName] = useState('')
  const [search, setSearch] = useState('')
  const adder = useAct('addPerson')

  function add(event: FormEvent) {
    event.preventDefault()
    if (name.trim() === '') return
    // What was typed stays until it has arrived; without the server it waits and is sent later.
    adder.mutate({ id: '', name: name.trim() }, { onSuccess: () => setName('') })
  }

  const all = people.data ?? []
  const shown = all.filter((person) =>
    `${person.name} ${person.nick ?? ''}`.toLowerCase().includes(search.trim().toLowerCase()),
  )
  return (
    <Page name="People" narrow>
      <h1>People</h1>
      <p className={css.aside}>
        Halterion picks an option for each person at every station from what you write on their page. Before they join,
        people read this or get it <Link to="/people/slip">as a printed slip</Link>: {cautions[0]} {cautions[1]}
      </p>
      {people.isError && <ErrorNote title={`Your people could not be loaded. ${troubleWords(people.error)}`} />}
      <form className={css.add} onSubmit={add}>
        <TextInput
          aria-label="Name of a new person"
          placeholder="Name"
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" disabled={name.trim() === ''}>
          Add
        </Button>
        <MoreMenu
          shown="Import or export"
          about="people"
          items={[
            { words: 'Import a table…', to: '/people/import' },
            { words: 'Booking desk…', to: '/people/desk' },
            { words: 'Export the list', file: '/api/people/csv' },
          ]}
        />
      </form>
      {people.data?.length === 0 && (
        <p>Nobody here yet. Add the people who usually come; first names or initials are enough.</p>
      )}
      {all.length > AT_A_GLANCE && (
        <TextInput label="Search" mb="md" value={search} onChange={(event) => setSearch(event.currentTarget.value)} />
      )}
      {search !== '' && shown.length === 0 && <p>No one matches “{search}”.</p>}
      {shown.length > 0 && (
        <ul className={css.list} aria-label="Everyone">
          {shown.map((person) => (
            <li key={person.id} className={css.person}>
              <Link to={`/people/${person.id}`} className={css.name}>
                {person.name}
                {person.nick && <span className={css.soft}> ({person.nick})</span>}
              </Link>
              <span className={css.soft}>{usually(person)}</span>
              {(person.limits ?? []).length > 0 && (
                <span className={css.care}>
                  {person.limits!.some((limit) => ranOut(limit)) ? 'care note expired' : 'care note'}
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
      <Circles people={all} />
    </Page>
  )
}

function keep(circle: Schemas['Circle'], next: Partial<Schemas['Circle']>) {
  const shown = withoutRevision(circle)
  change('circle', circle.id, shown, circle.revision ?? 1, { ...shown, ...next })
}

/** People who belong together: who usually come on a day, or who stay in one group. */
function Circles({ people }: { people: Person[] }) {
  const circles = useQuery({ queryKey: ['circles'], queryFn: () => answer(api.GET('/api/circles')) })
  const [name, setName] = useState('')
  const [open, setOpen] = useState<string | null>(null)
  const [gone, setGone] = useState<Schemas['CircleDetails'] | null>(null)
  const [adder, parter] = [useAct('addCircle'), useAct('partCircle')]
  return (
    <section className={css.circles} aria-labelledby="circles">
      <h2 id="circles">Regular groups</h2>
      <p className={css.aside}>
        Add a whole group to a class date with one click in the brief. People marked “stay together” always share a
        group in a rotation.
      </p>
      <form
        className={css.add}
        onSubmit={(event) => {
          event.preventDefault()
          if (name.trim() === '') return
          adder.mutate(
            { name: name.trim(), together: false, people: [] },
            {
              onSuccess: (circle) => {
                setName('')
                setOpen(circle.id)
              },
            },
          )
        }}
      >
        <TextInput
          aria-label="Name of a new group"
          placeholder="e.g. Tuesday regulars"
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" variant="default" disabled={name.trim() === ''}>
          Add a group
        </Button>
      </form>
      {gone && (
        <UndoBar
          words={`${gone.name} removed.`}
          onUndo={() => {
            adder.mutate(gone)
            setGone(null)
          }}
          onGone={() => setGone(null)}
        />
      )}
      {(circles.data ?? []).length > 0 && (
        <ul className={css.list} aria-label="All groups">
          {circles.data!.map((circle) => (
            <li key={circle.id} className={css.circle}>
              <button
                type="button"
                className={css.fold}
                aria-expanded={open === circle.id}
                onClick={() => setOpen(open === circle.id ? null : circle.id)}
              >
                {circle.name}
              </button>
              <span className={css.soft}>
                {circle.people.length === 0 ? 'nobody yet' : many(circle.people.length, 'person', 'people')}
                {circle.together && ', stay together'}
              </span>
              {open === circle.id && (
                <div className={css.members}>
                  <Checkbox
                    label="Keep them together in a rotation"
                    checked={circle.together}
                    onChange={(event) => keep(circle, { together: event.currentTarget.checked })}
                  />
                  <div className={css.names} role="group" aria-label={`Who belongs to ${circle.name}`}>
                    {people.map((person) => (
                      <Checkbox
                        key={person.id}
                        size="xs"
                        label={person.name}
                        checked={circle.people.includes(person.id)}
                        onChange={(event) =>
                          keep(circle, {
                            people: event.currentTarget.checked
                              ? [...circle.people, person.id]
                              : circle.people.filter((id) => id !== person.id),
                          })
                        }
                      />
                    ))}
                  </div>
                  <Button
                    size="xs"
                    variant="subtle"
                    onClick={() => {
                      parter.mutate(circle.id)
                      setGone({ name: circle.name, together: circle.together, people: circle.people })
                    }}
                  >
                    Remove group (people stay on the list)
                  </Button>
                </div>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
