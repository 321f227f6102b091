/*
 * What this browser keeps so that nothing typed is lost with a tab. Every tab keeps its own, under its own name, so that
 * two tabs never overwrite each other; what a tab that is gone has left behind is taken over by the next one.
 */

const PREFIX = 'halterion.'

/** Apart from what one tab keeps, so that nobody takes it for something that a tab has left behind. */
const SHARED = 'halterion/'
const tab = crypto.randomUUID()

// The lock lives as long as the tab: whoever can take another tab's lock knows that it is gone.
void navigator.locks?.request(PREFIX + tab, () => new Promise(() => undefined))

const key = (kind: string, id: string, of = tab) => `${PREFIX}${kind}.${id}.${of}`

export function keep(kind: string, id: string, value: unknown) {
  try {
    localStorage.setItem(key(kind, id), JSON.stringify(value))
  } catch {
    // Without room in the browser the server's own copy still holds; only a time without the server is at risk.
  }
}

export function forget(kind: string, id: string) {
  localStorage.removeItem(key(kind, id))
}

function read<T>(at: string): T | null {
  try {
    const text = localStorage.getItem(at)
    return text === null ? null : (JSON.parse(text) as T)
  } catch {
    return null
  }
}

/** This tab's own. */
export const kept = <T>(kind: string, id: string): T | null => read<T>(key(kind, id))

/** A page that was reloaded a moment ago may still seem to hold its lock: it is looked at again before it is believed. */
const LOOKS = 4
const BETWEEN_LOOKS = 250

async function isAlive(other: string): Promise<boolean> {
  if (!navigator.locks) return false
  for (let look = 1; ; look++) {
    const { held } = await navigator.locks.query()
    if (!held?.some((lock) => lock.name === PREFIX + other)) return false
    if (look === LOOKS) return true
    await new Promise((resolve) => setTimeout(resolve, BETWEEN_LOOKS))
  }
}

/** What tabs that are gone have left behind of a kind, and of one thing if it is named; it is this tab's from now on. */
export async function leftBehind<T>(kind: string, id?: string): Promise<{ id: string; value: T }[]> {
  const found: { id: string; value: T }[] = []
  const start = `${PREFIX}${kind}.`
  for (const at of Object.keys(localStorage).filter((k) => k.startsWith(start))) {
    const [of, owner] = [at.slice(start.length, at.lastIndexOf('.')), at.slice(at.lastIndexOf('.') + 1)]
    if (owner === tab || (id !== undefined && of !== id) || (await isAlive(owner))) continue
    const value = read<T>(at)
    localStorage.removeItem(at)
    if (value !== null) found.push({ id: of, value })
  }
  return found
}

/** Shared by all tabs: what is the same for all of them, such as the script of a class under way. */
export const shared = {
  keep(kind: string, id: string, value: unknown) {
    try {
      localStorage.setItem(`${SHARED}${kind}.${id}`, JSON.stringify(value))
    } catch {
      // See keep.
    }
  },
  read: <T>(kind: string, id: string): T | null => read<T>(`${SHARED}${kind}.${id}`),
}

/** This browser, however many tabs and reloads it has: taps say which device they were made on. */
export const device = ownDevice()

function ownDevice(): string {
  try {
    const known = localStorage.getItem(SHARED + 'device')
    if (known) return known
    localStorage.setItem(SHARED + 'device', tab)
  } catch {
    // A browser that keeps nothing is another device after each reload.
  }
  return tab
}
