/* Which way to catch up was taken last, told from the taps alone: a reload, and another screen, can still take it back. */
import type { Command, Ends, Shift } from './fold'
import { fold } from './fold'

export interface Taken {
  title: string
  /** What takes it back. */
  back: Shift[]
}

/** The last way that was taken and not taken back; null: none. */
export function lastTaken(commands: Command[], scenes: Ends[]): Taken | null {
  const open: number[] = []
  commands.forEach(({ kind, payload }, i) => {
    if (kind !== 'adjust' || payload?.text == null) return
    if (payload.text === '') open.pop()
    else open.push(i)
  })
  const last = open.at(-1)
  if (last === undefined) return null
  // What it really changed, for nothing gets shorter than what has run.
  const [before, after] = [commands.slice(0, last), commands.slice(0, last + 1)].map((c) => fold(c, scenes).added)
  const back = before!.flatMap((ms, scene) => (ms === after![scene] ? [] : [{ scene, by: ms - after![scene]! }]))
  return { title: commands[last]!.payload!.text!, back }
}
