import { useEffect, useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { answer, api, troubleWords } from '../../api/client'
import { useClockFormat } from '../../api/queries'
import { FamilyMark } from '../../ui/FamilyMark'
import { Tape } from '../../ui/Tape'
import { clock as clockWords, spoken, timeAt } from '../../ui/time'
import type { CommandKind } from '../../leading/core/fold'
import { addedBefore, endOf } from '../../leading/core/fold'
import type { Bells } from '../../leading/useBells'
import { useBells } from '../../leading/useBells'
import { useBeat } from '../../leading/useBeat'
import { mainAct, useClock } from '../../leading/useClock'
import type { Lead } from '../../leading/useLead'
import { useMoment, useWakeLock } from '../../leading/useNow'
import { useVoice } from '../../leading/useVoice'
import { useWays } from '../../leading/useWays'
import { device } from '../../save/kept'
import { useTabName } from '../../ui/Page'
import { GoTo } from './GoTo'
import { Hearts } from './Hearts'
import { KeySheet } from './KeySheet'
import { PeoplePanel } from './PeoplePanel'
import { Screens } from './Screens'
import css from './Stage.module.css'
import { StationCards } from './StationCards'
import { VoicePanel } from './VoicePanel'
import { WaysBar } from './WaysBar'
import { useWho, WhoNeeds } from './WhoNeeds'

/** What is open over the stage. */
type Panel = 'people' | 'voice' | 'screens' | 'keys' | null

/** The screen that runs the class. */
export function Stage({ lead }: { lead: Lead }) {
  const { script, state, send } = lead
  const { scenes, cards } = script
  const clock = useClock(lead)
  const { position, end, over, phase, index, scene, waiting, left, shown } = clock
  const [panel, setPanel] = useState<Panel>(null)
  const bells = useBells(script, state)
  const voice = useVoice(script.calls, scenes, state, false)
  const single = scene.cards.length === 1 ? cards[scene.cards[0]!] : undefined
  const beat = useBeat(lead.session, scene, single?.id ?? null, clock, voice.speaking)
  const ways = useWays(lead, clock)
  const who = useWho(lead.session)
  const { turnOn, turnOff } = bells
  useWakeLock(phase === 'running')
  const main = mainAct(clock)

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
      if (event.key === 'Escape') {
        setPanel(null)
        return
      }
      // Space is start and pause, whatever was pressed last; Enter is for what has the focus.
      if (event.key === 'Enter' && target?.closest('a, button')) return
      const key = event.key.toLowerCase()
      const way = ways.found?.ways[Number(key) - 1]
      if (key === ' ' || key === 'k') {
        if (!over) act(main.kind)
      } else if (key === 'arrowright' || key === 'n') act(waiting ? 'go' : 'skip')
      else if (key === 'arrowleft' || key === 'b') act('back')
      else if (key === '+' || key === 't') act('addTen')
      else if (key === '-') act('lessTen')
      else if (key === 'm') (bells.on ? turnOff : turnOn)()
      else if (key === 'v') voice.set({ ...voice.settings, on: !voice.settings.on })
      else if (key === 'u') ways.undo()
      else if (key === 'a') setPanel('people')
      else if (key === '?') setPanel('keys')
      else if (key === 'f') void document.documentElement.requestFullscreen?.()
      else if (way) ways.take(way)
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [main.kind, over, waiting, send, bells.on, turnOn, turnOff, ways, voice])

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
    return { spans: spans.filter((span) => span.end > span.start), blocks: blocks.filter((b) => b.end > b.start) }
  }, [scenes, cards, state.added])

  const said = over ? 'The class is done.' : [scene.headline, scene.target, scene.sideWords].filter(Boolean).join(', ')
  const elsewhere = state.leader !== null && state.leader !== device && phase !== 'ready' && !over

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
        <Trouble lead={lead} over={over} bells={bells} elsewhere={elsewhere} />
        {!over && (
          <span className={css.left}>
            <b data-testid="class-left" aria-label={`${spoken((end - position) / 1000)} left in the class`}>
              {clockWords(Math.ceil((end - position) / 1000))}
            </b>{' '}
            left
          </span>
        )}
        <Hours
          endsAt={lead.endsAt}
          left={over ? 0 : end - position}
          started={phase !== 'ready'}
          over={over}
          behind={ways.behind}
        />
      </header>

      <main className={css.floor} tabIndex={0} data-cards={scene.cards.length > 1 ? 'many' : 'one'}>
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
                {shown < 60 ? shown : clockWords(shown)}
              </div>
              <p className={css.next} data-testid="next">
                Next: {scene.next}
              </p>
              {script.focus && <p className={css.focus}>Today: {script.focus}</p>}
              <WhoNeeds who={who} cards={scene.cards.map((card) => cards[card]!)} />
            </>
          )}
          <p className="hidden" aria-live="assertive">
            {said}
          </p>
        </section>
        {!over && (
          <StationCards
            cards={scene.cards.map((card) => cards[card]!)}
            lead={lead}
            moving={phase !== 'ready' && (scene.kind === 'work' || scene.kind === 'talk')}
          />
        )}
      </main>

      {voice.settings.on && voice.caption && phase === 'running' && (
        <p className={css.caption} data-testid="caption">
          {voice.caption.text}
        </p>
      )}
      {!over && <Hearts who={who.data ?? []} />}
      {!over && <WaysBar ways={ways} />}

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
            <Control name="−10 s" hint="-" off={phase === 'ready'} onPress={() => send('lessTen')} />
            <Control name="Add 10 s" hint="+" off={phase === 'ready'} onPress={() => send('addTen')} />
            <GoTo
              scenes={scenes}
              added={state.added}
              off={phase === 'ready'}
              onGo={(to) => send('jump', { scene: to })}
            />
            <span className={css.apart}>
              <Control name="People" hint="a" onPress={() => setPanel(panel === 'people' ? null : 'people')} />
              <Control name="Voice" hint="v" onPress={() => setPanel(panel === 'voice' ? null : 'voice')} />
              <Control name="Screens" onPress={() => setPanel(panel === 'screens' ? null : 'screens')} />
              <Control name="Keys" hint="?" onPress={() => setPanel(panel === 'keys' ? null : 'keys')} />
              <EndClass off={phase === 'ready'} onEnd={() => send('finish')} />
            </span>
          </div>
        )}
      </footer>
      {panel === 'people' && (
        <PeoplePanel lead={lead} who={who.data ?? []} scene={index} onClose={() => setPanel(null)} />
      )}
      {panel === 'voice' && (
        <VoicePanel session={lead.session} voice={voice} beat={beat} onClose={() => setPanel(null)} />
      )}
      {panel === 'screens' && <Screens session={lead.session} onClose={() => setPanel(null)} />}
      {panel === 'keys' && <KeySheet onClose={() => setPanel(null)} />}
    </div>
  )
}

