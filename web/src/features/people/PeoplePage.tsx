import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { FormEvent } from 'react'
import { useEffect, useState } from 'react'
import type { Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import css from './People.module.css'

type Person = Schemas['Person']
type Tier = Person['usualTier']

const tiers: { value: Tier; label: string }[] = [
  { value: 'easier', label: 'usually the easier option' },
  { value: 'main', label: 'usually the main option' },
  { value: 'harder', label: 'usually the harder option' },
]

/** The roster. Each person can take their data along and be erased. */
export function PeoplePage() {
  const queries = useQueryClient()
  const people = useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })
  const [name, setName] = useState('')
  const [erasing, setErasing] = useState<string | null>(null)
  const [problem, setProblem] = useState(false)
  const refresh = () => queries.invalidateQueries({ queryKey: ['people'] })

  useEffect(() => {
    document.title = 'People · Halterion'
  }, [])

  async function attempt(action: () => Promise<unknown>) {
    try {
      await action()
      setProblem(false)
    } catch {
      setProblem(true)
    }
    await refresh()
  }

  function add(event: FormEvent) {
    event.preventDefault()
    if (name.trim() === '') return
    void attempt(async () => {
      await answer(api.POST('/api/people', { body: { name, usualTier: 'main' } }))
      setName('')
    })
  }

  const change = (person: Person, next: Partial<Person>) =>
    attempt(() =>
      answer(
        api.PUT('/api/people/{id}', {
          params: { path: { id: person.id } },
          body: { ...person, ...next },
        }),
      ),
    )

  return (
    <main className={css.page}>
      <h1>People</h1>
      <p className={css.aside}>
        Logs are filled in from this list, so that logging is correcting; a stature, where someone tells it, sets the
        stations on the cards. Before anyone joins: see a doctor or midwife first if unsure; stop and tell the
        instructor at pain, dizziness, chest discomfort or unusual breathlessness. Everything said in class is an offer.
      </p>
      {(problem || people.isError) && (
        <ErrorNote title="That did not reach the server. Nothing was changed; try again." />
      )}
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
      </form>
      {people.data?.length === 0 && <p>Nobody yet. Add the people who usually come; names or initials will do.</p>}
      <ul className={css.list}>
        {people.data?.map((person) => (
          <li key={person.id} className={css.person}>
            <TextInput
              aria-label={`Name of ${person.name}`}
              defaultValue={person.name}
              maxLength={120}
              onBlur={(event) => {
                const next = event.currentTarget.value.trim()
                if (next !== '' && next !== person.name) void change(person, { name: next })
              }}
            />
            <NativeSelect
              aria-label={`Usual option of ${person.name}`}
              data={tiers}
              value={person.usualTier}
              onChange={(event) => void change(person, { usualTier: event.currentTarget.value as Tier })}
            />
            <NumberInput
              aria-label={`Stature of ${person.name} in cm`}
              placeholder="cm, if told"
              suffix=" cm"
              w={116}
              min={100}
              max={230}
              allowDecimal={false}
              hideControls
              defaultValue={person.statureCm ?? ''}
              onBlur={(event) => {
                const told = Number.parseInt(event.currentTarget.value, 10)
                const next = Number.isNaN(told) ? null : told
                if (next !== (person.statureCm ?? null)) void change(person, { statureCm: next })
              }}
            />
            <a href={`/api/people/${person.id}/export`} download={`${person.name}.json`}>
              Export
            </a>
            {erasing === person.id ? (
              <span className={css.confirm}>
                Erasing cannot be undone.
                <Button
                  size="xs"
                  color="red.9"
                  onClick={() =>
                    void attempt(() => answer(api.DELETE('/api/people/{id}', { params: { path: { id: person.id } } })))
                  }
                >
                  Erase {person.name}
                </Button>
                <Button size="xs" variant="default" onClick={() => setErasing(null)}>
                  Keep
                </Button>
              </span>
            ) : (
              <Button size="xs" variant="subtle" onClick={() => setErasing(person.id)}>
                Erase …
              </Button>
            )}
          </li>
        ))}
      </ul>
    </main>
  )
}
