import { useReducedMotion } from '@mantine/hooks'
import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { troubleWords } from '../../api/client'
import { apart } from '../../leading/steady'
import { countAt } from '../../leading/core/count'
import type { Clock } from '../../leading/useClock'
import { useClock } from '../../leading/useClock'
import { pace, useFilm, useFilmsAhead } from '../../leading/useFilm'
import type { Lead } from '../../leading/useLead'
import { useLead } from '../../leading/useLead'
import { useMoment, useWakeLock } from '../../leading/useNow'
import { useSceneClock } from '../../leading/useSceneClock'
import { FilmView, Thumb } from '../../ui/FigureView'
import { useTabName } from '../../ui/Page'
import { clock as clockWords, spoken, timeAt } from '../../ui/time'
import { shows, SideBadge } from '../lead/Now'
import { pictureOf, usePictures } from '../lead/StationCards'
import { Calibrate, useSizes } from './Calibrate'
import { WallFloor } from './WallFloor'
import { useNowOn, WhichClass } from './WhichClass'
import css from './Wall.module.css'
import { tierWord } from '../../ui/words'

/** The screen for the room. Without a session in its address it shows what is on. */
export function WallPage() {
  const { session } = useParams()
  const now = useNowOn(session === undefined)
  const shown = session ?? now.data?.session ?? null
  useTabName('Wall')
  if (!shown) {
    return (
      <main className={css.wall}>
        <p className={css.empty}>
          {now.error ? troubleWords(now.error) : 'No class is on. The next one appears here by itself.'}
        </p>
      </main>
    )
  }
  return (
    <>
      <Open key={shown} session={shown} />
      {session === undefined && now.data!.inProgress.length > 1 && (
        <WhichClass at="/wall/" running={now.data!.inProgress} className={css.which} />
      )}
    </>
  )
}

function Open({ session }: { session: string }) {
  const { lead, problem } = useLead(session, 'wall')
  if (lead) return <Wall lead={lead} />
  return (
    <main className={css.wall}>
      <p className={css.empty}>{problem ? troubleWords(problem) : 'One moment…'}</p>
    </main>
  )
}

function Wall({ lead }: { lead: Lead }) {
  const { script } = lead
  const clock = useClock(lead)
  const { scene, phase, shown, left, over, waiting, position, end } = clock
  // While people arrive they see what they will do; from the start on, what is on.
  const arriving = phase === 'ready' && !over
  const cards = arriving ? eachOnce(script.cards) : scene.cards.map((card) => script.cards[card]!)
  const single = cards.length === 1 ? cards[0] : undefined
  const [light, setLight] = useState(false)
  const [tools, setTools] = useState(true)
  const [sizing, setSizing] = useState(false)
  const sizes = useSizes()
  const moment = useMoment()
  useWakeLock(true)
  useFilmsAhead(lead.session, script.scenes, script.cards)

  // What is for the instructor's hand goes away when nobody touches the screen.
  useEffect(() => {
    let timer = setTimeout(() => setTools(false), 6000)
    const wake = () => {
      setTools(true)
      clearTimeout(timer)
      timer = setTimeout(() => setTools(false), 6000)
    }
    for (const event of ['pointermove', 'pointerdown', 'keydown'] as const) window.addEventListener(event, wake)
    return () => {
      clearTimeout(timer)
      for (const event of ['pointermove', 'pointerdown', 'keydown'] as const) window.removeEventListener(event, wake)
    }
  }, [])

  return (
    <main
      className={css.wall}
      data-light={light}
      data-many={cards.length > 1}
      data-arriving={arriving || undefined}
      data-kind={scene.kind}
      style={{ '--least': sizes.least } as React.CSSProperties}
    >
      <header className={css.top}>
        <span>
          {over
            ? script.title
            : [scene.blockName, scene.round, scene.turnsRound && scene.target].filter(Boolean).join(' · ')}
        </span>
        <b>{timeAt(moment, 'h24')}</b>
      </header>
      {over ? (
        <h1 className={css.head}>That’s it. Well done.</h1>
      ) : (
        <div className={css.body} data-plain={cards.length === 0}>
          <section className={css.now} aria-label="Now">
            <Heads clock={clock} title={script.title} />
            {arriving && lead.startsAt !== null ? (
              <p className={css.starts}>starts at {timeAt(lead.startsAt, 'h24')}</p>
            ) : (
              <div className={css.times}>
                <Reps clock={clock} />
                <div
                  className={css.clock}
                  data-testid="clock"
                  data-last={phase === 'running' && left <= 3}
                  role="timer"
                  aria-label={spoken(shown)}
                >
                  {shown < 60 ? shown : clockWords(shown)}
                </div>
              </div>
            )}
            {arriving && script.focus && <p className={css.target}>{script.focus}</p>}
            {phase === 'paused' && <p className={css.paused}>Paused</p>}
            {waiting && <p className={css.paused}>Ready</p>}
          </section>
          {single && <One lead={lead} clock={clock} card={single} />}
          {cards.length > 1 && (
            <section className={css.show} aria-label="All stations">
              {scene.turnsRound && !arriving ? (
                <WallFloor session={lead.session} cards={cards} scene={scene} />
              ) : (
                <WallList session={lead.session} cards={cards} />
              )}
            </section>
          )}
        </div>
      )}
      {!over && !(scene.ahead && phase !== 'ready') && (
        <p className={css.next} data-testid="next">
          <span>Next</span> {phase === 'ready' ? scene.headline : scene.next}
        </p>
      )}
      {!lead.connected && <p className={css.cut}>Not connected: this screen carries on by itself.</p>}
      {tools && (
        <footer className={css.tools}>
          <button type="button" onClick={() => setLight(!light)}>
            {light ? 'Dark' : 'Light'}
          </button>
          <button type="button" onClick={() => void document.documentElement.requestFullscreen?.()}>
            Full screen
          </button>
          <button type="button" onClick={() => setSizing(!sizing)}>
            Set up this screen
          </button>
          <span>
            clock within {apart()} ms · {clockWords(Math.max(0, (end - position) / 1000))} to go
          </span>
        </footer>
      )}
      {sizing && <Calibrate sizes={sizes} onClose={() => setSizing(false)} />}
    </main>
  )
}

