import { Button, Textarea, TextInput } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, useSyncExternalStore } from 'react'
import { Link, useNavigate } from 'react-router'
import { useStore } from 'zustand'
import type { Plan } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useClockFormat } from '../../api/queries'
import { withField } from '../../plan/edit'
import type { Saved } from '../../save/SaveNote'
import { SaveNote } from '../../save/SaveNote'
import { dayAndTime } from '../../ui/time'
import { Pick } from '../build/Inputs'
import { counts } from '../build/words'
import { NumberField } from '../../ui/NumberField'
import { DeskOfSession } from '../desk/DeskList'
import { useClassEditor } from '../editor/context'
import css from './Brief.module.css'
import { Expected } from '../room/Expected'
import { BriefFields } from './BriefFields'

export function BriefPage() {
  const { plan, booking, change, core, session, evaluation } = useClassEditor()
  const saver = session && core.bookingSaver(session.id)
  const set = <K extends keyof Plan>(key: K, value: Plan[K] | undefined) =>
    change(String(key), (draft) => ({ ...draft, plan: withField(draft.plan, key, value) }))
  return (
    <main className={css.inClass}>
      <BriefFields
        brief={{ title: plan.title, slotMinutes: plan.slotMinutes, aim: plan.aim ?? 'conditioning', booking }}
        booked={session !== null}
        trouble={<BookingTrouble />}
        onChange={(label, { booking: nextBooking, ...rest }) =>
          change(label, (draft) => ({
            plan: { ...draft.plan, ...rest },
            booking: nextBooking ?? draft.booking,
          }))
        }
      >
        {session && (
          <Expected
            booking={booking}
            onChange={(next) => change('who comes', (draft) => ({ ...draft, booking: next }))}
          />
        )}
        {session && <CarriedOver session={session.id} />}
        {session && <DeskOfSession session={session.id} />}
        {evaluation?.titleNote && (
          <p role="status" className={css.refused}>
            {evaluation.titleNote}
          </p>
        )}
        {evaluation?.announcement && (
          <p className={css.announced}>
            To announce it: <b>{evaluation.announcement}</b>
          </p>
        )}
        <details className={css.how}>
          <summary>How you teach this class</summary>
          <Leading />
        </details>
        <div className={css.row}>
          <TextInput
            label="Cue of the day"
            placeholder="one thing to come back to all class"
            maxLength={120}
            value={plan.focus ?? ''}
            onChange={(event) => set('focus', event.currentTarget.value || undefined)}
          />
          <TextInput
            label="What people bring or wear"
            maxLength={400}
            value={plan.bring ?? ''}
            onChange={(event) => set('bring', event.currentTarget.value || undefined)}
          />
        </div>
        <Textarea
          label="Your notes (only you see them)"
          autosize
          minRows={3}
          maxLength={4000}
          value={plan.notes ?? ''}
          onChange={(event) => {
            const notes = event.currentTarget.value
            change('notes', (draft) => ({ ...draft, plan: { ...draft.plan, notes } }))
          }}
        />
      </BriefFields>
      <div className={css.actions}>
        <Button component={Link} to="../build" relative="path">
          Build the class
        </Button>
        <SaveNote saver={core.planSaver} />
        {saver && <BookingNote saver={saver} />}
      </div>
      <Occasions />
    </main>
  )
}

/** Why the booking could not be saved, such as a start that the clocks pass over. */
function BookingTrouble() {
  const { core, session } = useClassEditor()
  const saver = session && core.bookingSaver(session.id)
  return saver ? <Refusal saver={saver} /> : null
}

function Refusal({ saver }: { saver: Saved }) {
  const { state, words } = useSyncExternalStore(saver.store.subscribe, saver.store.getState)
  return state === 'refused' ? (
    <p role="alert" className={css.refused}>
      {words}
    </p>
  ) : null
}

/** The booking is saved beside the class; it speaks up only where that fails. */
function BookingNote({ saver }: { saver: Saved }) {
  const { state } = useSyncExternalStore(saver.store.subscribe, saver.store.getState)
  return state === 'saved' || state === 'saving' || state === 'refused' ? null : <SaveNote saver={saver} />
}

