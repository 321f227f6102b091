import { Button, Checkbox } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Plan, Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { change as keepChange, withoutRevision } from '../../save/documents'
import { useClassEditor } from '../editor/context'
import css from './Room.module.css'
import type { Room, useRoom } from './useRoom'
import { useChosen, useHalls } from './useRoom'

type Held = ReturnType<typeof useRoom>

/** Kit: what is short and the ways out, what is fetched once, what stays on, and the looks before use. */
export function KitTab({ held, room }: { held: Held; room: Room }) {
  const halls = useHalls()
  const { chosen, choose } = useChosen(held.id)
  const hall = halls.data?.find((h) => h.id === chosen.data?.hall)
  const looked = chosen.data?.looked ?? []
  return (
    <div className={css.kit}>
      {!hall && halls.data && (
        <p>
          No kit list yet, so nothing can be checked. <Link to="/rooms">Write down your kit</Link> once under Rooms.
        </p>
      )}
      {room.shortages.length > 0 && (
        <section aria-labelledby="short">
          <h2 id="short">Not enough</h2>
          <ul className={css.shortages}>
            {room.shortages.map((shortage) => (
              <ShortageLine key={`${shortage.index} ${shortage.words}`} held={held} shortage={shortage} hall={hall} />
            ))}
          </ul>
        </section>
      )}
      {room.kitSays && <p className={room.kitEnough ? css.good : undefined}>{room.kitSays}</p>}
      <section aria-labelledby="fetch">
        <h2 id="fetch">What to fetch</h2>
        {room.kit.length === 0 ? (
          <p>This class needs no kit.</p>
        ) : (
          <div className={css.scroll} role="region" aria-label="Table of the kit" tabIndex={0}>
            <table className={css.kitTable}>
              <thead>
                <tr>
                  <th scope="col">What</th>
                  <th scope="col">You have</th>
                  <th scope="col">Used in</th>
                  <th scope="col">When</th>
                  <th scope="col">Kept where</th>
                </tr>
              </thead>
              <tbody>
                {room.kit.map((line) => (
                  <tr key={line.words + line.where} data-short={line.have != null && line.have < line.peak}>
                    <th scope="row">{line.words}</th>
                    <td>{line.have ?? (hall ? 'not on the list' : '')}</td>
                    <td>{line.where}</td>
                    <td>{line.when}</td>
                    <td>{line.place}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
        {room.staysOn.map((words) => (
          <p key={words}>{words}.</p>
        ))}
      </section>
      {room.looks.length > 0 && (
        <section aria-labelledby="looks">
          <h2 id="looks">Check before use</h2>
          <div className={css.looks}>
            {room.looks.map((look) => (
              <Checkbox
                size="md"
                key={look.key}
                label={look.words}
                checked={looked.includes(look.key)}
                onChange={(event) =>
                  choose({
                    looked: event.currentTarget.checked ? [...looked, look.key] : looked.filter((k) => k !== look.key),
                  })
                }
              />
            ))}
          </div>
          <p className={css.soft}>The maker’s instructions and your venue’s rules come first.</p>
        </section>
      )}
    </div>
  )
}

function ShortageLine(props: { held: Held; shortage: Room['shortages'][number]; hall?: Schemas['StoredHall'] }) {
  const { held, shortage, hall } = props
  const { change, plan } = useClassEditor()
  const [open, setOpen] = useState(false)
  const ways = useQuery({
    queryKey: ['ways-out', held.id, plan, shortage.words],
    queryFn: () =>
      answer(
        api.POST('/api/sessions/{id}/ways-out', {
          params: { path: { id: held.id } },
          body: { class: plan, shortage: shortage.index },
        }),
      ),
    enabled: open,
    retry: false,
  })
  function take(way: Schemas['WayOut']) {
    if (way.class) {
      const next = way.class as Plan
      change('way out of a shortage', (draft) => ({ ...draft, plan: next }))
    } else if (hall) {
      const shown = withoutRevision(hall)
      keepChange('room', hall.id, shown, hall.revision ?? 1, { ...shown, stock: [...hall.stock, ...way.lines] })
    }
  }
  return (
    <li>
      <strong>{shortage.words}</strong>
      <Button size="xs" variant="default" aria-expanded={open} onClick={() => setOpen(!open)}>
        Ways to fix it
      </Button>
      {open && ways.isPending && <span>Trying them…</span>}
      {open && ways.isError && <p role="alert">{troubleWords(ways.error)}</p>}
      {open && ways.data?.length === 0 && (
        <p>No suggestion fixes this. Swap the station, bring more, or take fewer people.</p>
      )}
      {open && (
        <ul>
          {ways.data?.map((way) => (
            <li key={way.title}>
              <span>
                {way.title} – <em>{way.preview}</em>
              </span>
              <Button size="xs" onClick={() => take(way)}>
                Use this fix
              </Button>
            </li>
          ))}
        </ul>
      )}
    </li>
  )
}
