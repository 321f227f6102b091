import { useReducedMotion } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { apart } from '../../leading/steady'
import { useFilms } from '../../leading/useBeat'
import { useSceneClock } from '../../leading/useSceneClock'
import { useClock } from '../../leading/useClock'
import type { Lead } from '../../leading/useLead'
import { useLead } from '../../leading/useLead'
import { useMoment, useWakeLock } from '../../leading/useNow'
import { FilmView, Thumb } from '../../ui/FigureView'
import { useTabName } from '../../ui/Page'
import { clock as clockWords, spoken, timeAt } from '../../ui/time'
import { Calibrate, useSizes } from './Calibrate'
import { WallFloor } from './WallFloor'
import css from './Wall.module.css'

/** The screen for the room. Without a session in its address it shows what is on. */
export function WallPage() {
  const { session } = useParams()
  const now = useQuery({
    queryKey: ['now-on'],
    queryFn: () => answer(api.GET('/api/wall')),
    enabled: session === undefined,
    refetchInterval: 5000,
  })
  const shown = session ?? now.data?.session ?? null
  useTabName('Wall')
  if (!shown) {
    return (
      <main className={css.wall}>
        <p className={css.empty}>
          {now.error ? troubleWords(now.error) : 'Nothing is on. The next class shows here by itself.'}
        </p>
      </main>
    )
  }
  return <Open key={shown} session={shown} />
}

function Open({ session }: { session: string }) {
  const { lead, problem } = useLead(session, 'wall')
  if (lead) return <Wall lead={lead} />
  return (
    <main className={css.wall}>
      <p className={css.empty}>{problem ? troubleWords(problem) : 'One moment.'}</p>
    </main>
  )
}

const useFigures = (session: string) =>
  useQuery({
    queryKey: ['lead-figures', session],
    queryFn: () => answer(api.GET('/api/wall/{id}/figures', { params: { path: { id: session } } })),
    staleTime: Infinity,
    gcTime: Infinity,
  })

function Wall({ lead }: { lead: Lead }) {
  const { script } = lead
  const clock = useClock(lead)
  const { scene, phase, shown, left, over, waiting, position, end } = clock
  const cards = scene.cards.map((card) => script.cards[card]!)
  const single = cards.length === 1 ? cards[0] : undefined
  const [light, setLight] = useState(false)
  const [tools, setTools] = useState(true)
  const [sizing, setSizing] = useState(false)
  const sizes = useSizes()
  const moment = useMoment()
  useWakeLock(true)

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
      data-kind={scene.kind}
      style={{ '--least': sizes.least } as React.CSSProperties}
    >
      <header className={css.top}>
        <span>{over ? script.title : [scene.blockName, scene.round].filter(Boolean).join(' · ')}</span>
        <b>{timeAt(moment, 'h24')}</b>
      </header>
      {over ? (
        <h1 className={css.head}>That is the end.</h1>
      ) : (
        <div className={css.body}>
          <section className={css.now} aria-label="Now">
            <h1 className={css.head}>{phase === 'ready' ? script.title : scene.headline}</h1>
            <p className={css.target}>
              {phase !== 'ready' && scene.target}
              {phase !== 'ready' && scene.sideWords && (
                <span className={css.side} data-testid="side">
                  {scene.sideWords}
                </span>
              )}
            </p>
            <div
              className={css.clock}
              data-testid="clock"
              data-last={phase === 'running' && left <= 3}
              role="timer"
              aria-label={spoken(shown)}
            >
              {shown < 60 ? shown : clockWords(shown)}
            </div>
            {phase === 'paused' && <p className={css.paused}>PAUSED</p>}
            {waiting && <p className={css.paused}>READY</p>}
            <Reps lead={lead} clock={clock} />
          </section>
          <section className={css.show} aria-label={single ? single.name : 'All stations'}>
            {single ? <One lead={lead} card={single} moving={phase !== 'ready' && scene.kind === 'work'} /> : null}
            {cards.length > 1 && <WallFloor session={lead.session} cards={cards} scene={scene} />}
          </section>
        </div>
      )}
      {!over && (
        <p className={css.next} data-testid="next">
          <span>Next</span> {phase === 'ready' ? scene.headline : scene.next}
        </p>
      )}
      {!lead.connected && <p className={css.cut}>No server: this screen goes on by itself.</p>}
      {tools && (
        <footer className={css.tools}>
          <button type="button" onClick={() => setLight(!light)}>
            {light ? 'Dark' : 'Light'}
          </button>
          <button type="button" onClick={() => void document.documentElement.requestFullscreen?.()}>
            Full screen
          </button>
          <button type="button" onClick={() => setSizing(!sizing)}>
            Sizes for this room
          </button>
          <span>
            clock off by {apart()} ms · {clockWords(Math.max(0, (end - position) / 1000))} left
          </span>
        </footer>
      )}
      {sizing && <Calibrate sizes={sizes} onClose={() => setSizing(false)} />}
    </main>
  )
}

/** The reps as they should stand now, where they are counted. */
function Reps({ lead, clock }: { lead: Lead; clock: ReturnType<typeof useClock> }) {
  const { scene, into, phase, waiting } = clock
  if (!scene.repSeconds || !scene.reps || phase === 'ready' || waiting) return null
  const done = Math.min(scene.reps, Math.floor(into / scene.repSeconds) + 1)
  void lead
  return (
    <p className={css.reps} data-testid="reps">
      rep <b>{done}</b> of {scene.reps}
    </p>
  )
}

function One({ lead, card, moving }: { lead: Lead; card: Schemas['StationCard']; moving: boolean }) {
  const films = useFilms(lead.session).data
  const figures = useFigures(lead.session).data
  const clock = useSceneClock(lead)
  const still = useReducedMotion()
  const film = films?.find((f) => f.station === card.id)?.film
  const of = (tier: Schemas['Tier']) => figures?.find((f) => f.station === card.id && f.tier === tier)?.figure
  const main = of('main')
  return (
    <>
      <div className={css.film}>
        {film && moving && !still ? (
          <FilmView film={film} alt={card.name} clock={clock} />
        ) : (
          main && <Thumb figure={main} />
        )}
      </div>
      <div className={css.options}>
        {(['easier', 'harder'] as const).map((tier) =>
          card[tier].length > 0 ? (
            <div key={tier}>
              {of(tier) && <Thumb figure={of(tier)!} />}
              <span>
                <b>{tier}</b> {card[tier][0]}
              </span>
            </div>
          ) : null,
        )}
      </div>
    </>
  )
}
