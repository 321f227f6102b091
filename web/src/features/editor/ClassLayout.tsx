import { Anchor, Loader } from '@mantine/core'
import type { HotkeyItem } from '@mantine/hooks'
import { useHotkeys } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { Link, NavLink, Outlet, useNavigate, useParams } from 'react-router'
import type { Booking, ClassView, Plan, Session } from '../../api/client'
import { Refused, troubleWords } from '../../api/client'
import { fetchClass } from '../../api/queries'
import { partId } from '../../plan/edit'
import { kept, leftBehind } from '../../save/kept'
import type { Draft } from '../../save/Saver'
import { ErrorNote } from '../../ui/ErrorNote'
import { useDeskFollowing } from './useDeskFollowing'
import type { TapeSpan } from '../../ui/Tape'
import type { ClassEditor } from './ClassEditor'
import { editorOf } from './ClassEditor'
import { useTabName } from '../../ui/Page'
import css from './ClassLayout.module.css'
import { ClassTape } from './ClassTape'
import { BookingConflict, ClassConflict } from './ConflictDialog'
import { EditorContext, useEditor } from './context'
import type { Checks } from './useChecks'

const steps = [
  { to: 'brief', name: 'Brief' },
  { to: 'build', name: 'Build' },
  { to: 'room', name: 'Room' },
  { to: 'cards', name: 'Cards' },
  { to: 'ready', name: 'Ready' },
  { to: 'lead', name: 'Lead' },
  { to: 'log', name: 'Log' },
]

interface Opened {
  view: ClassView
  core: ClassEditor
}

/** The class and its editor, with what an earlier tab could not save of it. */
async function openClass(id: string): Promise<Opened> {
  const view = await fetchClass(id)
  const core = editorOf(view)
  const plans = await leftBehind<Draft<Plan>>('class', id)
  const own = kept<Draft<Plan>>('class', id)
  const bookings: { id: string; value: Draft<Booking> }[] = []
  for (const session of view.sessions) {
    const left = await leftBehind<Draft<Booking>>('session', session.id)
    if (left[0]) bookings.push({ id: session.id, value: left[0].value })
  }
  const plan = plans[0]?.value ?? (core.clean ? own : null)
  if (plan || bookings.length > 0) core.restore(plan ?? undefined, bookings)
  return { view, core }
}

/** Loads a class once and keeps its editor through all its screens. */
export function ClassLayout() {
  const { id = '', session } = useParams()
  const query = useQuery({
    queryKey: ['class', id],
    queryFn: () => openClass(id),
    gcTime: 0,
    staleTime: Infinity,
    refetchOnWindowFocus: false,
    structuralSharing: false,
  })
  if (query.isPending) return <Loader m="xl" aria-label="Opening the class" />
  if (query.isError) {
    const gone = query.error instanceof Refused && query.error.status === 404
    return (
      <ErrorNote
        title={gone ? 'This class has been removed.' : `This class could not be opened. ${troubleWords(query.error)}`}
      >
        {gone ? (
          <Anchor component={Link} to="/">
            Go to Classes
          </Anchor>
        ) : (
          <Anchor component="button" onClick={() => void query.refetch()}>
            Try again
          </Anchor>
        )}
      </ErrorNote>
    )
  }
  return <OpenClass key={id} opened={query.data} wanted={session} />
}

/** Ready and all of it known; not ready; ready as far as it is known; not known yet. */
const signOf = ({ ready, sure }: Checks) => (ready === null ? ' ' : !ready ? '✗' : sure ? '✓' : '?')

/** The session that is meant: the one asked for, else the next to come, else the one held last. */
function chosen(sessions: Session[], wanted: string | undefined): Session | null {
  return (
    sessions.find((s) => s.id === wanted) ??
    sessions.find((s) => !s.held) ??
    sessions.filter((s) => s.held).at(-1) ??
    null
  )
}

function OpenClass({ opened, wanted }: { opened: Opened; wanted: string | undefined }) {
  const { view, core } = opened
  const session = chosen(view.sessions, wanted)
  const editor = useEditor(core, session, view.sessions)
  const navigate = useNavigate()
  const { plan } = editor
  useUndoKeys(editor.undo, editor.redo)
  useDeskFollowing(core, session)

  const toBlock = useCallback(
    (index: number) => {
      const block = plan.blocks[index]
      if (block) void navigate({ pathname: 'build', hash: `block-${partId(block)}` })
    },
    [navigate, plan],
  )
  const toSpan = useCallback(
    (span: TapeSpan) => {
      const block = plan.blocks[span.block ?? -1]
      const station = block?.stations?.[span.station ?? -1]
      if (block) {
        void navigate({ pathname: 'build', hash: station ? `station-${partId(station)}` : `block-${partId(block)}` })
      }
    },
    [navigate, plan],
  )

  useTabName(plan.title)

  // Leaving for good is a good moment to save; what could not be is kept.
  useEffect(() => () => void core.flush(), [core])

  return (
    <EditorContext value={editor}>
      <div className={css.page}>
        <section aria-label="This class" data-screen-only>
          <div className={css.head}>
            <h1 className={css.title}>{plan.title}</h1>
            <nav aria-label="Steps of this class" className={css.path}>
              {steps.map((step) => (
                <NavLink
                  key={step.to}
                  to={step.to}
                  className={css.step}
                  data-sign={step.to === 'ready' ? signOf(editor.checks) : undefined}
                >
                  {step.name}
                </NavLink>
              ))}
            </nav>
          </div>
          <ClassTape editor={editor} onBlock={toBlock} onSpan={toSpan} />
        </section>
        <Outlet />
      </div>
      <ClassConflict editor={editor} />
      {session && <BookingConflict editor={editor} session={session.id} />}
    </EditorContext>
  )
}

/** Saves what was typed last, so that it is what is led, and goes on to the screen that leads. */
export function ToLead() {
  const { id = '', session: wanted } = useParams()
  const navigate = useNavigate()
  const [none, setNone] = useState(false)
  const query = useMemo(() => openClass(id), [id])
  useEffect(() => {
    let here = true
    void query
      .then(async ({ view, core }) => {
        await core.flush()
        const session = chosen(view.sessions, wanted)
        if (!here) return
        if (session) void navigate(`/lead/${session.id}`, { replace: true })
        else setNone(true)
      })
      .catch(() => here && setNone(true))
    return () => {
      here = false
    }
  }, [query, wanted, navigate])
  return none ? (
    <ErrorNote title="This class has no date yet, so it cannot be led.">
      <Anchor component={Link} to={`/classes/${id}/brief`}>
        Add a date in the brief
      </Anchor>
    </ErrorNote>
  ) : (
    <Loader m="xl" aria-label="Getting ready" />
  )
}

function useUndoKeys(undo: () => void, redo: () => void) {
  const keys: HotkeyItem[] = [
    ['mod+Z', undo],
    ['mod+Y', redo],
    ['mod+shift+Z', redo],
  ]
  // In a field too: what is undone is the class.
  useHotkeys(keys, [])
}
