import { Button, Checkbox, FileButton, NativeSelect, TextInput } from '@mantine/core'
import { Fragment, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { Family, Move, Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { idOf, ownMovesOf, saverOf } from '../../save/documents'
import { ErrorNote } from '../../ui/ErrorNote'
import { FamilyMark } from '../../ui/FamilyMark'
import { Page } from '../../ui/Page'
import { MovePicture } from './MovePicture'
import css from './Moves.module.css'
import { families, limits, useKindOptions, useMoveSearch, useThumbs } from './useMoveSearch'

const positions: [Move['position'], string][] = [
  ['standing', 'standing'],
  ['onTheBack', 'on the back'],
  ['sideLying', 'on one side'],
  ['handsAndKnees', 'hands and knees'],
  ['kneeling', 'kneeling'],
  ['prone', 'face down'],
  ['seated', 'sitting'],
  ['bench', 'bench or chair'],
  ['machine', 'machine'],
]

const planes: [Move['plane'], string][] = [
  ['sagittal', 'forward and back'],
  ['frontal', 'sideways'],
  ['transverse', 'turning'],
]

const kits: [string, string][] = [
  ['none', 'none'],
  ['mat', 'a mat'],
  ['dumbbell', 'dumbbells'],
  ['kettlebell', 'a kettlebell'],
  ['band', 'a band'],
  ['step', 'a step'],
  ['bench', 'a bench'],
  ['ball', 'a ball'],
  ['chair', 'a chair'],
  ['wall', 'a wall'],
  ['box', 'a box'],
  ['barbell', 'a barbell'],
  ['stick', 'a stick'],
  ['machine', 'a machine'],
]

/** The library: look for a move by what is known of it. */
export function MovesPage() {
  const [search, setSearch] = useSearchParams()
  const get = (name: string) => search.get(name) ?? undefined
  const thumbs = useThumbs()
  const [problem, setProblem] = useState('')
  const { found, total, pending, failed } = useMoveSearch({
    q: get('q') ?? '',
    family: get('family') as Family | undefined,
    position: get('position') as Move['position'] | undefined,
    plane: get('plane') as Move['plane'] | undefined,
    kit: get('kit'),
    limit: get('limit') as Schemas['Limit'] | undefined,
    strict: get('strict') === 'yes' || undefined,
  })
  const kind = useKindOptions(get('limit') as Schemas['Limit'] | undefined, get('strict') === 'yes' || undefined)
  const set = (name: string, value: string) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before)
        if (value === '') next.delete(name)
        else next.set(name, value)
        return next
      },
      { replace: true },
    )

  async function bringIn(file: File | null) {
    if (!file) return
    setProblem('')
    const notBroughtIn = (why: string) => setProblem(`“${file.name}” was not imported. Nothing was changed. ${why}`)
    try {
      const body = JSON.parse(await file.text()) as Schemas['OwnMoveList']
      const own = await answer(api.GET('/api/own-moves'))
      const id = idOf(...body.moves.map((move) => move.id))
      const saver = saverOf('ownMoves', id, ownMovesOf(own, id), own.revision)
      saver.put(body.moves)
      const { state, words, faults } = await saver.settled()
      if (state === 'refused') saver.discard()
      const fault = faults[0]
      if (state !== 'saved') notBroughtIn(fault ? `${fault.place}: ${fault.detail} Should be: ${fault.right}.` : words)
    } catch (error) {
      const unread = error instanceof SyntaxError || error instanceof TypeError
      notBroughtIn(unread ? 'This is not a moves file.' : troubleWords(error))
    }
  }

  const sieve = (name: string, label: string, any: string, words: [string, string][]) => (
    <NativeSelect
      label={label}
      size="xs"
      value={get(name) ?? ''}
      onChange={(event) => set(name, event.currentTarget.value)}
    >
      <option value="">{any}</option>
      {words.map(([value, word]) => (
        <option key={value} value={value}>
          {word}
        </option>
      ))}
    </NativeSelect>
  )

  return (
    <Page name="Moves">
      <div className={css.own}>
        <h1>Moves</h1>
        <span style={{ flex: 1 }} />
        <Button component={Link} to="/moves/new" variant="default" size="xs">
          New move
        </Button>
        <Button component="a" href="/api/own-moves" download="own-moves.json" variant="default" size="xs">
          Export my moves
        </Button>
        <FileButton accept=".json,application/json" onChange={(file) => void bringIn(file)}>
          {(props) => (
            <Button variant="default" size="xs" {...props}>
              Import moves
            </Button>
          )}
        </FileButton>
      </div>
      {problem && <ErrorNote title={problem} />}
      <div className={css.sieves}>
        <TextInput
          label="Search"
          size="xs"
          className={css.find}
          placeholder="a name, also a half-remembered one"
          value={get('q') ?? ''}
          onChange={(event) => set('q', event.currentTarget.value)}
        />
        {sieve('family', 'Family', 'any', families)}
        {sieve('position', 'Position', 'any', positions)}
        {sieve('plane', 'Direction', 'any', planes)}
        {sieve('kit', 'Kit', 'anything', kits)}
        {sieve('limit', 'Suitable for', 'anyone', limits)}
        {get('limit') && (
          <Checkbox
            label="strict (keep a wider margin)"
            checked={get('strict') === 'yes'}
            onChange={(event) => set('strict', event.currentTarget.checked ? 'yes' : '')}
          />
        )}
      </div>
      {failed && <ErrorNote title={`The moves cannot be looked through. ${troubleWords(failed)}`} />}
      <p className={css.count} role="status">
        {failed
          ? ''
          : pending
            ? 'Searching…'
            : found.length === total
              ? `${total} moves`
              : `${found.length} of ${total} moves`}
        {!failed &&
          get('limit') &&
          ' – a first filter, not clearance: ask the person, and their doctor or midwife if unsure'}
      </p>
      {!failed && !pending && found.length === 0 && (
        <p>
          No moves match. Shorten the search or clear a filter, or{' '}
          <Link to={`/moves/new?name=${encodeURIComponent(get('q') ?? '')}`}>make it a move of your own</Link>.
        </p>
      )}
      <ul className={css.grid}>
        {found.map((move, i) => {
          const thumb = thumbs?.get(move.id)
          return (
            <Fragment key={move.id}>
              {!get('q') && !get('family') && move.family !== found[i - 1]?.family && (
                <li className={css.familyHead}>
                  <FamilyMark family={move.family} size={18} />
                  <h2>{families.find(([word]) => word === move.family)?.[1]}</h2>
                </li>
              )}
              <li>
                <Link to={`/moves/${move.id}`} className={css.card}>
                  <MovePicture move={move} thumb={thumb} />
                  <span className={css.name}>
                    <FamilyMark family={move.family} size={14} /> {move.name}
                    {move.kit.length > 0 && <small className={css.only}>with {move.kit.join(', ')}</small>}
                    {kind?.has(move.id) && <small className={css.only}>only as: {kind.get(move.id)}</small>}
                  </span>
                </Link>
              </li>
            </Fragment>
          )
        })}
      </ul>
    </Page>
  )
}
