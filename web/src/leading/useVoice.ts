import { useCallback, useEffect, useState } from 'react'
import type { Schemas } from '../api/client'
import { loadClips, playClips } from './clips'
import type { LeadState } from './core/fold'
import { positionAt } from './core/fold'
import { Caller } from './core/sounding'
import { steadyNow } from './steady'

type Call = Schemas['Call']
type Script = Pick<Schemas['LeadScript'], 'calls' | 'scenes' | 'left'>

/** How often the calls are looked at, in milliseconds. */
const EVERY = 60

const WANTED = 'halterion.voice'

export interface VoiceSettings {
  on: boolean
  /** From 0 to 1. */
  loudness: number
  /** Of the device's voices; empty: the first that speaks English. */
  voice: string
}

const usual: VoiceSettings = { on: false, loudness: 1, voice: '' }

/** How this screen speaks: each screen for itself. */
export function voiceSettings(): VoiceSettings {
  try {
    return { ...usual, ...(JSON.parse(localStorage.getItem(WANTED) ?? '{}') as Partial<VoiceSettings>) }
  } catch {
    return usual
  }
}

export function keepVoice(settings: VoiceSettings) {
  try {
    localStorage.setItem(WANTED, JSON.stringify(settings))
  } catch {
    // A browser that keeps nothing asks anew.
  }
}

/** The voices of this device; they may come a moment after the page. */
export function useVoices(): SpeechSynthesisVoice[] {
  const [voices, setVoices] = useState<SpeechSynthesisVoice[]>([])
  useEffect(() => {
    const speech = window.speechSynthesis
    if (!speech) return
    const look = () => setVoices(speech.getVoices())
    look()
    speech.addEventListener?.('voiceschanged', look)
    return () => speech.removeEventListener?.('voiceschanged', look)
  }, [])
  return voices
}

/** Says something: by a voice of the device, else by clips that were recorded; false: there is neither. */
export function say(
  { text, clips }: Pick<Call, 'text' | 'clips'>,
  voices: SpeechSynthesisVoice[],
  settings: VoiceSettings,
): boolean {
  const voice =
    voices.find((v) => v.voiceURI === settings.voice) ?? voices.find((v) => v.lang.startsWith('en')) ?? voices[0]
  if (voice) {
    const words = new SpeechSynthesisUtterance(text)
    words.voice = voice
    words.lang = voice.lang
    words.volume = settings.loudness
    // Three quarters of a second hold nearly two words at this rate: what the calls are measured with.
    words.rate = 1.15
    window.speechSynthesis.speak(words)
    return true
  }
  return playClips(clips ?? [], settings.loudness)
}

/** Says the calls of a class at their moment; what is being said is never talked over. */
export function useVoice({ calls, scenes, left }: Script, state: LeadState, silent: boolean) {
  const [settings, setSettings] = useState(voiceSettings)
  const [caption, setCaption] = useState<Call | null>(null)
  const [speaking, setSpeaking] = useState(false)
  const voices = useVoices()
  // Where the device has no voice, what was recorded is brought to hand before it is needed.
  useEffect(() => {
    if (settings.on && voices.length === 0) void loadClips().catch(() => undefined)
  }, [settings.on, voices.length])

  const set = useCallback((next: VoiceSettings) => {
    keepVoice(next)
    setSettings(next)
    if (!next.on) window.speechSynthesis?.cancel()
  }, [])

  useEffect(() => {
    if (state.phase !== 'running') return
    const place = () => positionAt(state, steadyNow(), scenes)
    const caller = new Caller(calls, scenes, state, place() - 1, left)
    let quiet: ReturnType<typeof setTimeout> | undefined
    const look = () => {
      const call = caller.at(place())
      if (!call) return
      setCaption(call)
      setSpeaking(settings.on)
      clearTimeout(quiet)
      quiet = setTimeout(() => setSpeaking(false), call.seconds * 1000)
      if (settings.on && !silent) say(call, voices, settings)
    }
    const timer = setInterval(look, EVERY)
    return () => {
      clearInterval(timer)
      clearTimeout(quiet)
      setSpeaking(false)
    }
  }, [calls, scenes, left, state, settings, silent, voices])

  useEffect(() => {
    if (state.phase !== 'running') window.speechSynthesis?.cancel()
  }, [state.phase])

  return { settings, set, caption, voices, speaking }
}

export type Voice = ReturnType<typeof useVoice>
