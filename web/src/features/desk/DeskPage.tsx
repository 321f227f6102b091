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
      <h1>Booking desk</h1>
      <p className={css.soft}>
        If your booking system saves calendar files with attendees (.ics) in this folder, Halterion follows them: people
        who book are expected, people who cancel are not. Files are deleted once read because they name people; the
        names are deleted a week after the class.
      </p>
      {view && (
        <p className={css.folder}>
          <code>{view.folder}</code>
        </p>
      )}
      {desk.isError && <ErrorNote title={`The booking desk could not be loaded. ${troubleWords(desk.error)}`} />}
      {trouble && (
        <p role="alert" className={css.trouble}>
          {trouble}
        </p>
      )}
      {view && typeof view.simulated === 'boolean' && (
        <Checkbox
          mb="md"
          label="Try it: simulate bookings for the next class"
          checked={wanted ?? view.simulated}
          onChange={(event) => void simulate(event.currentTarget.checked)}
        />
      )}
      {(view?.faults.length ?? 0) > 0 && (
        <section aria-label="Files that cannot be read" role="alert" className={css.trouble}>
          <p>These files could not be read and were left in the folder. Export them again or delete them.</p>
          <ul>
            {view!.faults.map((fault) => (
              <li key={fault.file}>
                {fault.file}: {fault.why}
              </li>
            ))}
          </ul>
        </section>
      )}
      {view?.classes.length === 0 && <p>No bookings yet.</p>}
      {view?.classes.map((of) => (
        <DeskClassCard key={of.uid} of={of} choices={view.choices} />
      ))}
    </Page>
  )
}
