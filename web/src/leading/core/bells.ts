import type { Schemas } from '../../api/client'
import { AudioClock } from './audioClock'
import type { Ends, LeadState } from './fold'
import { positionAt } from './fold'
import type { Cue } from './sounding'
import { bellsBetween } from './sounding'

export type Bell = Schemas['Bell']

/**
 * How far ahead sound is put on the audio clock, in milliseconds: longer than a hidden tab's timers are held back, or a busy
 * machine stalls.
 */
export const AHEAD = 2500
const EVERY = 300

/** A tap stops what was just about to ring: what rang this shortly before is not rung again. */
const JUST = 60

/** The bells of a class, as they are rung. */
export interface Peal {
  /** Missing from a class that a browser kept from before they came with it: it is led in silence until the server is heard. */
  bells?: Bell[]
  cues: Cue[]
  scenes: Ends[]
}

/**
 * Rings while a class runs on in a state, scheduled ahead on the audio clock.
 * @param now milliseconds since 1970, as the class has them, with their fractions
 * @returns takes back what has not sounded yet
 */
export function ringing(
  { bells = [], cues, scenes }: Peal,
  state: LeadState,
  audio: AudioContext,
  now: () => number,
): () => void {
  const pending = new Set<OscillatorNode>()
  const clock = new AudioClock(audio, now)
  let through = positionAt(state, Math.round(now()), scenes) - JUST
  const schedule = () => {
    const moment = Math.round(now())
    const position = positionAt(state, moment, scenes)
    const until = position + AHEAD
    for (const [at, cue] of bellsBetween(cues, scenes, state, position, through, until)) {
      const bell = bells.find(({ kind }) => kind === cue.kind)
      if (!bell) continue
      for (const node of strike(audio, bell, clock.at(moment + at - position))) {
        pending.add(node)
        node.onended = () => pending.delete(node)
      }
    }
    through = Math.max(through, until)
  }
  schedule()
  const timer = setInterval(schedule, EVERY)
  return () => {
    clearInterval(timer)
    clock.close()
    // What was scheduled belongs to a state that is no more. Its onset may be near: stop takes it back.
    for (const node of pending) node.stop()
  }
}

function strike(audio: AudioContext, bell: Bell, at: number): OscillatorNode[] {
  return Array.from({ length: bell.strikes }, (_, n) => {
    const start = at + n * bell.apart
    const node = audio.createOscillator()
    const gain = audio.createGain()
    node.frequency.value = bell.pitch
    gain.gain.setValueAtTime(0.0001, start)
    gain.gain.exponentialRampToValueAtTime(0.6, start + 0.01)
    gain.gain.exponentialRampToValueAtTime(0.0001, start + bell.length)
    node.connect(gain).connect(audio.destination)
    node.start(start)
    node.stop(start + bell.length + 0.02)
    return node
  })
}
