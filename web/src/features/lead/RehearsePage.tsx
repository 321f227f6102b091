import { useComputedColorScheme } from '@mantine/core'
import { useHotkeys } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link, useParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { say, useVoices, voiceSettings } from '../../leading/useVoice'
import { useTabName } from '../../ui/Page'
import { Tape } from '../../ui/Tape'
import { clock as clockWords, spoken } from '../../ui/time'
import { SideBadge } from './Now'
import css from './Stage.module.css'

const SPEEDS = [1, 2, 4, 8] as const

/** Plays a class beforehand, faster if wanted: nothing is started, nothing is kept. */
export function RehearsePage() {
  const { session = '' } = useParams()
  useTabName('Rehearsal')
  const script = useQuery({
    queryKey: ['rehearsal', session],
    queryFn: () => answer(api.GET('/api/sessions/{id}/script', { params: { path: { id: session } } })),
    retry: 1,
  })
  if (script.error) return <p className={css.stage}>{troubleWords(script.error)}</p>
  return script.data ? <Rehearsal script={script.data} session={session} /> : null
}

function Rehearsal({ script, session }: { script: Schemas['LeadScript']; session: string }) {
  const [at, setAt] = useState(0)
  const [speed, setSpeed] = useState<(typeof SPEEDS)[number]>(2)
  const [plays, setPlays] = useState(false)
  const [aloud, setAloud] = useState(false)
  const voices = useVoices()
  const scheme = useComputedColorScheme('dark')
  const through = useRef(-1)
  const length = script.scenes.at(-1)?.end ?? 0
  const scene = script.scenes.find((s) => at < s.end) ?? script.scenes.at(-1)!
  const said = script.calls.filter((call) => call.at <= at).slice(-4)

  useEffect(() => {
    if (!plays) return
    let last = performance.now()
    const timer = setInterval(() => {
      const now = performance.now()
      setAt((before) => Math.min(length, before + ((now - last) / 1000) * speed))
      last = now
    }, 60)
    return () => clearInterval(timer)
  }, [plays, speed, length])

  useEffect(() => {
    // At more than its own speed a voice would talk over itself: only what there is time for is said.
    const due = script.calls.filter((call) => call.at > through.current && call.at <= at)
    const free = !window.speechSynthesis?.speaking
    if (plays && aloud && due.length > 0 && (speed === 1 || free)) {
      const call = due.at(-1)!
      say(call, voices, voiceSettings())
    }
    through.current = at
  }, [at, aloud, plays, script.calls, speed, voices])

  // Space plays and stands still, whatever was pressed last; Enter is for what has the focus.
  useHotkeys([
    ['space', () => setPlays((on) => !on)],
    ['ArrowRight', () => setAt(scene.end)],
    ['ArrowLeft', () => setAt(Math.max(0, scene.start - (at - scene.start < 2 ? 1 : 0)))],
  ])

  return (
    <main className={css.stage}>
      <header className={css.top}>
        <Link to={`/lead/${session}`} className={css.back}>
          ‹ {script.title}
        </Link>
        <span className={css.round}>Rehearsal: this does not start the class</span>
        <b data-testid="rehearsed">
          {clockWords(at)} of {clockWords(length)}
        </b>
      </header>
      <div className={css.floor} data-cards="one">
        <section className={css.now} aria-label="Now">
          <h1 className={css.kicker}>{scene.headline}</h1>
          {scene.title !== scene.headline && <h2 className={css.kicker}>next {scene.title}</h2>}
          <p className={css.target}>
            {[scene.target, scene.load].filter(Boolean).join(' · ')}
            {scene.others && <span>{scene.others}</span>}
          </p>
          <SideBadge scene={scene} className={css.sideLine} />
          {scene.say && <p className={css.say}>Say: {scene.say}</p>}
          <Talk scene={scene} />
          <p className={css.target}>Next: {scene.next}</p>
        </section>
        <section aria-label="What is said" aria-live="off" data-testid="captions">
          {said.map((call, i) => (
            <p key={call.at} className={i === said.length - 1 ? css.caption : css.focus}>
              {call.text}
            </p>
          ))}
        </section>
      </div>
      <footer className={css.bottom}>
        <div className={css.tape}>
          <Tape
            spans={script.scenes.map((s) => ({
              start: s.start,
              end: s.end,
              kind: s.kind,
              side: s.side,
              families: s.cards.map((card) => script.cards[card]!.family),
            }))}
            blocks={blocksOf(script.scenes)}
            slot={script.slot}
            now={at}
            dark={scheme === 'dark'}
          />
        </div>
        <div className={css.controls}>
          <button type="button" className={css.big} onClick={() => setPlays(!plays)}>
            {plays ? 'Pause' : 'Play'}
          </button>
          {SPEEDS.map((s) => (
            <button
              type="button"
              key={s}
              className={css.control}
              aria-pressed={s === speed}
              onClick={() => setSpeed(s)}
            >
              {s}×
            </button>
          ))}
          <button type="button" className={css.control} onClick={() => setAt(Math.max(0, scene.start - 1))}>
            Back
          </button>
          <button type="button" className={css.control} onClick={() => setAt(scene.end)}>
            Skip
          </button>
          <label className={css.control}>
            <input type="checkbox" checked={aloud} onChange={(e) => setAloud(e.currentTarget.checked)} /> Voice on
          </label>
        </div>
      </footer>
    </main>
  )
}

function blocksOf(scenes: Schemas['Scene'][]) {
  const blocks: { name: string; start: number; end: number }[] = []
  scenes.forEach((s, i) => {
    if (scenes[i - 1]?.block === s.block) blocks.at(-1)!.end = s.end
    else blocks.push({ name: s.blockName, start: s.start, end: s.end })
  })
  return blocks
}

/** A stopwatch for one's own talk, against the time that it has. */
function Talk({ scene }: { scene: Schemas['Scene'] }) {
  const [began, setBegan] = useState<number | null>(null)
  const [took, setTook] = useState<number | null>(null)
  const has = scene.end - scene.start
  if (!scene.say && scene.kind !== 'talk') return null
  return (
    <p className={css.say}>
      <button
        type="button"
        className={css.way}
        onClick={() => {
          if (began === null) {
            setBegan(performance.now())
            setTook(null)
          } else {
            setTook((performance.now() - began) / 1000)
            setBegan(null)
          }
        }}
      >
        {began === null ? 'Time yourself talking' : 'Stop timing'}
      </button>{' '}
      {took !== null && `You took ${spoken(took)}; planned: ${spoken(has)}.`}
    </p>
  )
}
