import { Button } from '@mantine/core'
import { useEffect, useState } from 'react'
import type { Schemas } from '../api/client'
import { answer, api, troubleWords } from '../api/client'
import { Page } from '../ui/Page'
import css from './DataTrouble.module.css'

const LOOK_AGAIN = 3000

/** In place of every screen while the data cannot be opened: what is wrong, and the one act that puts it right. */
export function DataTrouble({ trouble }: { trouble: Schemas['DataTroubleView'] }) {
  const [busy, setBusy] = useState(false)
  const [failed, setFailed] = useState('')
  const [restored, setRestored] = useState<Schemas['RestoredCopy'] | null>(null)

  // It may be put right by the command too: then the screens come back by themselves.
  useEffect(() => {
    if (restored) return
    const timer = setInterval(() => {
      fetch('/api/health', { cache: 'no-store' }).then(
        (response) => response.ok && window.location.reload(),
        () => undefined,
      )
    }, LOOK_AGAIN)
    return () => clearInterval(timer)
  }, [restored])

  async function restore(copy: string) {
    setBusy(true)
    setFailed('')
    try {
      setRestored(await answer(api.POST('/api/data/restore', { body: { copy } })))
    } catch (error) {
      setFailed(troubleWords(error))
    } finally {
      setBusy(false)
    }
  }

  if (restored) {
    return (
      <Page name="Data restored" narrow>
        <h1>Your data is back</h1>
        {restored.aside && <p>The file that could not be opened is kept as {restored.aside}.</p>}
        <p>What was typed since the copy was made and is still kept in this browser is saved again now.</p>
        <Button onClick={() => window.location.reload()}>Carry on</Button>
      </Page>
    )
  }
  return (
    <Page name="The data cannot be opened" narrow>
      <div role="alert">
        <h1>The data cannot be opened</h1>
        <p>{trouble.why}</p>
        {trouble.copy ? (
          <p>The newest good copy is {trouble.copy}. What was saved after it was made is not in it.</p>
        ) : (
          <p>There is no good copy. Ask someone who knows this machine before you change anything in the folder.</p>
        )}
        {failed && <p className={css.failed}>{failed}</p>}
      </div>
      {trouble.copy && (
        <>
          <Button loading={busy} onClick={() => void restore(trouble.copy!)}>
            Restore {trouble.copy}
          </Button>
          <p className={css.or}>
            What is there now is kept beside the copies. Or stop Halterion and run <code>{trouble.command}</code>
          </p>
        </>
      )}
    </Page>
  )
}
