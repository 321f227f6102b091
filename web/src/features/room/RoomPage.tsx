import { Anchor, Loader } from '@mantine/core'
import { Link, useSearchParams } from 'react-router'
import { troubleWords } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import { useClassEditor } from '../editor/context'
import { Floor } from './Floor'
import { KitTab } from './KitTab'
import css from './Room.module.css'
import { StationsTab } from './StationsTab'
import { Suggested } from './Suggested'
import { useRoom } from './useRoom'
import { WhoTab } from './WhoTab'
import { many } from '../../ui/words'

const views = [
  { key: 'who', name: 'Who does what' },
  { key: 'stations', name: 'Station by station' },
  { key: 'kit', name: 'Kit' },
  { key: 'floor', name: 'Groups and floor' },
] as const

/** Everyone in the room: who does what with what, and where. For the instructor's eyes only. */
export function RoomPage() {
  const { session, faults } = useClassEditor()
  const [search, setSearch] = useSearchParams()
  const view = views.find((v) => v.key === search.get('view'))?.key ?? 'who'
  const held = useRoom()
  const { room } = held

  if (!session) {
    return (
      <ErrorNote title="Nobody is expected yet.">
        <Anchor component={Link} to="../brief">
          Add a date in the brief
        </Anchor>
      </ErrorNote>
    )
  }
  return (
    <main className={css.page}>
      <div className={css.top} data-screen-only>
        <nav aria-label="The room" className={css.views}>
          {views.map((v) => (
            <button
              key={v.key}
              type="button"
              aria-current={view === v.key ? 'page' : undefined}
              onClick={() => setSearch({ view: v.key }, { replace: true })}
            >
              {v.name}
            </button>
          ))}
        </nav>
        {room.data && <p role="status">{room.data.summary}.</p>}
      </div>
      {room.isError && (
        <ErrorNote title={`The room could not be worked out. ${troubleWords(room.error)}`}>
          {faults.length > 0 && (
            <Anchor component={Link} to="../build">
              Fix the class first: {many(faults.length, 'entry', 'entries')} to put right on Build
            </Anchor>
          )}
        </ErrorNote>
      )}
      {room.isPending && <Loader aria-label="Working out who does what" />}
      {room.data && (
        <div data-stale={room.isPlaceholderData}>
          {view === 'who' && <Suggested session={session.id} onChanged={() => void held.room.refetch()} />}
          {view === 'who' && <WhoTab held={held} room={room.data} />}
          {view === 'stations' && <StationsTab room={room.data} />}
          {view === 'kit' && <KitTab held={held} room={room.data} />}
          {view === 'floor' && <Floor held={held} room={room.data} />}
        </div>
      )}
    </main>
  )
}
