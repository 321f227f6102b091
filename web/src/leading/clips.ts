/*
 * Clips that the instructor recorded once, for a device without a voice: a few words and numbers, kept in this browser.
 */
import type { Schemas } from '../api/client'

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

const STORE = 'clips'
const kept = new Map<string, string>()

function database(): Promise<IDBDatabase> {
  return new Promise((resolve, reject) => {
    const asked = indexedDB.open('halterion', 1)
    asked.onupgradeneeded = () => asked.result.createObjectStore(STORE)
    asked.onsuccess = () => resolve(asked.result)
    asked.onerror = () => reject(asked.error ?? new Error('This browser keeps nothing.'))
  })
}

const done = (request: IDBRequest) =>
  new Promise<void>((resolve, reject) => {
    request.onsuccess = () => resolve()
    request.onerror = () => reject(request.error ?? new Error('It could not be kept.'))
  })

/** Brings the recorded clips to hand; what was recorded before stays. */
export async function loadClips(): Promise<string[]> {
  const store = (await database()).transaction(STORE).objectStore(STORE)
  for (const word of CLIPS) {
    const request = store.get(word)
    await done(request)
    if (request.result instanceof Blob && !kept.has(word)) kept.set(word, URL.createObjectURL(request.result))
  }
  return [...kept.keys()]
}

export async function keepClip(word: string, sound: Blob | null) {
  const store = (await database()).transaction(STORE, 'readwrite').objectStore(STORE)
  await done(sound ? store.put(sound, word) : store.delete(word))
  const old = kept.get(word)
  if (old) URL.revokeObjectURL(old)
  kept.delete(word)
  if (sound) kept.set(word, URL.createObjectURL(sound))
}

/** Which clips stand for a call: its number, its side, its sign. */
function wordsOf(text: string, kind: Schemas['CallKind'] | 'try'): string[] {
  const low = text.toLowerCase()
  const sides = (['left', 'right'] as const).filter((side) => new RegExp(`\\b${side}\\b`).test(low)).slice(0, 1)
  switch (kind) {
    case 'count':
    case 'countIn':
      return [low.split(' ')[0]!]
    case 'side':
      return low.startsWith('switch') ? ['switch', ...sides] : sides
    case 'next':
      return ['next', ...sides]
    case 'time':
      return [
        low.startsWith('half')
          ? 'half-way'
          : low.startsWith('10')
            ? 'ten seconds'
            : low.startsWith('5 ')
              ? 'five seconds'
              : '',
      ]
    case 'rest':
      return ['rest']
    case 'drink':
      return ['drink']
    case 'round':
      return ['round done']
    case 'end':
      return ['the end']
    case 'try':
      return ['left', 'switch', 'right']
    default:
      return []
  }
}

export function clipsFor(text: string, kind: Schemas['CallKind'] | 'try') {
  const sounds = wordsOf(text, kind)
    .map((word) => kept.get(word))
    .filter((url): url is string => url !== undefined)
  return {
    /** False: none of them was recorded. */
    play(loudness: number): boolean {
      if (sounds.length === 0) return false
      const [first, ...rest] = sounds
      const sound = new Audio(first)
      sound.volume = loudness
      sound.onended = () => {
        const next = rest.shift()
        if (!next) return
        sound.src = next
        void sound.play()
      }
      void sound.play().catch(() => undefined)
      return true
    },
  }
}
