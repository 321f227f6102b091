import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import type { Schemas } from '../api/client'
import { answer, api } from '../api/client'
import { AudioClock, newContext } from './audioClock'
import { exactNow } from './steady'
import { AHEAD } from './useBells'
import type { Clock } from './useClock'

/** How often clicks are looked at. */
const EVERY = 300

/** Pitch of a click by what begins: lowering, a pause, lifting, a pause at the top. */
const pitches = [440, 330, 660, 330]

interface Wanted {
  clicks: boolean
  deck: boolean
  /** Beats a minute of the rhythm. */
  speed: number
}

/** The films of the main options: their phases are the tempo. */
export const useFilms = (session: string) =>
  useQuery({
    queryKey: ['films', session],
    queryFn: () => answer(api.GET('/api/wall/{id}/films', { params: { path: { id: session } } })),
    staleTime: Infinity,
    gcTime: Infinity,
    retry: 1,
  })

/** Clicks at the tempo of the reps, another for each phase, and a small rhythm, ducked while something is said. */
export function useBeat(
  session: string,
  scene: Schemas['Scene'],
  station: string | null,
  clock: Clock,
  speaking: boolean,
) {
  const [wanted, setWanted] = useState<Wanted>({ clicks: false, deck: false, speed: 100 })
  const films = useFilms(session).data
  const audio = useRef<AudioContext | null>(null)
  const gain = useRef<GainNode | null>(null)
  const running = clock.phase === 'running' && !clock.waiting
  const { began } = clock
  const on = running && (wanted.deck || (wanted.clicks && scene.kind === 'work' && station !== null))
  const film = films?.find((f) => f.station === station)?.film
  useEffect(() => {
    if (!on) return
    const context = (audio.current ??= newContext())
    void context.resume()
    const out = (gain.current ??= context.createGain())
    out.connect(context.destination)
    const audioClock = new AudioClock(context)
    let through = exactNow()
    const schedule = () => {
      const until = exactNow() + AHEAD
      if (wanted.clicks && film && scene.kind === 'work') {
        const rep = film.seconds * 1000
        film.phases.forEach((phase, i) => {
          const from = began + phase.from * 1000
          for (let at = from + Math.max(0, Math.ceil((through - from) / rep)) * rep; at < until; at += rep)
            click(context, out, audioClock.at(at), pitches[i % 4]!, 0.05, 0.25)
        })
      }
      if (wanted.deck) {
        const half = 30_000 / Math.max(60, Math.min(180, wanted.speed))
        for (let n = Math.ceil((through - began) / half); began + n * half < until; n++) {
          const at = audioClock.at(began + n * half)
          if (n % 4 === 0) click(context, out, at, 70, 0.16, 0.5)
          else if (n % 4 === 2) click(context, out, at, 180, 0.09, 0.3)
          else click(context, out, at, 3200, 0.03, 0.06)
        }
      }
      through = until
    }
    schedule()
    const timer = setInterval(schedule, EVERY)
    return () => {
      clearInterval(timer)
      audioClock.close()
      out.disconnect()
      gain.current = null
    }
  }, [on, wanted, film, scene, began])

  useEffect(() => {
    if (gain.current && audio.current)
      gain.current.gain.setTargetAtTime(speaking ? 0.25 : 1, audio.current.currentTime, 0.08)
  }, [speaking])

  return { ...wanted, set: (part: Partial<Wanted>) => setWanted((before) => ({ ...before, ...part })) }
}

export type Beat = ReturnType<typeof useBeat>

function click(context: AudioContext, out: AudioNode, at: number, pitch: number, length: number, loud: number) {
  const node = context.createOscillator()
  const envelope = context.createGain()
  node.frequency.value = pitch
  envelope.gain.setValueAtTime(loud, at)
  envelope.gain.exponentialRampToValueAtTime(0.0001, at + length)
  node.connect(envelope).connect(out)
  node.start(at)
  node.stop(at + length + 0.01)
}