/** So many moves can be told apart from the back of the room. */
const ARRIVING = 12

/** The moves of a class, each once, in its order. */
function eachOnce(cards: Schemas['StationCard'][]) {
  const seen = new Set<string>()
  return cards.filter((card) => !seen.has(card.name) && seen.add(card.name)).slice(0, ARRIVING)
}

/** What is on, or what comes next where nothing is worked: the move, how much of it, the side and the hand. */
function Heads({ clock, title }: { clock: Clock; title: string }) {
  const { scene, phase } = clock
  if (phase === 'ready') return <h1 className={css.head}>{title}</h1>
  const isAhead = scene.ahead && scene.title !== scene.headline
  return (
    <>
      <h1 className={isAhead ? css.kicker : css.head}>{scene.headline}</h1>
      {isAhead && (
        <h2 className={css.head} data-testid="ahead">
          <small>next</small> {scene.title}
        </h2>
      )}
      <p className={css.target}>
        {[scene.target, scene.load].filter(Boolean).join(' · ')}
        {scene.others && <span>{scene.others}</span>}
      </p>
      <SideBadge scene={scene} className={css.side} />
    </>
  )
}

/** The reps as they should stand now, where they are counted. */
function Reps({ clock }: { clock: Clock }) {
  const { scene, into, phase, waiting } = clock
  const count = phase === 'ready' || waiting ? null : countAt(scene, into)
  return count === null ? null : (
    <b className={css.reps} data-testid="reps">
      {count}
      <small>{scene.countsDown ? ' to go' : ` of ${scene.reps}`}</small>
    </b>
  )
}

/** What is on, in motion, and its options with what is otherwise in them. */
function One({ lead, clock, card }: { lead: Lead; clock: Clock; card: Schemas['StationCard'] }) {
  const filmed = useFilm(lead.session, card)
  const pictures = usePictures(lead.session)
  const { scene, phase } = clock
  const still = useReducedMotion()
  const film = phase !== 'ready' && !still ? filmed?.film : undefined
  const seconds = useSceneClock(lead, filmed && scene.kind === 'work' ? pace(filmed, scene.repSeconds) : 1)
  const main = pictureOf(pictures, card.option, card)
  const options = (['easier', 'harder'] as const).flatMap(
    (tier) => card.options?.find((option) => option.tier === tier) ?? [],
  )
  return (
    <section className={css.show} aria-label={card.name}>
      <div className={css.film} data-testid="film" data-shows={shows(card)} data-moving={film ? true : undefined}>
        {film ? <FilmView film={film} alt={card.name} clock={seconds} /> : main && <Thumb figure={main} />}
      </div>
      {options.length > 0 && (
        <ul className={css.options}>
          {options.map((option) => {
            const figure = pictureOf(pictures, option.id, card)
            return (
              <li key={option.id}>
                {figure && <Thumb figure={figure} />}
                <span>
                  <b>{tierWord(option.tier)}</b> {option.differs}
                </span>
              </li>
            )
          })}
        </ul>
      )}
    </section>
  )
}

/** At one's own pace: every station with its dose. */
function WallList({ session, cards }: { session: string; cards: Schemas['StationCard'][] }) {
  const pictures = usePictures(session)
  return (
    <ol className={css.list}>
      {cards.map((card) => {
        const figure = pictureOf(pictures, card.option, card)
        return (
          <li key={card.id ?? card.name}>
            {figure && <Thumb figure={figure} />}
            <span>
              {card.name} <b>{card.target}</b>
            </span>
          </li>
        )
      })}
    </ol>
  )
}