/** Ends the class at the second press: the first only asks. */
function EndClass({ off, onEnd }: { off: boolean; onEnd: () => void }) {
  const [asks, setAsks] = useState(false)
  useEffect(() => {
    if (!asks) return
    const timer = setTimeout(() => setAsks(false), 4000)
    return () => clearTimeout(timer)
  }, [asks])
  return (
    <Control
      name={asks ? 'Press again to end' : 'End class'}
      off={off}
      onPress={() => {
        if (asks) onEnd()
        setAsks(!asks)
      }}
    />
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
      const date = `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`
      const startsAt = `${date}T${two(day.getHours())}:${two(day.getMinutes())}`
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

/** Seconds in few letters: 78 becomes "1 min 18 s". */
const short = (seconds: number) => (seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} min ${seconds % 60} s`)

/** The time of day, when the class is over as it runs now, and how that stands to the slot. */
function Hours({
  endsAt,
  left,
  started,
  over,
  behind,
}: {
  endsAt: number | null
  left: number
  started: boolean
  over: boolean
  /** Milliseconds after the booked end; null: it has none, or was held on another day. */
  behind: number | null
}) {
  const now = useMoment()
  const format = useClockFormat()
  const off = behind === null ? 0 : Math.round(Math.abs(behind) / 1000)
  return (
    <span className={css.hours}>
      <b>{timeAt(now, format)}</b>
      {!over && endsAt !== null && <span>booked until {timeAt(endsAt, format)}</span>}
      {!over && started && (
        <span data-testid="ends" data-late={behind !== null && behind > 1000}>
          ends {timeAt(now + left, format)}
          {endsAt === null || behind === null
            ? ''
            : off <= 1
              ? ', on time'
              : `, ${short(off)} ${behind > 0 ? 'behind' : 'in hand'}`}
        </span>
      )}
    </span>
  )
}

interface TroubleProps {
  lead: Lead
  over: boolean
  bells: Bells
  elsewhere: boolean
}

/** What the instructor must know is not working: sound, or the server. */
function Trouble({ lead, over, bells, elsewhere }: TroubleProps) {
  return (
    <span className={css.trouble}>
      {!lead.connected && (
        <span className={css.warning} role="status">
          No server. The class goes on
          {lead.unsent > 0 && `; ${lead.unsent === 1 ? '1 tap waits' : `${lead.unsent} taps wait`} to be sent`}.
        </span>
      )}
      {elsewhere && (
        <span className={css.warning} role="status">
          Another screen leads.{' '}
          <button type="button" className={css.sound} onClick={() => lead.send('lead')}>
            Lead here
          </button>
        </span>
      )}
      {lead.asked > 0 && (
        <span className={css.warning} role="alert">
          Another screen led while this one was without the server.{' '}
          {lead.asked === 1 ? '1 tap was' : `${lead.asked} taps were`} made here.{' '}
          <button type="button" className={css.sound} onClick={() => lead.answerAsked(true)}>
            Send them
          </button>{' '}
          <button type="button" className={css.sound} onClick={() => lead.answerAsked(false)}>
            Leave them
          </button>
        </span>
      )}
      {lead.slept > 0 && (
        <span className={css.warning} role="status">
          This machine slept for {spoken(lead.slept / 1000)}. The class is where it should be.{' '}
          <button type="button" className={css.sound} onClick={lead.sleepSeen}>
            Seen
          </button>
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
