import { Checkbox } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { answer, api, troubleWords } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import { Page } from '../../ui/Page'
import css from './Desk.module.css'
import { DeskClassCard } from './DeskList'
import { useDesk } from './useDesk'

/** The lists of the booking desk: which class each is of, and whom nobody knows yet. */
export function DeskPage() {
  const desk = useDesk()
  const queries = useQueryClient()
  const [trouble, setTrouble] = useState('')
  const [wanted, setWanted] = useState<boolean | null>(null)
  const view = desk.data

  async function simulate(on: boolean) {
    setTrouble('')
    setWanted(on)
    try {
      await answer(api.PUT('/api/desk/simulated', { body: { on } }))
    } catch (error) {
      setTrouble(troubleWords(error))
    }
    await queries.invalidateQueries({ queryKey: ['desk'] })
    setWanted(null)
  }

  return (
    <Page name="Booking desk" narrow>
      <p>
        <Link to="/people">People</Link>
      </p>
      <h1>From the booking desk</h1>
      <p className={css.soft}>
        A booking program that writes its lists as calendar files with attendees (.ics) into this folder is followed:
        who books is expected, who cancels is not. A file that was read is removed, for it names people; what it said
        goes a week after the class.
      </p>
      {view && (
        <p className={css.folder}>
          <code>{view.folder}</code>
        </p>
      )}
      {desk.isError && <ErrorNote title={`The desk cannot be looked at. ${troubleWords(desk.error)}`} />}
      {trouble && (
        <p role="alert" className={css.trouble}>
          {trouble}
        </p>
      )}
      {view && typeof view.simulated === 'boolean' && (
        <Checkbox
          mb="md"
          label="A simulated desk takes bookings for the next class"
          checked={wanted ?? view.simulated}
          onChange={(event) => void simulate(event.currentTarget.checked)}
        />
      )}
      {(view?.faults.length ?? 0) > 0 && (
        <section aria-label="Files that cannot be read" role="alert" className={css.trouble}>
          <p>These files cannot be read. They stay where they are: have them written again, or remove them.</p>
          <ul>
            {view!.faults.map((fault) => (
              <li key={fault.file}>
                {fault.file}: {fault.why}
              </li>
            ))}
          </ul>
        </section>
      )}
      {view?.classes.length === 0 && <p>Nothing has come from a desk yet.</p>}
      {view?.classes.map((of) => (
        <DeskClassCard key={of.uid} of={of} choices={view.choices} />
      ))}
    </Page>
  )
}
