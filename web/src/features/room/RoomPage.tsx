import '@mantine/core/styles/Tabs.css'
import { Anchor, Loader, Tabs } from '@mantine/core'
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
      <Tabs
        value={view}
        onChange={(key) => key && setSearch({ view: key }, { replace: true })}
        color="var(--tape-edge)"
        keepMounted={false}
      >
        <div className={css.top} data-screen-only>
          <Tabs.List aria-label="The room">
            {views.map((v) => (
              <Tabs.Tab key={v.key} value={v.key}>
                {v.name}
              </Tabs.Tab>
            ))}
          </Tabs.List>
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
            <Tabs.Panel value="who">
              <Suggested session={session.id} onChanged={() => void held.room.refetch()} />
              <WhoTab held={held} room={room.data} />
            </Tabs.Panel>
            <Tabs.Panel value="stations">
              <StationsTab room={room.data} />
            </Tabs.Panel>
            <Tabs.Panel value="kit">
              <KitTab held={held} room={room.data} />
            </Tabs.Panel>
            <Tabs.Panel value="floor">
              <Floor held={held} room={room.data} />
            </Tabs.Panel>
          </div>
        )}
      </Tabs>
    </main>
  )
}
