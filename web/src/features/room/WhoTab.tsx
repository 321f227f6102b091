import { Button, TextInput } from '@mantine/core'
import type { KeyboardEvent } from 'react'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { troubleWords } from '../../api/client'
import { Thumb } from '../../ui/FigureView'
import type { Pictures } from '../build/usePictures'
import { usePictures } from '../build/usePictures'
import { useClassEditor } from '../editor/context'
import { partId, setStation } from '../../plan/edit'
import css from './Room.module.css'
import type { Room, RoomCell, useRoom } from './useRoom'
import { tierWord, many } from '../../ui/words'

type Held = ReturnType<typeof useRoom>

/** A station takes no more. */
const MOST_OPTIONS = 9

interface Place {
  person: string
  station: string
}

const kinds: Record<RoomCell['kind'], string> = {
  main: 'main',
  easier: 'easier',
  harder: 'harder',
  instead: 'alternative',
  gap: 'no option',
}

/** People by stations: what each does, with gaps and broken limits impossible to miss. */
export function WhoTab({ held, room }: { held: Held; room: Room }) {
  const pictures = usePictures()
  const [at, setAt] = useState<Place | null>(null)
  const table = useRef<HTMLTableElement>(null)
  const person = room.people.find((p) => p.id === at?.person)
  const cell = person?.cells.find((c) => c.station === at?.station)

  if (room.people.length === 0) {
    return (
      <p>
        No names yet, so all {room.unnamed} are planned on the main option. Add names under{' '}
        <Link to="/people">People</Link> or in <Link to="../brief">the brief</Link>.
      </p>
    )
  }

  /** Arrows go from cell to cell. */
  function onKey(event: KeyboardEvent) {
    const by = { ArrowRight: [0, 1], ArrowLeft: [0, -1], ArrowDown: [1, 0], ArrowUp: [-1, 0] }[event.key]
    const button = (event.target as HTMLElement).closest('button')
    if (!by || !button) return
    const [row, column] = (button.dataset.at ?? '').split(',').map(Number)
    const next = table.current?.querySelector<HTMLElement>(`[data-at="${row! + by[0]!},${column! + by[1]!}"]`)
    if (next) {
      event.preventDefault()
      next.focus()
    }
  }

  return (
    <>
      {room.gaps.length > 0 && <Gaps held={held} room={room} onShow={setAt} />}
      <div className={css.who} data-open={at !== null}>
        <div className={css.scroll} tabIndex={-1}>
          <table className={css.grid} ref={table} onKeyDown={onKey}>
            <caption className="hidden">Who does which option, station by station</caption>
            <thead>
              <tr>
                <th scope="col">
                  <span className="hidden">Person</span>
                </th>
                {room.stations.map((station, i) => (
                  <th
                    key={station.station}
                    scope="col"
                    data-first={i > 0 && room.stations[i - 1]!.block !== station.block}
                  >
                    <small>{room.stations[i - 1]?.block !== station.block ? station.blockName : ' '}</small>
                    {station.number}. {station.name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {room.people.map((person, row) => (
                <tr key={person.id}>
                  <th scope="row">
                    <Link to={`/people/${person.id}`}>{person.called}</Link>
                    {person.care.map((care) => (
                      <small key={care}>{care}</small>
                    ))}
                    {person.toRenew.map((care) => (
                      <small key={care} className={css.bad}>
                        expired, renew or end: {care}
                      </small>
                    ))}
                  </th>
                  {person.cells.map((cell, column) => (
                    <td
                      key={cell.station}
                      data-first={column > 0 && room.stations[column - 1]!.block !== room.stations[column]!.block}
                    >
                      <Cell
                        cell={cell}
                        at={`${row},${column}`}
                        chosen={at?.person === person.id && at.station === cell.station}
                        label={
                          `${person.called} at ${room.stations[column]!.name}: ${cell.words}, ` +
                          `${cell.against ? 'against their care note' : kinds[cell.kind]}${cell.pinned ? ', your choice' : ''}`
                        }
                        pictures={pictures}
                        onOpen={() => setAt({ person: person.id, station: cell.station })}
                      />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        {person && cell && at && (
          <CellPanel
            key={`${at.person} ${at.station}`}
            held={held}
            who={person}
            station={room.stations.find((s) => s.station === at.station)!}
            cell={cell}
            pictures={pictures}
            onClose={() => {
              setAt(null)
              table.current?.querySelector<HTMLElement>('button[aria-pressed=true]')?.focus()
            }}
          />
        )}
      </div>
      {room.unnamed > 0 && (
        <p className={css.soft}>{many(room.unnamed, 'more person', 'more people')} without a name: main option.</p>
      )}
      {held.told !== '' && (
        <p role="status" className={css.told}>
          {held.told}
        </p>
      )}
    </>
  )
}

function Cell(props: {
  cell: RoomCell
  at: string
  chosen: boolean
  label: string
  pictures: Pictures | undefined
  onOpen: () => void
}) {
  const { cell, pictures } = props
  const figure = cell.option ? pictures?.get(cell.option) : undefined
  return (
    <button
      type="button"
      className={css.cell}
      data-kind={cell.kind}
      data-pinned={cell.pinned}
      data-against={cell.against}
      data-quiet={cell.kind === 'main' && !cell.pinned && !cell.against}
      data-at={props.at}
      aria-pressed={props.chosen}
      aria-label={props.label}
      title={`${cell.words} – ${cell.why}`}
      onClick={props.onOpen}
    >
      <span className={css.rail} aria-hidden="true" />
      {figure ? <Thumb figure={figure} /> : <span className={css.none} aria-hidden="true" />}
      <span className={css.kind}>
        {cell.against ? 'against care note' : kinds[cell.kind]}
        {cell.pinned && <b> your choice</b>}
      </span>
    </button>
  )
}

/** The options of a station for one person: what each would be, and one click to choose it. */
function CellPanel(props: {
  held: Held
  who: Room['people'][number]
  station: Room['stations'][number]
  cell: RoomCell
  pictures: Pictures | undefined
  onClose: () => void
}) {
  const { held, who, station, cell, pictures, onClose } = props
  const [against, setAgainst] = useState<string | null>(null)
  const [reason, setReason] = useState('')
  const [trouble, setTrouble] = useState('')
  const choose = (option: string | null, why?: string) => {
    setTrouble('')
    held.pin(who.id, station.station, option, why).then(
      () => setAgainst(null),
      (error: unknown) => setTrouble(`That choice could not be saved. ${troubleWords(error)}`),
    )
  }
  return (
    <section
      className={css.panel}
      aria-label={`${who.called} at ${station.name}`}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
    >
      <header>
        <strong>
          {who.called} at {station.number}. {station.name}
        </strong>
        <span>{cell.why}</span>
        <Button size="xs" variant="subtle" onClick={onClose}>
          Close
        </Button>
      </header>
      <ul>
        {cell.choices.map((choice, i) => {
          const figure = pictures?.get(choice.option)
          return (
            <li key={choice.option} data-allowed={choice.allowed}>
              <span className={css.panelFigure}>{figure && <Thumb figure={figure} />}</span>
              <span>
                <strong>{choice.words}</strong> <small>{tierWord(choice.tier)}</small>
                <br />
                <small className={choice.allowed ? css.soft : css.bad}>
                  {choice.allowed ? choice.why : `avoided: ${choice.why}`}
                </small>
              </span>
              <Button
                size="xs"
                autoFocus={i === 0}
                variant={choice.option === cell.option ? 'filled' : 'default'}
                aria-pressed={choice.option === cell.option}
                onClick={() => (choice.allowed ? choose(choice.option) : setAgainst(choice.option))}
              >
                {choice.option === cell.option && cell.pinned ? 'Your choice' : 'Choose this'}
              </Button>
              {against === choice.option && (
                <form
                  className={css.reason}
                  onSubmit={(event) => {
                    event.preventDefault()
                    choose(choice.option, reason)
                  }}
                >
                  <TextInput
                    label="This goes against their care note. Why is it right today?"
                    maxLength={400}
                    autoFocus
                    value={reason}
                    onChange={(event) => setReason(event.currentTarget.value)}
                  />
                  <Button size="xs" type="submit" disabled={reason.trim() === ''}>
                    Choose it anyway
                  </Button>
                </form>
              )}
            </li>
          )
        })}
      </ul>
      {cell.pinned && (
        <Button size="xs" variant="default" onClick={() => choose(null)}>
          Back to the automatic choice
        </Button>
      )}
      {trouble !== '' && <p role="alert">{trouble}</p>}
    </section>
  )
}

/** Whoever has nothing to do somewhere, and the best new option for them, a click away. */
function Gaps({ held, room, onShow }: { held: Held; room: Room; onShow: (at: Place) => void }) {
  const { change, plan } = useClassEditor()
  const full = (id: string) =>
    plan.blocks.some((b) => b.stations?.some((s) => partId(s) === id && s.options.length >= MOST_OPTIONS))
  const add = (gap: Schemas['RoomGap']) => {
    held.setTold('')
    change('add option', (draft) => ({
      ...draft,
      plan: setStation(draft.plan, gap.station, (old) => ({ ...old, options: [...old.options, gap.proposed!] })),
    }))
  }
  /** One option may serve several people: each is added once. */
  const addAll = () => {
    held.setTold('')
    const once = new Map(
      room.gaps.flatMap((g) => (g.proposed ? [[`${g.station} ${JSON.stringify(g.proposed)}`, g]] : [])),
    )
    change('add options', (draft) => ({
      ...draft,
      plan: [...once.values()].reduce(
        (plan, gap) =>
          setStation(plan, gap.station, (old) =>
            old.options.length < MOST_OPTIONS ? { ...old, options: [...old.options, gap.proposed!] } : old,
          ),
        draft.plan,
      ),
    }))
  }
  return (
    <section className={css.gaps} aria-label="No option">
      <h2>No option for them yet</h2>
      {room.gaps.filter((gap) => gap.proposed).length > 1 && (
        <Button size="xs" onClick={addAll}>
          Add all suggestions
        </Button>
      )}
      <ul>
        {room.gaps.map((gap) => (
          <li key={`${gap.person} ${gap.station}`}>
            <button type="button" className={css.quiet} onClick={() => onShow(gap)}>
              {gap.words}
            </button>
            {full(gap.station) ? (
              <span className={css.soft}>This station has nine options, the most it can hold. Remove one first.</span>
            ) : gap.proposed ? (
              <Button size="xs" variant="default" onClick={() => add(gap)}>
                Add {gap.proposedWords}
              </Button>
            ) : (
              <span className={css.soft}>{gap.proposedWords}</span>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
