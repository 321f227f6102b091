import { useEffect, useRef, useState } from 'react'
import { useParams } from 'react-router'
import { troubleWords } from '../../api/client'
import { countAt } from '../../leading/core/count'
import type { Clock } from '../../leading/useClock'
import { mainAct, useClock } from '../../leading/useClock'
import type { Lead } from '../../leading/useLead'
import { useLead } from '../../leading/useLead'
import { useWakeLock } from '../../leading/useNow'
import { useWays } from '../../leading/useWays'
import { useTabName } from '../../ui/Page'
import { many } from '../../ui/words'
import { clock as clockWords, spoken } from '../../ui/time'
import { PeoplePanel } from '../lead/PeoplePanel'
import stage from '../lead/Stage.module.css'
import { useAnnounced } from '../lead/useAnnounced'
import { WaysBar } from '../lead/WaysBar'
import { useWho, WhoNeeds } from '../lead/WhoNeeds'
import { useNowOn, WhichClass } from '../wall/WhichClass'
import css from './Remote.module.css'

/** Leads from a phone in one hand. Without a session in its address it takes what is on. */
export function RemotePage() {
  const { session } = useParams()
  const now = useNowOn(session === undefined)
  useTabName('Phone')
  const shown = session ?? now.data?.session ?? null
  if (!shown) return <p className={css.empty}>{now.error ? troubleWords(now.error) : 'No class is on.'}</p>
  // A tap here would hit one of them: it is asked first.
  if (session === undefined && now.data!.inProgress.length > 1)
    return <WhichClass at="/remote/" running={now.data!.inProgress} className={css.which} />
  return <Open key={shown} session={shown} />
}

function Open({ session }: { session: string }) {
  const { lead, problem } = useLead(session)
  if (lead) return <Remote lead={lead} />
  return <p className={css.empty}>{problem ? troubleWords(problem) : 'One moment.'}</p>
}

function Remote({ lead }: { lead: Lead }) {
  const { script, send } = lead
  const clock = useClock(lead)
  const { scene, index, phase, over } = clock
  const ways = useWays(lead, clock)
  const who = useWho(lead.session)
  const [people, setPeople] = useState(false)
  const announced = useAnnounced(lead, clock)
  const cardsOf = (of: typeof scene | undefined) => of?.cards.map((card) => script.cards[card]!) ?? []
  useWakeLock(phase === 'running')

  // Where the phone can, it is felt when something changes.
  const before = useRef(index)
  useEffect(() => {
    if (before.current !== index && phase === 'running')
      navigator.vibrate?.(scene.kind === 'work' ? [180] : [90, 60, 90])
    before.current = index
  }, [index, phase, scene.kind])

  return (
    <main className={`${stage.colours} ${css.remote}`} data-phase={phase}>
      <header className={css.top}>
        <span>{over ? script.title : [scene.blockName, scene.round].filter(Boolean).join(' · ')}</span>
        {!over && (
          <b data-testid="class-left" aria-label={`${spoken((clock.end - clock.position) / 1000)} to go in the class`}>
            {clockWords(Math.max(0, (clock.end - clock.position) / 1000))} left
          </b>
        )}
      </header>
      {over ? (
        <Over lead={lead} onNote={() => setPeople(true)} />
      ) : (
        <>
          <Running clock={clock} />
          <WhoNeeds who={who} on={cardsOf(scene)} next={cardsOf(script.scenes[index + 1])} />
        </>
      )}
      <p className="hidden" aria-live="assertive">
        {over
          ? 'The class is done.'
          : [scene.headline, scene.target, scene.sideWords, scene.hand].filter(Boolean).join(', ')}
      </p>
      <p className="hidden" aria-live="polite">
        {announced}
      </p>
      {!lead.connected && (
        <p className={css.soft} role="status">
          Not connected. The class carries on
          {lead.unsent > 0 && `; ${many(lead.unsent, 'action', 'actions')} not sent yet`}.
        </p>
      )}
      {lead.trouble && <p role="alert">That did not go through. {lead.trouble}</p>}
      {!over && <WaysBar ways={ways} />}
      {!over && <Hand lead={lead} clock={clock} send={send} onNote={() => setPeople(true)} />}
      {people && <PeoplePanel lead={lead} who={who.data} scene={index} onClose={() => setPeople(false)} />}
    </main>
  )
}

