import { Anchor, Loader } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router'
import type { ClassView } from '../../api/client'
import { Refused } from '../../api/client'
import { fetchClass } from '../../api/queries'
import { ErrorNote } from '../../ui/ErrorNote'
import type { TapeSpan } from '../../ui/Tape'
import css from './ClassLayout.module.css'
import { ClassTape } from './ClassTape'
import { ConflictDialog } from './ConflictDialog'
import { EditorContext, LiveEditorContext } from './context'
import { keptDraft } from './drafts'
import { useEditor } from './useEditor'

const steps = [
  { to: 'brief', name: 'Brief' },
  { to: 'build', name: 'Build' },
  { to: 'cards', name: 'Cards' },
  { to: 'lead', name: 'Lead' },
  { to: 'log', name: 'Log' },
]

/** Loads a class once and keeps its editor through all its screens. */
export function ClassLayout() {
  const { id = '' } = useParams()
  const query = useQuery({
    queryKey: ['class', id],
    queryFn: () => fetchClass(id),
    gcTime: 0,
    refetchOnWindowFocus: false,
  })
  if (query.isPending) return <Loader m="xl" aria-label="Opening the class" />
  if (query.isError) {
    const gone = query.error instanceof Refused && query.error.status === 404
    return (
      <ErrorNote title={gone ? 'This class is not here any more.' : 'The class cannot be opened just now.'}>
        {gone ? (
          <Anchor component={Link} to="/">
            Back to the list of classes
          </Anchor>
        ) : (
          <Anchor component="button" onClick={() => void query.refetch()}>
            Try again
          </Anchor>
        )}
      </ErrorNote>
    )
  }
  return <OpenClass key={id} loaded={query.data} />
}

function OpenClass({ loaded }: { loaded: ClassView }) {
  const kept = useMemo(() => keptDraft(loaded.id), [loaded.id])
  const editor = useEditor(loaded, kept)
  const leading = useLocation().pathname.endsWith('/lead')
  const navigate = useNavigate()
  useUndoKeys(editor.undo, editor.redo, !leading)

  const toBlock = useCallback(
    (index: number) => void navigate({ pathname: 'build', hash: `block-${index}` }),
    [navigate],
  )
  const toSpan = useCallback(
    (span: TapeSpan) =>
      void navigate({
        pathname: 'build',
        hash: span.station == null ? `block-${span.block}` : `station-${span.block}-${span.station}`,
      }),
    [navigate],
  )

  useEffect(() => {
    document.title = `${editor.plan.title} · Halterion`
  }, [editor.plan.title])

  return (
    <LiveEditorContext value={editor}>
      <EditorContext value={editor}>
        {leading ? (
          <Outlet />
        ) : (
          <div className={css.page}>
            <header className={css.head} data-screen-only>
              <h1 className={css.title}>{editor.plan.title}</h1>
              <nav aria-label="Steps of this class" className={css.path}>
                {steps.map((step) => (
                  <NavLink key={step.to} to={step.to} className={css.step}>
                    {step.name}
                  </NavLink>
                ))}
              </nav>
            </header>
            <div data-screen-only>
              <ClassTape editor={editor} onBlock={toBlock} onSpan={toSpan} />
            </div>
            <Outlet />
          </div>
        )}
        <ConflictDialog editor={editor} />
      </EditorContext>
    </LiveEditorContext>
  )
}

function useUndoKeys(undo: () => void, redo: () => void, active: boolean) {
  useEffect(() => {
    if (!active) return
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey)) return
      const key = event.key.toLowerCase()
      if (key === 'z' && !event.shiftKey) undo()
      else if (key === 'y' || (key === 'z' && event.shiftKey)) redo()
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [undo, redo, active])
}
