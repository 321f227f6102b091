import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import type { Schemas } from '../api/client'
import { answer, api } from '../api/client'
import type { Clock } from './useClock'

/** How far ahead clicks are put on the audio clock, and how often they are looked at. */
const AHEAD = 0.6
const EVERY = 200

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
  const on = running && (wanted.deck || (wanted.clicks && scene.kind === 'work' && station !== null))
  const into = useRef(0)
  useEffect(() => {
    into.current = clock.into
  })

  const film = films?.find((f) => f.station === station)?.film
  useEffect(() => {
    if (!on) return
    const context = (audio.current ??= new AudioContext())
    void context.resume()
    const out = (gain.current ??= context.createGain())
    out.connect(context.destination)
    const began = context.currentTime - into.current
    let through = context.currentTime
    const schedule = () => {
      const until = context.currentTime + AHEAD
      if (wanted.clicks && film && scene.kind === 'work') {
        const rep = film.seconds
        film.phases.forEach((phase, i) => {
          const first = Math.ceil((through - began - phase.from) / rep)
          for (let at = began + first * rep + phase.from; at < until; at += rep)
            if (at >= through) click(context, out, at, pitches[i % 4]!, 0.05, 0.25)
        })
      }
      if (wanted.deck) {
        const beat = 60 / Math.max(60, Math.min(180, wanted.speed))
        for (let n = Math.ceil((through - began) / (beat / 2)); began + n * (beat / 2) < until; n++) {
          const at = began + n * (beat / 2)
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
      out.disconnect()
      gain.current = null
    }
  }, [on, wanted, film, scene])

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
