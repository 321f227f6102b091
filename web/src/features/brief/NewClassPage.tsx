import { Button, NativeSelect } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import type { FormEvent } from 'react'
import { useRef, useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import type { Plan } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { fetchClass, useClasses } from '../../api/queries'
import { ErrorNote } from '../../ui/ErrorNote'
import { Page } from '../../ui/Page'
import { DraftCards } from '../draft/DraftCards'
import { useDrafts } from '../draft/useDrafts'
import type { WishList } from '../draft/Wishes'
import { asked as wished, usualWishes, Wishes } from '../draft/Wishes'
import css from './Brief.module.css'
import type { Brief } from './BriefFields'
import { BriefFields } from './BriefFields'

/** Today, or a day after it, as the calendar here writes it. */
function localDay(after = 0) {
  const day = new Date()
  day.setDate(day.getDate() + after)
  return [day.getFullYear(), day.getMonth() + 1, day.getDate()].map((n) => String(n).padStart(2, '0')).join('-')
}

const fresh = (): Brief => ({
  title: 'New class',
  slotMinutes: 45,
  aim: 'conditioning',
  booking: {
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'Etc/UTC',
    headCount: 12,
    startsAt: `${localDay(1)}T18:00`,
  },
})

/** A title of its own for a copy: the same with the next number that is free. */
function apart(title: string, taken: Set<string>): string {
  const base = title.replace(/, \d{1,3}$/, '').slice(0, 114)
  for (let n = 2; ; n++) if (!taken.has(`${base}, ${n}`)) return `${base}, ${n}`
}

/** A class begins with its brief: from nothing, or as a copy of another. */
export function NewClassPage() {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [search] = useSearchParams()
  const classes = useClasses('', 500).data?.classes ?? []
  const [copyOf, setCopyOf] = useState('')
  const [brief, setBrief] = useState(fresh)
  const [problem, setProblem] = useState<string | null>(null)
  const [asked, setAsked] = useState(search.get('copy') ?? '')
  const [wishes, setWishes] = useState<WishList>(usualWishes)
  const drafts = useDrafts()

  async function copyFrom(id: string) {
    setCopyOf(id)
    if (id === '') return
    try {
      const { plan, sessions } = await fetchClass(id)
      const booking = sessions.at(-1)?.booking
      setBrief((b) => ({
        title: apart(plan.title, new Set(classes.map((c) => c.title))),
        slotMinutes: plan.slotMinutes,
        aim: plan.aim ?? 'conditioning',
        booking: {
          ...b.booking,
          headCount: booking?.headCount ?? b.booking.headCount,
          startsAt: `${localDay(1)}T${booking?.startsAt?.slice(11, 16) ?? '18:00'}`,
        },
      }))
    } catch (error) {
      setProblem(`That class could not be copied. ${troubleWords(error)}`)
    }
  }

  // A copy asked for in the address is filled in once the list is there to choose from.
  if (asked !== '' && classes.some((c) => c.id === asked)) {
    setAsked('')
    void copyFrom(asked)
  }

  function draft() {
    if (brief.title.trim() === '') return
    const { title, slotMinutes, aim, booking } = brief
    void drafts.ask({
      brief: { title: title.trim(), slotMinutes, aim, ...wished(wishes) },
      booking,
      withoutKit: wishes.withoutKit,
      notLastTime: wishes.notLastTime,
    })
  }

  /** A class that is sent again, because its answer was lost, or by a second click, is made once. */
  const sent = useRef<{ of: unknown; change: string } | null>(null)

  async function create(drafted?: Plan) {
    if (brief.title.trim() === '') return
    try {
      // A draft is taken as it was drafted, whatever has been typed since.
      const from = drafted
        ? { plan: drafted, title: drafted.title, slotMinutes: drafted.slotMinutes, aim: drafted.aim ?? brief.aim }
        : copyOf === ''
          ? {}
          : { copyOf }
      const of = drafted ?? brief
      if (sent.current?.of !== of) sent.current = { of, change: crypto.randomUUID() }
      const made = await answer(
        api.POST('/api/classes', {
          headers: { 'Change-Id': sent.current.change },
          body: { ...brief, ...from },
        }),
      )
      void queries.invalidateQueries({ queryKey: ['sessions'] })
      await queries.invalidateQueries({ queryKey: ['classes'] })
      void navigate(`/classes/${made.id}/build`)
    } catch (error) {
      setProblem(`The class was not created. Nothing you typed is lost. ${troubleWords(error)}`)
    }
  }

  return (
    <Page name="New class">
      <h1>New class</h1>
      <form
        className={css.form}
        onSubmit={(event: FormEvent) => {
          event.preventDefault()
          void create()
        }}
      >
        <BriefFields fresh brief={brief} onChange={(_, next) => setBrief((b) => ({ ...b, ...next }))}>
          <NativeSelect
            label="Start from"
            value={copyOf}
            onChange={(event) => void copyFrom(event.currentTarget.value)}
          >
            <option value="">a blank class</option>
            {classes.map((c) => (
              <option key={c.id} value={c.id}>
                a copy of “{c.title}”
              </option>
            ))}
          </NativeSelect>
        </BriefFields>
        {copyOf === '' && <Wishes wishes={wishes} onChange={(next) => setWishes((w) => ({ ...w, ...next }))} />}
        <div className={css.actions}>
          {copyOf === '' && <Button onClick={draft}>Draft it</Button>}
          <Button type="submit" variant={copyOf === '' ? 'default' : 'filled'}>
            Create and build
          </Button>
          <Link to="/">Cancel</Link>
        </div>
      </form>
      {problem && <ErrorNote title={problem} />}
      {copyOf === '' && (
        <DraftCards
          drafting={drafts}
          onTake={(taken) => void create(taken.plan)}
          onAnother={draft}
          onStop={drafts.stop}
        />
      )}
    </Page>
  )
}
