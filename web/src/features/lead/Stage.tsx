import { useEffect, useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { answer, api, troubleWords } from '../../api/client'
import { useClockFormat } from '../../api/queries'
import { FamilyMark } from '../../ui/FamilyMark'
import { Tape } from '../../ui/Tape'
import { clock, spoken, timeAt } from '../../ui/time'
import type { CommandKind } from '../../leading/fold'
import { addedBefore, endOf, limitOf, positionAt, sceneAt } from '../../leading/fold'
import type { Bells } from '../../leading/useBells'
import { useBells } from '../../leading/useBells'
import type { Lead } from '../../leading/useLead'
import { useMoment, useNow, useWakeLock } from '../../leading/useNow'
import { useTabName } from '../../ui/Page'
import css from './Stage.module.css'
import { StationCards } from './StationCards'

/** The screen that runs the class. */
export function Stage({ lead }: { lead: Lead }) {
  const { script, state, send } = lead
  const { scenes, cards, cues } = script
  const tick = useNow(state.phase === 'running')
  // A tap may be younger than the last tick.
  const position = positionAt(state, Math.max(tick, state.at), scenes)
  const end = endOf(scenes, state.added, scenes.length - 1)
  const over = state.phase === 'finished' || (state.phase === 'running' && position >= end)
  const phase = over ? 'finished' : state.phase
  const index = sceneAt(position, scenes, state.added)
  const scene = scenes[index]!
  // At a closed gate the clock stands and the next scene waits for a tap.
  const waiting = phase === 'running' && position >= limitOf(state, scenes)
  const left = (endOf(scenes, state.added, index) - position) / 1000
  const shown = phase === 'ready' ? scene.end - scene.start : Math.ceil(left)
  const bells = useBells(cues, scenes, state)
  const { turnOn, turnOff } = bells
  useWakeLock(phase === 'running')

  const main: { kind: CommandKind; name: string } =
    phase === 'ready'
      ? { kind: 'start', name: 'Start the class' }
      : waiting
        ? { kind: 'go', name: 'Go' }
        : phase === 'running'
          ? { kind: 'pause', name: 'Pause' }
          : { kind: 'resume', name: 'Go on' }

  useEffect(() => {
    const act = (kind: CommandKind) => {
      // Any key is the gesture that lets a browser make sound.
      if (kind === 'start') turnOn()
      send(kind)
    }
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return
      const target = event.target instanceof HTMLElement ? event.target : null
      if (target?.closest('input, select, textarea')) return
      // Space is start and pause, whatever was pressed last; Enter is for what has the focus.
      if (event.key === 'Enter' && target?.closest('a, button')) return
      const key = event.key.toLowerCase()
      if (key === ' ' || key === 'k') {
        if (!over) act(main.kind)
      } else if (key === 'arrowright' || key === 'n') act(waiting ? 'go' : 'skip')
      else if (key === 'arrowleft' || key === 'b') act('back')
      else if (key === '+' || key === 't') act('addTen')
      else if (key === 'm') (bells.on ? turnOff : turnOn)()
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [main.kind, over, waiting, send, bells.on, turnOn, turnOff])

  useTabName(`Leading ${script.title}`)

  const tape = useMemo(() => {
    const blocks: { name: string; start: number; end: number }[] = []
    const spans = scenes.map((s, i) => {
      const shift = addedBefore(state.added, i) / 1000
      const span = { start: s.start + shift, end: endOf(scenes, state.added, i) / 1000, kind: s.kind, side: s.side }
      const last = blocks.at(-1)
      if (last && scenes[i - 1]?.block === s.block) last.end = span.end
      else blocks.push({ name: s.blockName, start: span.start, end: span.end })
      return { ...span, families: s.cards.map((card) => cards[card]!.family) }
    })
    return { spans, blocks }
  }, [scenes, cards, state.added])

  const single = scene.cards.length === 1 ? cards[scene.cards[0]!] : undefined
  const said = over ? 'The class is done.' : [scene.headline, scene.target, scene.sideWords].filter(Boolean).join(', ')

  return (
    <div className={css.stage} data-phase={phase}>
      <header className={css.top}>
        <Link to={`/classes/${lead.classId}/on/${lead.session}/build`} className={css.back}>
          ‹ {script.title}
        </Link>
        <span className={css.round}>
          {over ? 'Done' : scene.blockName}
          {!over && scene.round && ` · ${scene.round}`}
        </span>
        <Trouble lead={lead} over={over} bells={bells} />
        {!over && (
          <span className={css.left}>
            <b data-testid="class-left" aria-label={`${spoken((end - position) / 1000)} left in the class`}>
              {clock(Math.ceil((end - position) / 1000))}
            </b>{' '}
            left
          </span>
        )}
        <Hours endsAt={lead.endsAt} left={over ? 0 : end - position} started={phase !== 'ready'} over={over} />
      </header>

      <main className={css.floor} data-cards={scene.cards.length > 1 ? 'many' : 'one'}>
        <section className={css.now} aria-label="Now">
          {over ? (
            <Done send={send} lead={lead} />
          ) : (
            <>
              <h1 className={css.headline} data-kind={scene.kind}>
                {single && scene.kind === 'work' && <FamilyMark family={single.family} size={44} />}
                {scene.headline}
              </h1>
              <p className={css.target}>
                {scene.target}
                {scene.sideWords && (
                  <span className={css.side} data-testid="side">
                    {scene.sideWords}
                  </span>
                )}
              </p>
              {waiting && <p className={css.gate}>Ready when you are: press Go.</p>}
              {scene.mirrorSide && <p className={css.mirror}>{scene.mirrorSide}</p>}
              {scene.say && <p className={css.say}>Say: {scene.say}</p>}
              {phase === 'paused' && (
                <p className={css.paused} role="status">
                  PAUSED
                </p>
              )}
              <div
                className={css.clock}
                data-testid="clock"
                data-last={phase === 'running' && left <= 3 && scene.kind === 'work'}
                role="timer"
                aria-label={spoken(shown)}
              >
                {shown < 60 ? shown : clock(shown)}
              </div>
              <p className={css.next} data-testid="next">
                Next: {scene.next}
              </p>
              {script.focus && <p className={css.focus}>Today: {script.focus}</p>}
            </>
          )}
          <p className="hidden" aria-live="assertive">
            {said}
          </p>
        </section>
        {!over && <StationCards cards={scene.cards.map((card) => cards[card]!)} session={lead.session} />}
      </main>

      <footer className={css.bottom}>
        <div className={css.tape}>
          <Tape spans={tape.spans} blocks={tape.blocks} slot={script.slot} now={position / 1000} dark />
        </div>
        {!over && (
          <div className={css.controls}>
            <Control name="Back" hint="←" off={phase === 'ready'} onPress={() => send('back')} />
            <Control
              name={main.name}
              hint="space"
              big
              onPress={() => {
                if (main.kind === 'start') turnOn()
                send(main.kind)
              }}
            />
            <Control name="Skip" hint="→" off={phase === 'ready'} onPress={() => send(waiting ? 'go' : 'skip')} />
            <Control name="Add 10 s" hint="+" off={phase === 'ready'} onPress={() => send('addTen')} />
            <span className={css.apart}>
              <Control name="End class" off={phase === 'ready'} onPress={() => send('finish')} />
            </span>
          </div>
        )}
      </footer>
    </div>
  )
}

interface ControlProps {
  name: string
  hint?: string
  big?: boolean
  off?: boolean
  onPress: () => void
}

function Control({ name, hint, big, off, onPress }: ControlProps) {
  return (
    <button
      type="button"
      className={big ? css.big : css.control}
      disabled={off}
      onClick={(event) => {
        onPress()
        // After a tap the space bar is for pausing again, not for this button.
        if (event.detail > 0) event.currentTarget.blur()
      }}
    >
      {name}
      {hint && (
        <kbd className={css.key} aria-hidden="true">
          {hint}
        </kbd>
      )}
    </button>
  )
}

function Done({ send, lead }: { send: (kind: CommandKind) => void; lead: Lead }) {
  const navigate = useNavigate()
  const [trouble, setTrouble] = useState('')

  /** Another occasion of the same class, from now. */
  async function again() {
    setTrouble('')
    try {
      const before = await answer(api.GET('/api/sessions/{id}', { params: { path: { id: lead.session } } }))
      const day = new Date()
      const two = (n: number) => String(n).padStart(2, '0')
      const startsAt = `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}T${two(day.getHours())}:${two(day.getMinutes())}`
      const next = await answer(
        api.POST('/api/classes/{id}/sessions', {
          params: { path: { id: lead.classId } },
          body: { booking: { ...before.booking, startsAt } },
        }),
      )
      void navigate(`/lead/${next.id}`)
    } catch (error) {
      setTrouble(troubleWords(error))
    }
  }

  return (
    <div className={css.done}>
      <h1 className={css.headline}>Done</h1>
      <p>Now, while you still know: who came, and what did they do?</p>
      {trouble && <p role="alert">{trouble}</p>}
      <div className={css.controls}>
        <Link to={`/classes/${lead.classId}/on/${lead.session}/log`} className={css.big}>
          Write the log
        </Link>
        <Control name="Not done: step back in" onPress={() => send('back')} />
        <Control name="Lead it again from the top" onPress={() => void again()} />
      </div>
    </div>
  )
}

/** The time of day, when the class is over as it runs now, and how that stands to the slot. */
function Hours({
  endsAt,
  left,
  started,
  over,
}: {
  endsAt: number | null
  left: number
  started: boolean
  over: boolean
}) {
  const now = useMoment()
  const format = useClockFormat()
  const ends = now + left
  const behind = endsAt === null ? null : Math.round((ends - endsAt) / 60_000)
  return (
    <span className={css.hours}>
      <b>{timeAt(now, format)}</b>
      {!over && endsAt !== null && <span>booked until {timeAt(endsAt, format)}</span>}
      {!over && started && (
        <span data-testid="ends">
          ends {timeAt(ends, format)}
          {behind === null || Math.abs(behind) > 120
            ? ''
            : behind > 0
              ? `, ${behind} min behind`
              : behind < 0
                ? `, ${-behind} min early`
                : ', on time'}
        </span>
      )}
    </span>
  )
}

interface TroubleProps {
  lead: Lead
  over: boolean
  bells: Bells
}

/** What the instructor must know is not working: sound, or the server. */
function Trouble({ lead, over, bells }: TroubleProps) {
  return (
    <span className={css.trouble}>
      {!lead.connected && (
        <span className={css.warning} role="status">
          No server. The class goes on
          {lead.unsent > 0 && `; ${lead.unsent === 1 ? '1 tap waits' : `${lead.unsent} taps wait`} to be sent`}.
        </span>
      )}
      {lead.trouble && lead.connected && (
        <span className={css.warning} role="alert">
          A tap was not taken. {lead.trouble}
        </span>
      )}
      {over ? null : bells.on ? (
        <button type="button" className={css.sound} onClick={bells.turnOff}>
          Sound is on
        </button>
      ) : (
        <button type="button" className={css.soundOff} onClick={bells.turnOn}>
          {bells.waits ? 'Sound was on: tap anywhere to ring again' : 'Sound is off: turn it on'}
        </button>
      )}
    </span>
  )
}