/** What is on, and what is next. */
function Running({ clock }: { clock: Clock }) {
  const { scene, phase, shown, left, into, waiting } = clock
  const count = phase === 'ready' || waiting ? null : countAt(scene, into)
  const isAhead = scene.ahead && scene.title !== scene.headline
  return (
    <>
      <h1 className={isAhead ? css.soft : css.head}>{scene.headline}</h1>
      {isAhead && <h2 className={css.head}>next {scene.title}</h2>}
      <p className={css.target}>{[scene.target, scene.load, scene.others].filter(Boolean).join(' · ')}</p>
      {(scene.sideWords || scene.hand) && (
        <p className={css.sides}>
          {scene.sideWords && <b data-testid="side">{scene.sideWords}</b>}
          {scene.hand && <b data-testid="hand">{scene.hand}</b>}
        </p>
      )}
      {scene.mirrorSide && <p className={css.soft}>{scene.mirrorSide}</p>}
      <div className={css.times}>
        {count !== null && (
          <b
            className={css.count}
            data-testid="count"
            aria-label={scene.countsDown ? `${count} reps to go` : `rep ${count}`}
          >
            {count}
          </b>
        )}
        <div
          className={count === null ? css.clock : css.beside}
          data-testid="clock"
          role="timer"
          aria-label={spoken(shown)}
          data-last={left <= 3}
        >
          {shown < 60 ? `${shown} s` : clockWords(shown)}
        </div>
      </div>
      {!scene.ahead && (
        <p className={css.next} data-testid="next">
          Next: {scene.next}
        </p>
      )}
    </>
  )
}

interface HandProps {
  lead: Lead
  clock: Clock
  send: Lead['send']
  onNote: () => void
}

/** What one thumb presses. */
function Hand({ clock, send, onNote }: HandProps) {
  const { phase, waiting } = clock
  const main = mainAct(clock)
  const off = phase === 'ready'
  const small = (name: string, words: string, onPress: () => void, never = false) => (
    <button
      type="button"
      className={css.small}
      aria-label={words ? `${name}: ${words}` : undefined}
      disabled={off && !never}
      onClick={onPress}
    >
      {name}
    </button>
  )
  return (
    <div className={css.hand}>
      {small('−10 s', 'ten seconds less', () => send('lessTen'))}
      {small('+10 s', 'ten seconds more', () => send('addTen'))}
      {small('Back', '', () => send('back'))}
      {small('Note', '', onNote, true)}
      <button type="button" className={css.big} onClick={() => send(main.kind)}>
        {main.name}
      </button>
      <button
        type="button"
        className={css.big}
        data-quiet="true"
        disabled={off}
        onClick={() => send(waiting ? 'go' : 'skip')}
      >
        Skip
      </button>
    </div>
  )
}

/** After the end: what there is to log, and the way on. */
function Over({ lead, onNote }: { lead: Lead; onNote: () => void }) {
  const notes = lead.commands.filter(
    ({ kind, payload }) => kind === 'note' && payload?.tap !== 'came' && payload?.tap !== 'away',
  )
  const came = new Map(
    lead.commands.flatMap(({ payload }) =>
      payload?.person && (payload.tap === 'came' || payload.tap === 'away') ? [[payload.person, payload.tap]] : [],
    ),
  )
  const here = [...came.values()].filter((tap) => tap === 'came').length
  return (
    <section className={css.over}>
      <h1 className={css.head}>Finished</h1>
      <p>
        For the log: {here > 0 ? `${many(here, 'person', 'people')} ticked, ` : ''}
        {notes.length === 0 ? 'no notes yet.' : `${many(notes.length, 'note', 'notes')} kept.`} Anything else, while you
        still know?
      </p>
      <div className={css.after}>
        <button type="button" className={css.big} onClick={onNote}>
          Note
        </button>
        <button type="button" className={css.small} onClick={() => lead.send('back')}>
          Not finished? Go back in
        </button>
        <a className={css.small} href="/remote">
          On to the next class
        </a>
      </div>
    </section>
  )
}
