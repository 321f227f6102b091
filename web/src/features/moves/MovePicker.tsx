import { NativeSelect, TextInput } from '@mantine/core'
import type { KeyboardEvent } from 'react'
import { Fragment, useEffect, useRef, useState } from 'react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { Family, Move, Schemas } from '../../api/client'
import { many } from '../../ui/words'
import { answer, api, troubleWords } from '../../api/client'
import { stationStarter } from '../../api/queries'
import { FamilyMark } from '../../ui/FamilyMark'
import { MovePicture } from './MovePicture'
import css from './Moves.module.css'
import { families, limits, useKindOptions, useMoveSearch, useThumbs } from './useMoveSearch'
import { Dialog } from '../../ui/Dialog'

/** The family that the moves beneath it are of. */
function FamilyHead({ family }: { family: Family }) {
  return (
    <li role="presentation" className={css.familyHead}>
      <FamilyMark family={family} size={16} /> {families.find(([word]) => word === family)?.[1]}
    </li>
  )
}

/** The card a line below (1) or above (-1), as near under or over this one as there is. */
function above(cards: HTMLElement[], at: number, way: 1 | -1): number {
  const here = cards[at]?.getBoundingClientRect()
  if (!here) return at
  const rows = cards
    .map((card, i) => ({ i, box: card.getBoundingClientRect() }))
    .filter(({ box }) => way * (box.top - here.top) > 1)
  const next = rows.reduce<number | null>(
    (best, { box }) => (best === null || way * (best - box.top) > 0 ? box.top : best),
    null,
  )
  const line = rows.filter(({ box }) => Math.abs(box.top - (next ?? 0)) <= 1)
  const nearest = line.sort((a, b) => Math.abs(a.box.left - here.left) - Math.abs(b.box.left - here.left))[0]
  return nearest?.i ?? at
}

interface Props {
  title: string
  current: string
  onChoose: (move: string) => void
  onClose: () => void
}

