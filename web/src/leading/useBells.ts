import { useCallback, useEffect, useRef, useState } from 'react'
import { newContext } from './core/audioClock'
import type { Peal } from './core/bells'
import { ringing } from './core/bells'
import type { LeadState } from './core/fold'
import { exactNow } from './steady'

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

/** Rings the cues of a class. */
export function useBells(peal: Peal, state: LeadState): Bells {
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
    return ringing(peal, state, audio, exactNow)
  }, [on, peal, state])

  return { on, waits, turnOn, turnOff }
}
