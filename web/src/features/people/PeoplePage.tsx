import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import type { FormEvent } from 'react'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useAct } from '../../save/acts'
import { ErrorNote } from '../../ui/ErrorNote'
import { NumberField } from '../../ui/NumberField'
import { Page } from '../../ui/Page'
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
  const people = useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })
  const [name, setName] = useState('')
  const [erasing, setErasing] = useState<string | null>(null)
  const [adder, changer, eraser] = [useAct('addPerson'), useAct('changePerson'), useAct('erasePerson')]

  function add(event: FormEvent) {
    event.preventDefault()
    if (name.trim() === '') return
    // What was typed stays until it has arrived; without the server it waits and is sent later.
    adder.mutate({ name, usualTier: 'main' }, { onSuccess: () => setName('') })
  }

  const change = (person: Person, next: Partial<Person>) => changer.mutate({ ...person, ...next })

  return (
    <Page name="People" narrow>
      <h1>People</h1>
      <p className={css.aside}>
        Logs are filled in from this list, so that logging is correcting; a stature, where someone tells it, sets the
        stations on the cards. Before anyone joins: see a doctor or midwife first if unsure; stop and tell the
        instructor at pain, dizziness, chest discomfort or unusual breathlessness. Everything said in class is an offer.
      </p>
      {people.isError && <ErrorNote title={`The list cannot be fetched. ${troubleWords(people.error)}`} />}
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
                // Nobody is without a name: an emptied one comes back.
                if (next === '') event.currentTarget.value = person.name
                else if (next !== person.name) change(person, { name: next })
              }}
            />
            <NativeSelect
              aria-label={`Usual option of ${person.name}`}
              data={tiers}
              value={person.usualTier}
              onChange={(event) => change(person, { usualTier: event.currentTarget.value as Tier })}
            />
            <NumberField
              label={`Stature of ${person.name} in cm`}
              hideLabel
              placeholder="cm, if told"
              suffix=" cm"
              width={116}
              size="sm"
              step={1}
              min={100}
              max={230}
              value={person.statureCm ?? undefined}
              onChange={(told) => change(person, { statureCm: told ?? null })}
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
                  loading={eraser.isPending && !eraser.isPaused}
                  onClick={() => eraser.mutate(person.id, { onSettled: () => setErasing(null) })}
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
    </Page>
  )
}