/** Looks for a move by its name or its figure, by hand or by keys. */
export function MovePicker({ title, current, onChoose, onClose }: Props) {
  const [q, setQ] = useState('')
  const [family, setFamily] = useState<Family | undefined>()
  const [limit, setLimit] = useState<Schemas['Limit'] | undefined>()
  const [at, setAt] = useState(0)
  const [kit, setKit] = useState('')
  const [plane, setPlane] = useState<Move['plane'] | undefined>()
  const [position, setPosition] = useState<Move['position'] | undefined>()
  const [than, setThan] = useState<'easier' | 'harder' | undefined>()
  const queries = useQueryClient()
  const thumbs = useThumbs()
  const trades = useQuery({
    queryKey: ['trades', current],
    queryFn: () => answer(api.GET('/api/moves/{id}/trades', { params: { path: { id: current } } })),
    enabled: current !== '',
    staleTime: Infinity,
    select: (list) => new Map(list.map((trade) => [trade.move, trade.words])),
  }).data
  const { found, pending, failed } = useMoveSearch({
    q,
    family,
    limit,
    kit: kit || undefined,
    plane,
    position,
    than,
    near: current || undefined,
  })
  const kind = useKindOptions(limit)
  const list = useRef<HTMLUListElement>(null)
  const chosen = found[Math.min(at, found.length - 1)]
  // What was typed, or what is most like the move that stands there, is in an order of its own.
  const inFamilies = q === '' && current === ''

  // What is about to be chosen is made ready while it is looked at.
  const about = chosen?.id
  useEffect(() => {
    if (!about) return
    const timer = setTimeout(() => void queries.prefetchQuery(stationStarter(about)), 60)
    return () => clearTimeout(timer)
  }, [about, queries])

  const cards = () => [...(list.current?.querySelectorAll<HTMLElement>('[role=option]') ?? [])]
  useEffect(() => {
    document.querySelectorAll('#moves-found [role=option]')[at]?.scrollIntoView({ block: 'nearest' })
  }, [at])

  function onKey(event: KeyboardEvent) {
    const all = cards()
    const to = {
      ArrowDown: () => above(all, at, 1),
      ArrowUp: () => above(all, at, -1),
      ArrowRight: () => at + 1,
      ArrowLeft: () => at - 1,
    }[event.key]
    const sideways = event.key === 'ArrowRight' || event.key === 'ArrowLeft'
    // Left and right walk the list only while there is no text for them to walk in.
    if (to && !(q !== '' && sideways)) {
      setAt(Math.max(0, Math.min(found.length - 1, to())))
      event.preventDefault()
    } else if (event.key === 'Enter' && chosen && !pending) {
      event.preventDefault()
      onChoose(chosen.id)
    }
  }

  /** A question asked with one press, taken back with another. */
  const ask = (words: string, on: boolean, toggle: () => void) => (
    <button
      type="button"
      className={css.ask}
      aria-pressed={on}
      onClick={() => {
        toggle()
        setAt(0)
      }}
    >
      {words}
    </button>
  )

  return (
    <Dialog onClose={onClose} title={title} size="xl">
      <div className={css.picking}>
        <TextInput
          data-autofocus
          label="Search"
          role="combobox"
          aria-expanded
          aria-controls="moves-found"
          aria-activedescendant={chosen ? `found-${chosen.id}` : undefined}
          placeholder="any name you know it by"
          value={q}
          onChange={(event) => {
            setQ(event.currentTarget.value)
            setAt(0)
          }}
          onKeyDown={onKey}
        />
        <NativeSelect
          label="Family"
          value={family ?? ''}
          onChange={(event) => {
            setFamily((event.currentTarget.value || undefined) as Family | undefined)
            setAt(0)
          }}
        >
          <option value="">any</option>
          {families.map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </NativeSelect>
        <NativeSelect
          label="Suitable for"
          value={limit ?? ''}
          onChange={(event) => {
            setLimit((event.currentTarget.value || undefined) as Schemas['Limit'] | undefined)
            setAt(0)
          }}
        >
          <option value="">anyone</option>
          {limits.map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </NativeSelect>
      </div>
      <div className={css.quick} role="group" aria-label="What for">
        {current !== '' && (
          <>
            {ask('Easier than this one', than === 'easier', () => setThan(than === 'easier' ? undefined : 'easier'))}
            {ask('Harder than this one', than === 'harder', () => setThan(than === 'harder' ? undefined : 'harder'))}
          </>
        )}
        {ask('No kit needed', kit === 'none', () => setKit(kit === 'none' ? '' : 'none'))}
        {ask('Sideways', plane === 'frontal', () => setPlane(plane === 'frontal' ? undefined : 'frontal'))}
        {ask('Standing', position === 'standing', () => setPosition(position === 'standing' ? undefined : 'standing'))}
        {ask('On the back', position === 'onTheBack', () =>
          setPosition(position === 'onTheBack' ? undefined : 'onTheBack'),
        )}
        {ask('For a sore knee', limit === 'knee', () => setLimit(limit === 'knee' ? undefined : 'knee'))}
        <span role="status" className={css.asking}>
          {pending ? '' : `${many(found.length, 'move', 'moves')}`}
          {limit && ' – a first filter, not clearance: ask the person'}
        </span>
      </div>
      {failed && <p role="alert">The moves could not be searched. {troubleWords(failed)}</p>}
      {!failed && !pending && found.length === 0 && (
        <p role="status">No moves match. Shorten the search or clear a filter.</p>
      )}
      <ul ref={list} id="moves-found" role="listbox" aria-label="Moves found" className={css.found}>
        {found.map((move, i) => {
          const thumb = thumbs?.get(move.id)
          return (
            <Fragment key={move.id}>
              {inFamilies && move.family !== found[i - 1]?.family && <FamilyHead family={move.family} />}
              <li
                id={`found-${move.id}`}
                role="option"
                aria-selected={chosen?.id === move.id}
                data-current={move.id === current}
                className={css.card}
                onClick={() => onChoose(move.id)}
                onPointerMove={() => setAt(i)}
              >
                <MovePicture move={move} thumb={thumb} />
                <span className={css.name}>
                  <FamilyMark family={move.family} size={14} /> {move.name}
                  <small className={css.asking}>
                    {trades
                      ? move.id === current
                        ? 'current move'
                        : trades.get(move.id) || 'same demands'
                      : thumb?.asks}
                  </small>
                  <small className={css.only}>{move.kit.length > 0 ? `with ${move.kit.join(', ')}` : 'no kit'}</small>
                  {kind?.has(move.id) && <small className={css.only}>only as: {kind.get(move.id)}</small>}
                </span>
              </li>
            </Fragment>
          )
        })}
      </ul>
    </Dialog>
  )
}
