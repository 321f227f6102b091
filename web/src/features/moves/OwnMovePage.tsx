import { Anchor, Button, Loader, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import type { FormEvent } from 'react'
import { useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import type { Fault, Move, Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useMoves } from '../../api/queries'
import { useAct } from '../../save/acts'
import { ownMovesOf, saverOf } from '../../save/documents'
import { ErrorNote } from '../../ui/ErrorNote'
import { withWord } from '../../plan/edit'
import { Page } from '../../ui/Page'
import css from './Moves.module.css'
import { CommaList, DemandFields, DoseFields, FaultRows, LimitTicks } from './OwnMoveParts'
import { PictureField } from './PictureField'
import { families } from './useMoveSearch'

export type OwnMove = Schemas['PlanMove']

const texts: [keyof OwnMove, string][] = [
  ['getIn', 'Getting in and out'],
  ['setUp', 'Set-up'],
  ['path', 'Path'],
  ['end', 'End position'],
  ['breath', 'Breath'],
  ['rep', 'What one rep is'],
  ['felt', 'Where you feel it, and what to change if not'],
  ['muscles', 'What works'],
  ['easier', 'How to make it easier'],
  ['harder', 'How to make it harder'],
  ['readiness', 'What to be able to do first'],
  ['kitSafety', 'Kit safety'],
  ['cautions', 'Cautions'],
]

const idOf = (name: string, taken: string[]) => {
  const id = `my-${name
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')}`
  for (let n = 1; ; n++) {
    const free = n === 1 ? id : `${id}-${n}`
    if (!taken.includes(free)) return free
  }
}

/** What only the library says of its moves; an own one has it from the move that it is like. */
const ours = new Set([
  'asks',
  'atHome',
  'usual',
  'ready',
  'quick',
  'selfCheck',
  'notFelt',
  'elsewhere',
  'unkindTo',
  'ballistic',
  'formOf',
])

/** What a shipped move gives to an own one that begins as its copy. */
function copyOf(move: Move): OwnMove {
  const said = Object.fromEntries(
    Object.entries(move).filter(([key, value]) => !ours.has(key) && value !== null && value !== ''),
  )
  return {
    ...said,
    ...(move.limits && { limits: move.limits.map(({ limit, when, why }) => ({ limit, when, why })) }),
    faults: move.faults.map(({ seen, fix, say }) => ({ seen, fix, ...(say && { say }) })),
    id: '',
    name: `My ${move.name.charAt(0).toLowerCase()}${move.name.slice(1)}`,
    like: move.like ?? move.id,
  } as OwnMove
}

/** Makes a move of one's own: from nothing, as a copy of one of ours, or by changing an own one. */
export function OwnMovePage() {
  const { move: id } = useParams()
  const [search] = useSearchParams()
  const moves = useMoves().data
  const own = useQuery({
    queryKey: ['own-moves'],
    queryFn: () => answer(api.GET('/api/own-moves')),
  })
  // Asked for once more in vain, what is typed stays: only a first answer that never came is said.
  if (own.isError && !own.data) return <ErrorNote title={`Your moves cannot be fetched. ${troubleWords(own.error)}`} />
  if (!moves || !own.data) return <Loader m="xl" aria-label="Fetching the moves" />
  const from = moves.find((m) => m.id === search.get('from'))
  const start = id
    ? own.data.moves.find((m) => m.id === id)
    : from
      ? copyOf(from)
      : ({ id: '', name: search.get('name') ?? '', family: 'squat' } as OwnMove)
  if (!start) {
    return (
      <ErrorNote title="You have no move with this name.">
        <Anchor component={Link} to="/moves">
          To all moves
        </Anchor>
      </ErrorNote>
    )
  }
  return <Form key={id ?? search.get('from')} start={start} moves={moves} own={own.data} />
}

interface FormProps {
  start: OwnMove
  moves: Move[]
  own: Schemas['OwnMovesView']
}

function Form({ start, moves, own }: FormProps) {
  const navigate = useNavigate()
  const [move, setMove] = useState(start)
  // What it was made from, also when others change theirs while this is typed.
  const [opened, setOpened] = useState(own)
  const [faults, setFaults] = useState<Fault[]>([])
  const [problem, setProblem] = useState('')
  const set = <K extends keyof OwnMove>(key: K, value: OwnMove[K] | '' | undefined) =>
    setMove((before) => {
      const next = { ...before }
      if (value === '' || value === undefined) delete next[key]
      else next[key] = value as OwnMove[K]
      return next
    })

  const remover = useAct('removeOwnMove')

  async function save(event: FormEvent) {
    event.preventDefault()
    const taken = [...moves, ...opened.moves].map((m) => m.id)
    const next = { ...move, id: start.id === '' ? idOf(move.name, taken) : move.id }
    const saver = saverOf('ownMoves', next.id, ownMovesOf(opened, next.id), opened.revision)
    saver.put([next])
    const { state, words, faults } = await saver.settled()
    setFaults(faults)
    setProblem(state === 'saved' ? '' : `The move was not saved. What you typed is still here. ${words}`)
    if (state === 'refused') saver.discard()
    if (state !== 'saved') return
    if (saver.isLatest([next])) return void navigate(`/moves/${next.id}`)
    // The other one was taken: the form shows it.
    setMove(saver.value[0] ?? start)
    setOpened({ moves: [...opened.moves.filter((m) => m.id !== next.id), ...saver.value], revision: saver.base })
  }

  // The form goes with the move, so that what follows cannot hang on it.
  const remove = () =>
    void remover.mutateAsync(move.id).then(
      () => navigate('/moves'),
      () => undefined,
    )

  const pick = (key: keyof OwnMove, label: string, words: readonly (readonly [string, string])[]) => (
    <NativeSelect
      label={label}
      value={(move[key] as string | undefined) ?? ''}
      onChange={(e) => {
        const word = e.currentTarget.value || undefined
        setMove((before) => withWord(before, key, word))
      }}
    >
      {words.map(([value, word]) => (
        <option key={value} value={value}>
          {word}
        </option>
      ))}
    </NativeSelect>
  )

  return (
    <Page name={start.id === '' ? 'New move' : start.name}>
      <p className={css.back}>
        <Link to="/moves">‹ All moves</Link>
      </p>
      <h1>{start.id === '' ? 'New move' : `Edit ${start.name}`}</h1>
      {problem && (
        <ErrorNote title={problem}>
          <ul>
            {faults.map((fault) => (
              <li key={fault.pointer + fault.detail}>
                {fault.place}: {fault.detail} Should be: {fault.right}.
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
        <CommaList label="Also called" value={move.aliases} onChange={(aliases) => set('aliases', aliases)} />
        {pick('family', 'Family', families)}
        <NativeSelect
          label="Draw it like, with the same demands"
          value={move.like ?? ''}
          onChange={(e) => set('like', e.currentTarget.value)}
        >
          <option value="">none of these (no figure)</option>
          {moves.map((m) => (
            <option key={m.id} value={m.id}>
              {m.name}
            </option>
          ))}
        </NativeSelect>
        <DemandFields value={move.demand} like={Boolean(move.like)} onChange={(demand) => set('demand', demand)} />
        {pick('position', 'Position', [
          ['standing', 'standing'],
          ['onTheBack', 'on the back'],
          ['sideLying', 'on one side'],
          ['handsAndKnees', 'hands and knees'],
          ['kneeling', 'kneeling'],
          ['seated', 'seated'],
          ['prone', 'face down'],
          ['bench', 'bench'],
          ['machine', 'machine'],
        ])}
        {pick('plane', 'Direction', [
          ['sagittal', 'forward and back'],
          ['frontal', 'sideways'],
          ['transverse', 'turning'],
        ])}
        {pick('sided', 'Sides', [
          ['twoSided', 'both sides together'],
          ['oneSided', 'one side, then the other'],
          ['alternating', 'alternating'],
        ])}
        {move.sided !== undefined && move.sided !== 'twoSided' && (
          <TextInput
            label="“Left” and “right” mean the…"
            placeholder="front foot"
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
        <DoseFields value={move.dose} onChange={(dose) => set('dose', dose)} />
        <CommaList label="Kit" value={move.kit} onChange={(kit) => set('kit', kit)} />
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
        <PictureField value={move.picture} onChange={(picture) => set('picture', picture)} />
        <LimitTicks value={move.limits} onChange={(limits) => set('limits', limits)} />
        <CommaList label="What you say of it" value={move.cues} onChange={(cues) => set('cues', cues)} />
        <FaultRows value={move.faults} onChange={(faults) => set('faults', faults)} />
        <p className={css.formActs}>
          <Button type="submit">Save move</Button>
          {start.id !== '' && (
            <Button variant="default" onClick={remove}>
              Delete move
            </Button>
          )}
          <span className={css.legend}>
            Your moves are kept apart from the built-in ones and travel with every class that uses them.
          </span>
        </p>
      </form>
    </Page>
  )
}
