import type { State } from './ClassEditor'

/** The steps of a class that can be undone and done again, as a tab keeps them over a reload. */
export interface UndoSteps {
  now: State
  past: State[]
  future: State[]
}

const PREFIX = 'halterion.undo.'
const KEEPS_AFTER = 300

/** What a tab may keep in all is about 5 MB; a class of 40 stations takes 30 kB. */
const MOST = 1_500_000

const timers = new Map<string, ReturnType<typeof setTimeout>>()
const latest = new Map<string, UndoSteps>()

export function keepSteps(id: string, { now, past, future }: UndoSteps) {
  latest.set(id, { now, past, future })
  clearTimeout(timers.get(id))
  timers.set(
    id,
    setTimeout(() => write(id), KEEPS_AFTER),
  )
}

window.addEventListener('pagehide', () => latest.forEach((_, id) => write(id)))

function write(id: string) {
  const steps = latest.get(id)
  if (!steps) return
  latest.delete(id)
  // The nearest steps first, as many as there is room for.
  for (let most = 60; most > 0; most = Math.floor(most / 2)) {
    const text = JSON.stringify({
      now: steps.now,
      past: steps.past.slice(-most),
      future: steps.future.slice(0, most),
    } satisfies UndoSteps)
    if (text.length > MOST) continue
    try {
      sessionStorage.setItem(PREFIX + id, text)
      return
    } catch {
      // Other classes take the room: fewer steps of this one.
    }
  }
}

export function keptSteps(id: string): UndoSteps | null {
  try {
    const text = sessionStorage.getItem(PREFIX + id)
    return text === null ? null : (JSON.parse(text) as UndoSteps)
  } catch {
    return null
  }
}
