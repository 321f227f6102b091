import { Button, NativeSelect } from '@mantine/core'
import { useState } from 'react'
import type { Booking } from '../../api/client'
import { troubleWords } from '../../api/client'
import { NumberField } from '../../ui/NumberField'
import { PickMenu } from '../../ui/PickMenu'
import { UndoBar } from '../../ui/UndoBar'
import { partId } from '../../plan/edit'
import { useClassEditor } from '../editor/context'
import { Expected } from './Expected'
import { FloorMap } from './FloorMap'
import css from './Room.module.css'
import type { FloorSpot, Room, useRoom } from './useRoom'
import { useChosen, useFloor, useHalls } from './useRoom'

type Held = ReturnType<typeof useRoom>

/** The room from above, block by block: where stations lie, who begins where, and the way round. */
export function Floor({ held, room }: { held: Held; room: Room }) {
  const { plan, booking, change } = useClassEditor()
  const halls = useHalls()
  const { chosen, choose } = useChosen(held.id)
  const blocks = plan.blocks.filter((block) => (block.stations ?? []).length > 0)
  const rotation = blocks.find((block) => block.format === 'rotation') ?? blocks[0]
  const [wanted, setWanted] = useState('')
  const block = blocks.find((b) => partId(b) === wanted) ?? rotation
  const id = block ? partId(block) : ''
  const floor = useFloor(held.id, plan, id, [chosen.data?.spots, chosen.data?.hall, booking.headCount])
  const groups = room.groups.find((g) => g.block === id)
  const [before, setBefore] = useState<Record<string, FloorSpot> | null>(null)

  if (!block) return <p>No stations yet. Add some on Build.</p>

  function put(spots: Record<string, FloorSpot>) {
    setBefore(chosen.data?.spots ?? {})
    choose({ spots })
  }

  /** More, fewer or others come than planned: everyone is regrouped, most keep their group. */
  async function came(next: Partial<Booking>) {
    if (groups) {
      // Groups that were only proposed so far are the ones that most are to keep; without the server they are made anew.
      const kept = groups.groups.map((g) => g.people)
      await held.group(id, kept).catch(() => undefined)
    }
    change('who comes', (draft) => ({ ...draft, booking: { ...draft.booking, ...next } }))
  }

  const spots = chosen.data?.spots ?? {}
  const here = (block.stations ?? []).filter((s) => spots[partId(s)])
  return (
    <div className={css.floor}>
      <div className={css.floorHead} data-screen-only>
        {blocks.length > 1 && (
          <NativeSelect
            label="Block"
            value={id}
            onChange={(event) => setWanted(event.currentTarget.value)}
            data={blocks.map((b) => ({ value: partId(b), label: b.name }))}
          />
        )}
        {(halls.data ?? []).length > 1 && (
          <NativeSelect
            label="Room"
            value={chosen.data?.hall ?? ''}
            onChange={(event) => choose({ hall: event.currentTarget.value })}
            data={halls.data!.map((h) => ({ value: h.id, label: h.name }))}
          />
        )}
        <NumberField
          label="How many are here"
          width={160}
          suffix=""
          size="sm"
          step={1}
          min={0}
          max={500}
          needed
          value={booking.headCount}
          onChange={(headCount) => headCount !== undefined && void came({ headCount })}
        />
      </div>
      <div data-screen-only>
        <Expected booking={booking} usual={room.people.map((p) => p.id)} onChange={(next) => void came(next)} />
      </div>
      <div className={css.beside}>
        {floor.isError && <p role="alert">The floor plan could not be drawn. {troubleWords(floor.error)}</p>}
        {floor.data && (
          <FloorMap
            key={floor.data.block}
            view={floor.data}
            spots={spots}
            onPut={put}
            onAuto={
              here.length === 0
                ? undefined
                : () => {
                    const left = { ...spots }
                    for (const station of here) delete left[partId(station)]
                    put(left)
                  }
            }
          />
        )}
        {groups && <GroupCards held={held} room={room} groups={groups} />}
      </div>
      {before && (
        <UndoBar
          words="Floor plan changed."
          onUndo={() => {
            choose({ spots: before })
            setBefore(null)
          }}
          onGone={() => setBefore(null)}
        />
      )}
    </div>
  )
}

function GroupCards({ held, room, groups }: { held: Held; room: Room; groups: Room['groups'][number] }) {
  const [trouble, setTrouble] = useState('')
  const names = new Map(room.people.map((p) => [p.id, p.called]))
  const send = (next: string[][] | null) => {
    setTrouble('')
    held
      .group(groups.block, next)
      .catch((error: unknown) => setTrouble(`The groups could not be changed. ${troubleWords(error)}`))
  }
  const [moved, setMoved] = useState<{ words: string; back: string[][] } | null>(null)
  const move = (person: string, to: number) => {
    setMoved({
      words: `${names.get(person)} moved to group ${to + 1}.`,
      back: groups.groups.map((g) => g.people),
    })
    send(groups.groups.map((g, i) => [...g.people.filter((id) => id !== person), ...(i === to ? [person] : [])]))
  }
  return (
    <section aria-label={`Groups of ${groups.name}`}>
      <ol className={css.groups}>
        {groups.groups.map((group) => (
          <li key={group.number}>
            <strong>
              <span className={css.token}>{group.number}</span> starts at {group.beginsAt}
            </strong>
            <ul aria-label={`Group ${group.number}`}>
              {group.people.map((person) => (
                <li key={person}>
                  {names.get(person)}
                  <PickMenu
                    label={`Move ${names.get(person)} to another group`}
                    shown="move…"
                    words={groups.groups
                      .filter((other) => other.number !== group.number)
                      .map((other) => [String(other.number), `to group ${other.number}`])}
                    onPick={(to) => move(person, Number(to) - 1)}
                  />
                </li>
              ))}
              {group.unnamed > 0 && <li className={css.soft}>{group.unnamed} more without a name</li>}
            </ul>
          </li>
        ))}
      </ol>
      {moved && (
        <UndoBar
          words={moved.words}
          onUndo={() => {
            send(moved.back)
            setMoved(null)
          }}
          onGone={() => setMoved(null)}
        />
      )}
      <p data-screen-only>
        <Button size="xs" variant="default" onClick={() => send(null)}>
          Use these groups, evened out
        </Button>{' '}
        <span className={css.soft}>
          People who stay together share a group, care notes are spread out, and nobody who should not jump starts at a
          jump.
        </span>
      </p>
      {trouble !== '' && <p role="alert">{trouble}</p>}
    </section>
  )
}
