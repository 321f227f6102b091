import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, troubleWords } from '../../api/client'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { Dialog } from '../../ui/Dialog'

const when = (moment: string) =>
  new Date(moment).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })

/** The versions of the class: what changed in each, between any two, and the way back. */
export function Versions({ onClose }: { onClose: () => void }) {
  const { id, core, flush } = useClassEditor()
  const [trouble, setTrouble] = useState('')
  const versions = useQuery({
    queryKey: ['versions', id],
    gcTime: 0,
    queryFn: async () => {
      await flush()
      return answer(api.GET('/api/classes/{id}/versions', { params: { path: { id } } }))
    },
  })
  const [pair, setPair] = useState<[number, number] | null>(null)
  const between = useQuery({
    queryKey: ['versions', id, pair],
    enabled: pair !== null,
    queryFn: () =>
      answer(
        api.GET('/api/classes/{id}/versions/{from}/changes/{to}', {
          params: { path: { id, from: pair![0], to: pair![1] } },
        }),
      ),
  })
  const list = versions.data ?? []

  /** What was then comes back as a change of its own, so that undo takes it away again. */
  async function restore(version: number) {
    setTrouble('')
    try {
      // What is still on its way would meet the older class as if somebody else had written it.
      if (!(await core.flush())) return setTrouble('Your last change is not saved yet. Once it is, go back again.')
      const view = await answer(
        api.POST('/api/classes/{id}/versions/{version}/restore', { params: { path: { id, version } } }),
      )
      core.restored(view)
      onClose()
    } catch (error) {
      setTrouble(`That version could not be restored. ${troubleWords(error)}`)
    }
  }

  return (
    <Dialog onClose={onClose} title="Versions of this class" size="lg">
      {trouble && (
        <p className={css.trouble} role="alert">
          {trouble}
        </p>
      )}
      {list.length > 1 && (
        <p className={css.compare}>
          What changed from{' '}
          <select
            aria-label="From version"
            value={pair?.[0] ?? ''}
            onChange={(e) => setPair([Number(e.currentTarget.value), pair?.[1] ?? list[0]!.version])}
          >
            <option value="" disabled>
              …
            </option>
            {list.map((v) => (
              <option key={v.version} value={v.version}>
                {v.version}
              </option>
            ))}
          </select>{' '}
          to{' '}
          <select
            aria-label="To version"
            value={pair?.[1] ?? list[0]!.version}
            onChange={(e) => setPair([pair?.[0] ?? list.at(-1)!.version, Number(e.currentTarget.value)])}
          >
            {list.map((v) => (
              <option key={v.version} value={v.version}>
                {v.version}
              </option>
            ))}
          </select>
        </p>
      )}
      {pair && between.data && (
        <ul className={css.changes} aria-label="Changes between the two">
          {between.data.length === 0 ? <li>No changes.</li> : between.data.map((words, i) => <li key={i}>{words}</li>)}
        </ul>
      )}
      <ol className={css.versions}>
        {list.map((version, i) => (
          <li key={version.version}>
            <span>
              <strong>{when(version.savedAt)}</strong> version {version.version}
              {i === 0 && '· current'}
            </span>
            {i > 0 && (
              <Button size="xs" variant="default" onClick={() => void restore(version.version)}>
                Restore this version
              </Button>
            )}
            <ul className={css.changes}>
              {version.changes.map((words, n) => (
                <li key={n}>{words}</li>
              ))}
              {i === list.length - 1 && <li>first version</li>}
            </ul>
          </li>
        ))}
      </ol>
    </Dialog>
  )
}
