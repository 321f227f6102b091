import { Button, FileButton } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'

/** How long talk and change-overs really take, from the classes led last. */
export function RealPace() {
  const paces = useQuery({ queryKey: ['pace'], queryFn: () => answer(api.GET('/api/pace')) }).data
  if (!paces) return null
  if (paces.length === 0)
    return <p>Once you have led three classes, this says how long changeovers and talk really take with you.</p>
  return (
    <>
      <p>As you really are, learnt from the classes you led last:</p>
      <ul>
        {paces.map((pace) => (
          <li key={pace.of}>
            {pace.words}: {pace.factor} times {pace.of === 'talk' ? 'what was planned' : 'the brisk time'}, from{' '}
            {pace.classes} classes
          </li>
        ))}
      </ul>
    </>
  )
}

/** Everything taken along in one file, and brought in from one. */
export function DataSettings() {
  const queries = useQueryClient()
  const [chosen, setChosen] = useState<File | null>(null)
  const [busy, setBusy] = useState(false)
  const [told, setTold] = useState('')
  const [trouble, setTrouble] = useState('')

  async function bring(file: File) {
    setBusy(true)
    setTrouble('')
    try {
      const response = await fetch('/api/everything', {
        method: 'POST',
        headers: { 'Content-Type': 'application/zip' },
        body: file,
      })
      const body = (await response.json()) as Partial<Schemas['BroughtIn']> & { title?: string; detail?: string }
      if (!response.ok) throw new Error([body.title, body.detail].filter(Boolean).join(' '))
      setTold(
        body.aside
          ? `Everything was brought in. What was here before is kept aside as ${body.aside}.`
          : 'Everything was brought in.',
      )
      setChosen(null)
      await queries.invalidateQueries()
    } catch (error) {
      setTrouble(error instanceof Error && error.message !== '' ? error.message : troubleWords(error))
    } finally {
      setBusy(false)
    }
  }

  return (
    <section aria-label="Your data">
      <p>
        One file with all classes, series, people, logs, moves, rooms and settings, in formats that other programs read
        too. It holds what you keep of people’s bodies: keep it as you keep that.
      </p>
      <p>
        <Button component="a" href="/api/everything" download variant="default">
          Take everything along
        </Button>{' '}
        <Button component="a" href="/api/log.csv" download variant="default">
          Logs for a spreadsheet
        </Button>{' '}
        <FileButton accept=".zip,application/zip" onChange={setChosen}>
          {(props) => (
            <Button variant="default" {...props}>
              Bring everything in …
            </Button>
          )}
        </FileButton>
      </p>
      {chosen && (
        <p role="status">
          {chosen.name} takes the place of all that is here; what is here is kept aside.{' '}
          <Button loading={busy} onClick={() => void bring(chosen)}>
            Bring it in
          </Button>{' '}
          <Button variant="subtle" onClick={() => setChosen(null)}>
            Cancel
          </Button>
        </p>
      )}
      {told && <p role="status">{told}</p>}
      {trouble && <p role="alert">{trouble}</p>}
    </section>
  )
}
