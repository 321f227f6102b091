import { Anchor, Button, Loader, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { FormEvent } from 'react'
import { useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import type { Fault, Move, Schemas } from '../../api/client'
import { answer, api, Refused } from '../../api/client'
import { useMoves } from '../../api/queries'
import { ErrorNote } from '../../ui/ErrorNote'
import css from './Moves.module.css'
import { families } from './useMoveSearch'

type OwnMove = Schemas['PlanMove']

const texts: [keyof OwnMove, string][] = [
  ['setUp', 'Set-up'],
  ['path', 'Path'],
  ['end', 'End position'],
  ['breath', 'Breath'],
  ['rep', 'What one rep is'],
  ['felt', 'Felt where, and what to change if elsewhere'],
  ['muscles', 'What works'],
  ['easier', 'How to make it easier'],
  ['harder', 'How to make it harder'],
  ['cautions', 'Cautions'],
]

const idOf = (name: string) =>
  `my-${name
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')}`

/** What a shipped move gives to an own one that begins as its copy. */
function copyOf(move: Move): OwnMove {
  const { id, name, family, plane, position, sided, rep, dose, setUp, path, end, breath, felt, cautions } = move
  return {
    id: '',
    name: `My ${name.charAt(0).toLowerCase()}${name.slice(1)}`,
    family,
    plane,
    position,
    sided,
    rep,
    dose: dose as OwnMove['dose'],
    setUp,
    path,
    end,
    breath,
    felt,
    cautions,
    kit: move.kit,
    faults: move.faults,
    muscles: move.muscles,
    easier: move.easier,
    harder: move.harder,
    like: id,
    ...(move.tempo ? { tempo: move.tempo } : {}),
    ...(move.sideMeans ? { sideMeans: move.sideMeans } : {}),
  } as OwnMove
}

/** Makes a move of one's own: from nothing, as a copy of one of ours, or by changing an own one. */
export function OwnMovePage() {
  const { move: id } = useParams()
  const [search] = useSearchParams()
  const moves = useMoves().data
  const own = useQuery({
    queryKey: ['own-moves'],
    queryFn: async () => (await answer(api.GET('/api/own-moves'))).moves as unknown as OwnMove[],
  })
  if (!moves || own.isPending) return <Loader m="xl" aria-label="Fetching the moves" />
  const from = moves.find((m) => m.id === search.get('from'))
  const start = id
    ? own.data?.find((m) => m.id === id)
    : from
      ? copyOf(from)
      : ({ id: '', name: '', family: 'squat' } as OwnMove)
  if (!start) {
    return (
      <ErrorNote title="There is no such move of your own.">
        <Anchor component={Link} to="/moves">
          To all moves
        </Anchor>
      </ErrorNote>
    )
  }
  return <Form key={start.id + start.name} start={start} moves={moves} />
}

function Form({ start, moves }: { start: OwnMove; moves: Move[] }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [move, setMove] = useState(start)
  const [faults, setFaults] = useState<Fault[]>([])
  const [problem, setProblem] = useState('')
  const set = <K extends keyof OwnMove>(key: K, value: OwnMove[K] | '' | undefined) =>
    setMove((before) => {
      const next = { ...before }
      if (value === '' || value === undefined) delete next[key]
      else next[key] = value as OwnMove[K]
      return next
    })

  async function refresh() {
    for (const key of ['moves', 'figures', 'search', 'own-moves', 'move'])
      await queries.invalidateQueries({ queryKey: [key] })
  }

  async function save(event: FormEvent) {
    event.preventDefault()
    const id = move.id === '' ? idOf(move.name) : move.id
    try {
      await answer(api.PUT('/api/own-moves', { body: { moves: [{ ...move, id }] as never } }))
      await refresh()
      void navigate(`/moves/${id}`)
    } catch (error) {
      setFaults(error instanceof Refused ? (error.problem.errors ?? []) : [])
      setProblem(error instanceof Refused ? error.message : 'The server does not answer. What you typed is still here.')
    }
  }

  async function remove() {
    await answer(api.DELETE('/api/own-moves/{id}', { params: { path: { id: move.id } } }))
    await refresh()
    void navigate('/moves')
  }

  const pick = (key: keyof OwnMove, label: string, words: readonly (readonly [string, string])[]) => (
    <NativeSelect
      label={label}
      value={(move[key] as string | undefined) ?? ''}
      onChange={(e) => set(key, e.currentTarget.value as never)}
    >
      {words.map(([value, word]) => (
        <option key={value} value={value}>
          {word}
        </option>
      ))}
    </NativeSelect>
  )

  return (
    <main className={css.page}>
      <p className={css.back}>
        <Link to="/moves">‹ All moves</Link>
      </p>
      <h1>{start.id === '' ? 'A move of your own' : `Change ${start.name}`}</h1>
      {problem && (
        <ErrorNote title={problem}>
          <ul>
            {faults.map((fault, i) => (
              <li key={i}>
                <code>{fault.pointer}</code>: {fault.detail} Right would be: {fault.right}.
              </li>
            ))}
          </ul>
        </ErrorNote>
      )}
      <form className={css.form} onSubmit={(event) => void save(event)}>
        <TextInput
          label="Name"
          required
          maxLength={100}
          value={move.name}
          onChange={(e) => set('name', e.currentTarget.value)}
        />
        <TextInput
          label="Also called"
          description="with commas between"
          value={(move.aliases ?? []).join(', ')}
          onChange={(e) => {
            const aliases = e.currentTarget.value
              .split(',')
              .map((a) => a.trim())
              .filter(Boolean)
            set('aliases', aliases.length > 0 ? aliases : undefined)
          }}
        />
        {pick('family', 'Family', families)}
        <NativeSelect
          label="Looks like, and asks as much as"
          value={move.like ?? ''}
          onChange={(e) => set('like', e.currentTarget.value)}
        >
          <option value="">nothing of ours: no figure</option>
          {moves.map((m) => (
            <option key={m.id} value={m.id}>
              {m.name}
            </option>
          ))}
        </NativeSelect>
        {pick('position', 'Position', [
          ['standing', 'standing'],
          ['onTheBack', 'on the back'],
          ['sideLying', 'on one side'],
          ['handsAndKnees', 'hands and knees'],
          ['kneeling', 'kneeling'],
          ['seated', 'seated'],
          ['prone', 'on the belly'],
          ['bench', 'bench'],
          ['machine', 'machine'],
        ])}
        {pick('plane', 'Direction', [
          ['sagittal', 'forward and back'],
          ['frontal', 'sideways'],
          ['transverse', 'turning'],
        ])}
        {pick('sided', 'Sides', [
          ['twoSided', 'both do the same'],
          ['oneSided', 'one side, then the other'],
          ['alternating', 'in turn'],
        ])}
        {move.sided !== undefined && move.sided !== 'twoSided' && (
          <TextInput
            label="What its side means"
            placeholder="foot in front"
            value={move.sideMeans ?? ''}
            onChange={(e) => set('sideMeans', e.currentTarget.value)}
          />
        )}
        <TextInput
          label="Tempo"
          placeholder="such as 2-0-1-0"
          value={move.tempo ?? ''}
          onChange={(e) => set('tempo', e.currentTarget.value.trim())}
        />
        {texts.map(([key, label]) => (
          <Textarea
            key={key}
            label={label}
            autosize
            minRows={1}
            maxLength={4000}
            value={(move[key] as string | undefined) ?? ''}
            onChange={(e) => set(key, e.currentTarget.value)}
          />
        ))}
        <p className={css.formActs}>
          <Button type="submit">Keep it</Button>
          {start.id !== '' && (
            <Button variant="default" onClick={() => void remove()}>
              Take it out of the library
            </Button>
          )}
          <span className={css.legend}>It is kept apart from ours, and travels in every class that uses it.</span>
        </p>
      </form>
    </main>
  )
}