/** When this class is and was held; one class, many occasions. */
function Occasions() {
  const { id, session, sessions, core, booking } = useClassEditor()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const format = useClockFormat()
  const bookings = useStore(core.store, (s) => s.now.bookings)
  const [trouble, setTrouble] = useState('')

  const told = useQuery({
    queryKey: ['class', id, 'dates'],
    queryFn: () => answer(api.GET('/api/classes/{id}/dates', { params: { path: { id } } })),
  }).data

  async function another() {
    setTrouble('')
    try {
      const startsAt = booking.startsAt ? weekAfter(booking.startsAt) : null
      const added = await answer(
        api.POST('/api/classes/{id}/sessions', {
          params: { path: { id } },
          body: { booking: { ...booking, startsAt } },
        }),
      )
      await queries.invalidateQueries({ queryKey: ['class', id] })
      void queries.invalidateQueries({ queryKey: ['sessions'] })
      void queries.invalidateQueries({ queryKey: ['classes'] })
      void navigate(`/classes/${id}/on/${added.id}/brief`)
    } catch (error) {
      setTrouble(troubleWords(error))
    }
  }

  return (
    <section className={css.occasions} aria-label="Class dates">
      <h2>Class dates</h2>
      <ul>
        {sessions.map((s) => (
          <li key={s.id}>
            <Link to={`/classes/${id}/on/${s.id}/${s.held ? 'log' : 'brief'}`} aria-current={s.id === session?.id}>
              {dayAndTime(bookings[s.id]?.startsAt, format)}
            </Link>
            {s.held &&
              (told ? `, led: ${told.find((date) => date.session === s.id)?.words ?? 'not logged yet'}` : ', led')}
          </li>
        ))}
      </ul>
      <Button size="xs" variant="default" onClick={() => void another()}>
        Add a date
      </Button>
      {trouble && <p role="alert">{trouble}</p>}
    </section>
  )
}

/** The same time a week later. */
function weekAfter(startsAt: string): string {
  const day = new Date(`${startsAt.slice(0, 10)}T12:00:00Z`)
  day.setUTCDate(day.getUTCDate() + 7)
  return `${day.toISOString().slice(0, 10)}${startsAt.slice(10, 16)}`
}

/** How the class is led: what its blocks follow unless they say otherwise. */
function Leading() {
  const { plan, change } = useClassEditor()
  const set = <K extends keyof Plan>(key: K, value: Plan[K] | undefined) =>
    change(String(key), (draft) => ({ ...draft, plan: withField(draft.plan, key, value) }))
  return (
    <div className={css.led}>
      <Pick
        label="Start on"
        words={[
          ['left', 'left'],
          ['right', 'right'],
        ]}
        value={plan.startSide ?? 'left'}
        onChange={(v) => set('startSide', v as Plan['startSide'])}
      />
      <Pick
        label="How you stand"
        width={180}
        words={[
          ['mirror', 'facing them (mirror)'],
          ['same', 'facing the same way as them'],
        ]}
        value={plan.facing ?? 'mirror'}
        onChange={(v) => set('facing', v as Plan['facing'])}
      />
      <Pick
        label="Counting reps aloud"
        width={150}
        words={counts}
        value={plan.count ?? 'down'}
        onChange={(v) => set('count', v as Plan['count'])}
      />
      <NumberField
        label="Get-ready time before each block"
        width={130}
        max={120}
        value={plan.leadInSeconds}
        placeholder="10 s"
        onChange={(v) => set('leadInSeconds', v)}
      />
      <NumberField
        label="Time to switch sides"
        width={120}
        step={1}
        max={60}
        value={plan.switchSeconds}
        placeholder="3 s"
        onChange={(v) => set('switchSeconds', v)}
      />
    </div>
  )
}

/** What the class before left to be done. */
function CarriedOver({ session }: { session: string }) {
  const format = useClockFormat()
  const from = useQuery({
    queryKey: ['carried-over', session],
    queryFn: () => answer(api.GET('/api/sessions/{id}/carried-over', { params: { path: { id: session } } })),
  }).data
  if (!from?.text) return null
  return (
    <p className={css.announced}>
      Carried over from {from.title}, {dayAndTime(from.startsAt, format)}: <b>{from.text}</b>
    </p>
  )
}
