import { Button, Checkbox } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useAct } from '../../save/acts'
import css from './People.module.css'
import type { Person } from './words'

/** Everything that would go, and where the name stands besides, before it is done: it cannot be undone. */
export function EraseForm({ person, onCancel }: { person: Person; onCancel: () => void }) {
  const navigate = useNavigate()
  const eraser = useAct('erasePerson')
  const [chosen, setAlone] = useState<boolean | null>(null)
  const found = useQuery({
    queryKey: ['traces', person.id],
    queryFn: () => answer(api.GET('/api/people/{id}/traces', { params: { path: { id: person.id } } })),
    staleTime: 0,
    gcTime: 0,
  })
  const traces = found.data?.traces ?? []
  const whole = traces.filter((t) => t.whole)
  const names = traces.filter((t) => !t.whole)
  const alone = chosen ?? found.data?.alone ?? false
  return (
    <div className={css.confirm} role="group" aria-label={`Erase ${person.name}`}>
      <p>
        This erases everything about {person.name}, here, in past classes and logs, and in the daily copies. It cannot
        be undone.
      </p>
      {found.isPending && <p role="status">Looking for the name elsewhere…</p>}
      {found.isError && (
        <p role="alert">It could not be looked up where the name stands. {troubleWords(found.error)}</p>
      )}
      {whole.length > 0 && (
        <>
          <p>The whole name also stands here, and is replaced with “someone”:</p>
          <Places list={whole} />
        </>
      )}
      {names.length > 0 && (
        <>
          <p>A part of the name, which may mean somebody else or be a word, also stands here:</p>
          <Places list={names} />
          <Checkbox
            label="Replace it there with “someone” too"
            checked={alone}
            onChange={(event) => setAlone(event.currentTarget.checked)}
          />
        </>
      )}
      {found.data && traces.length === 0 && <p>The name stands nowhere else.</p>}
      <p>
        <Button
          size="xs"
          color="red.9"
          disabled={found.isPending}
          loading={eraser.isPending && !eraser.isPaused}
          onClick={() => eraser.mutate({ id: person.id, alone }, { onSuccess: () => void navigate('/people') })}
        >
          Erase {person.name}
        </Button>{' '}
        <Button size="xs" variant="default" onClick={onCancel}>
          Cancel
        </Button>
      </p>
    </div>
  )
}

function Places({ list }: { list: Schemas['NameTrace'][] }) {
  return (
    <ul>
      {list.map((trace) => (
        <li key={`${trace.where} ${trace.link} ${trace.text}`}>
          {trace.link ? <Link to={trace.link}>{trace.where}</Link> : trace.where}: “{trace.text}”
        </li>
      ))}
    </ul>
  )
}
