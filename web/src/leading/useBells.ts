import { useCallback, useEffect, useRef, useState } from 'react'
import type { Schemas } from '../api/client'
import { AudioClock, newContext } from './audioClock'
import type { LeadState } from './fold'
import { addedBefore, endOf, lengthOf, limitOf, positionAt } from './fold'
import { steadyNow } from './steady'

type Cue = Schemas['Cue']
type Scene = Schemas['Scene']

/** How far ahead sound is put on the audio clock, in milliseconds: longer than a hidden tab's timers are held back, or a busy machine stalls. */
export const AHEAD = 2500
const EVERY = 300
const MISSED = 300

/** Pitch in hertz, length in seconds and strikes of each signal. Our own small set of bells. */
const sounds: Record<Cue['kind'], { pitch: number; length: number; strikes: number }> = {
  count: { pitch: 520, length: 0.12, strikes: 1 },
  start: { pitch: 1040, length: 0.55, strikes: 1 },
  switch: { pitch: 780, length: 0.3, strikes: 2 },
  warning: { pitch: 640, length: 0.08, strikes: 2 },
  end: { pitch: 390, length: 0.9, strikes: 1 },
  finish: { pitch: 390, length: 1.2, strikes: 3 },
}

/** When a cue sounds on the led timeline, in milliseconds. */
export const cueTime = (cue: Cue, added: number[]) => cue.at * 1000 + addedBefore(added, cue.shift)

/** What is about a scene that was left out, or has become too short for it, is neither rung nor said. */
export function stays(
  it: { at: number; shift: number; scene?: number | null },
  scenes: Scene[],
  added: number[],
): boolean {
  if (it.scene == null) return true
  if (lengthOf(scenes, added, it.scene) <= 0) return false
  const at = it.at * 1000 + addedBefore(added, it.shift)
  // One that hangs on the end of its scene is not before it; one that hangs on its start is not behind it.
  return it.shift > it.scene
    ? at >= endOf(scenes, added, it.scene - 1)
    : at <= Math.max(endOf(scenes, added, it.scene), endOf(scenes, added, it.scene - 1))
}

/** Whether this tab wants sound: a reload does not forget it, though a browser may want a tap before it rings again. */
const WANTED = 'halterion.sound'

function want(on: boolean) {
  try {
    if (on) sessionStorage.setItem(WANTED, 'on')
    else sessionStorage.removeItem(WANTED)
  } catch {
    // A browser that keeps nothing asks anew.
  }
}

function isWanted(): boolean {
  try {
    return sessionStorage.getItem(WANTED) === 'on'
  } catch {
    return false
  }
}

export interface Bells {
  on: boolean
  /** It was on before a reload, and waits for the tap that lets the browser ring. */
  waits: boolean
  turnOn: () => void
  turnOff: () => void
}

/** Rings the cues of a class, scheduled ahead on the audio clock. */
export function useBells(cues: Cue[], scenes: Scene[], state: LeadState): Bells {
  const context = useRef<AudioContext | null>(null)
  const [on, setOn] = useState(false)
  const [wanted, setWanted] = useState(isWanted)

  const turnOn = useCallback(() => {
    want(true)
    setWanted(true)
    try {
      const audio = (context.current ??= newContext())
      audio.onstatechange = () => setOn(audio.state === 'running')
      void audio.resume().then(
        () => setOn(audio.state === 'running'),
        () => setOn(false),
      )
    } catch {
      setOn(false)
    }
  }, [])

  const turnOff = useCallback(() => {
    want(false)
    setWanted(false)
    setOn(false)
    void context.current?.suspend()
  }, [])

  // The first tap or key of whoever reloads a class with sound gives it back.
  const waits = wanted && !on
  useEffect(() => {
    if (!waits) return
    const wake = () => turnOn()
    wake()
    const events = ['pointerdown', 'keydown'] as const
    for (const event of events) window.addEventListener(event, wake, { capture: true })
    return () => {
      for (const event of events) window.removeEventListener(event, wake, { capture: true })
    }
  }, [waits, turnOn])

  useEffect(
    () => () => {
      void context.current?.close()
      context.current = null
    },
    [],
  )

  useEffect(() => {
    const audio = context.current
    if (!on || !audio || state.phase !== 'running') return
    const pending = new Set<OscillatorNode>()
    const clock = new AudioClock(audio)
    let through = positionAt(state, steadyNow(), scenes) - 60
    // What lies behind a closed gate begins with a tap; only the last cue of all may sound at the limit itself.
    const limit = limitOf(state, scenes)
    const schedule = () => {
      const now = steadyNow()
      const position = positionAt(state, now, scenes)
      const until = position + AHEAD
      for (const cue of cues) {
        const at = cueTime(cue, state.added)
        // What a machine that slept has missed is not rung afterwards.
        if (at <= through || at < position - MISSED || at > until) continue
        if (!stays(cue, scenes, state.added)) continue
        if (at >= limit && cue.kind !== 'finish') continue
        for (const node of ring(audio, cue.kind, clock.at(now + at - position))) {
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
  }, [on, cues, scenes, state])

  return { on, waits, turnOn, turnOff }
}

function ring(audio: AudioContext, kind: Cue['kind'], at: number): OscillatorNode[] {
  const { pitch, length, strikes } = sounds[kind]
  return Array.from({ length: strikes }, (_, strike) => {
    const start = at + strike * (length * 0.6)
    const node = audio.createOscillator()
    const gain = audio.createGain()
    node.frequency.value = pitch
    gain.gain.setValueAtTime(0.0001, start)
    gain.gain.exponentialRampToValueAtTime(0.6, start + 0.01)
    gain.gain.exponentialRampToValueAtTime(0.0001, start + length)
    node.connect(gain).connect(audio.destination)
    node.start(start)
    node.stop(start + length + 0.02)
    return node
  })
}
