import { useEffect, useRef, useState } from 'react'
import type { Schemas } from '../api/client'
import { AudioClock, newContext } from './core/audioClock'
import { exactNow } from './steady'
import { AHEAD } from './core/bells'
import { pace, useFilm } from './useFilm'
import type { Clock } from './useClock'

/** How often clicks are looked at. */
const EVERY = 300

/** Pitch of a click by what begins: lowering, a pause, lifting, a pause at the top. */
const pitches = [440, 330, 660, 330]

interface Wanted {
  clicks: boolean
  deck: boolean
  /** Beats a minute of the rhythm, where it does not go with the reps. */
  speed: number
  /** The rhythm goes with the reps: whole beats to each. */
  matched: boolean
  /** A file from disk that plays in the rhythm's place, and its own speed where it was tapped in. */
  file: { name: string; url: string; speed: number | null } | null
}

/** A file is played no slower and no faster than it bears. */
const [SLOWEST, FASTEST] = [0.7, 1.4]

/** Beats a minute by the moments of taps, in milliseconds; null: too few. A pause begins anew. */
export function tappedSpeed(taps: number[]): number | null {
  const steps = taps.slice(1).map((at, i) => at - taps[i]!)
  const last = steps.slice(steps.findLastIndex((step) => step > 2000) + 1).slice(-8)
  if (last.length < 3) return null
  return Math.round(60_000 / (last.reduce((a, b) => a + b, 0) / last.length))
}

/** Clicks at the tempo of the reps, another for each phase, and a small rhythm, ducked while something is said. */
export function useBeat(
  session: string,
  scene: Schemas['Scene'],
  card: Schemas['StationCard'] | undefined,
  clock: Clock,
  speaking: boolean,
) {
  const [wanted, setWanted] = useState<Wanted>({ clicks: false, deck: false, speed: 100, matched: false, file: null })
  const filmed = useFilm(session, card)
  const audio = useRef<AudioContext | null>(null)
  const gain = useRef<GainNode | null>(null)
  const running = clock.phase === 'running' && !clock.waiting
  const { began } = clock
  const on = running && (wanted.deck || (wanted.clicks && scene.kind === 'work' && card !== undefined))
  const film = filmed?.film
  const speed = wanted.matched && filmed ? filmed.beat : wanted.speed
  const players = useRef(new Map<string, { player: HTMLAudioElement; source: MediaElementAudioSourceNode }>())
  useEffect(() => {
    if (!on) return
    const context = (audio.current ??= newContext())
    void context.resume()
    const out = (gain.current ??= context.createGain())
    out.connect(context.destination)
    const audioClock = new AudioClock(context, exactNow)
    let through = exactNow()
    const schedule = () => {
      const until = exactNow() + AHEAD
      if (wanted.clicks && film && filmed && scene.kind === 'work') {
        const faster = pace(filmed, scene.repSeconds)
        const rep = (film.seconds * 1000) / faster
        film.phases.forEach((phase, i) => {
          const from = began + (phase.from * 1000) / faster
          for (let at = from + Math.max(0, Math.ceil((through - from) / rep)) * rep; at < until; at += rep)
            click(context, out, audioClock.at(at), pitches[i % 4]!, 0.05, 0.25)
        })
      }
      if (wanted.deck && !wanted.file) {
        const half = 30_000 / Math.max(60, Math.min(180, speed))
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
    const stopFile =
      wanted.deck && wanted.file ? play(context, out, wanted.file, speed, players.current) : () => undefined
    const timer = setInterval(schedule, EVERY)
    return () => {
      clearInterval(timer)
      audioClock.close()
      stopFile()
      out.disconnect()
      gain.current = null
    }
  }, [on, wanted, speed, film, filmed, scene, began])

  useEffect(() => {
    if (gain.current && audio.current)
      gain.current.gain.setTargetAtTime(speaking ? 0.25 : 1, audio.current.currentTime, 0.08)
  }, [speaking])

  return { ...wanted, now: speed, set: (part: Partial<Wanted>) => setWanted((before) => ({ ...before, ...part })) }
}

export type Beat = ReturnType<typeof useBeat>

/** Plays a file from where it was left, as fast as goes with the beat. */
function play(
  context: AudioContext,
  out: AudioNode,
  file: NonNullable<Wanted['file']>,
  speed: number,
  players: Map<string, { player: HTMLAudioElement; source: MediaElementAudioSourceNode }>,
): () => void {
  let known = players.get(file.url)
  if (!known) {
    const player = new Audio(file.url)
    known = { player, source: context.createMediaElementSource(player) }
    players.set(file.url, known)
  }
  const { player, source } = known
  source.connect(out)
  player.loop = true
  player.playbackRate = file.speed ? Math.max(SLOWEST, Math.min(FASTEST, speed / file.speed)) : 1
  void player.play().catch(() => undefined)
  return () => {
    player.pause()
    source.disconnect()
  }
}

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
