/*
 * Clips that the instructor recorded once, for a device without a voice: a few words and numbers, kept in this browser, where they
 * need no server, and with the data, so that they are in its copies and on other screens.
 */
import { createStore, del, entries, set } from 'idb-keyval'
import { answer, api } from '../api/client'

export const CLIPS = [
  'left',
  'right',
  'switch',
  'rest',
  'next',
  'half-way',
  'ten seconds',
  'five seconds',
  'drink',
  'round done',
  'the end',
  ...Array.from({ length: 20 }, (_, i) => String(i + 1)),
] as const

const kept = new Map<string, Blob>()
const here = createStore('halterion', 'clips')

/** Brings the recorded clips to hand: those of this browser, and those of the data that it has not. */
export async function loadClips(): Promise<string[]> {
  for (const [word, sound] of await entries<string, unknown>(here))
    if (sound instanceof Blob && !kept.has(word)) kept.set(word, sound)
  try {
    const theirs = await answer(api.GET('/api/clips'))
    for (const word of theirs.filter((w) => !kept.has(w))) await keepHere(word, await fetched(word))
    // What was recorded before there was a place for it, or while nobody answered, is brought there.
    for (const word of [...kept.keys()].filter((w) => !theirs.includes(w))) await bring(word)
  } catch {
    // Nobody answers: what this browser has must do.
  }
  return [...kept.keys()]
}

/** Keeps a clip, or takes it out; false: only in this browser, for nobody answered. */
export async function keepClip(word: string, sound: Blob | null): Promise<boolean> {
  await keepHere(word, sound)
  try {
    if (sound) await bring(word)
    else await answer(api.DELETE('/api/clips/{word}', { params: { path: { word } } }))
    return true
  } catch {
    return false
  }
}

async function keepHere(word: string, sound: Blob | null) {
  await (sound ? set(word, sound, here) : del(word, here))
  if (sound) kept.set(word, sound)
  else kept.delete(word)
}

const at = (word: string) => `/api/clips/${encodeURIComponent(word)}`

const fetched = async (word: string) => (await fetch(at(word))).blob()

async function bring(word: string) {
  const sound = kept.get(word)!
  const sent = await fetch(at(word), { method: 'PUT', headers: { 'Content-Type': sound.type }, body: sound })
  if (!sent.ok) throw new Error('The recording could not be saved.')
}

/** Plays what was recorded of these words, one after the other; false: none of them was. */
export function playClips(words: readonly string[], loudness: number): boolean {
  const sounds = words.map((word) => kept.get(word)).filter((sound) => sound !== undefined)
  if (sounds.length === 0) return false
  const player = new Audio()
  player.volume = loudness
  const next = () => {
    URL.revokeObjectURL(player.src)
    const sound = sounds.shift()
    if (!sound) return
    player.src = URL.createObjectURL(sound)
    void player.play().catch(() => undefined)
  }
  player.onended = next
  next()
  return true
}
