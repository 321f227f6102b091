/* What sounds and what is said of a class under way, and when: one rule for every screen and for the page that is taken along. */
import type { Schemas } from '../../api/client'
import type { Ends, LeadState } from './fold'
import { addedBefore, endOf, lengthOf, limitOf } from './fold'

export type Cue = Schemas['Cue']
export type Call = Schemas['Call']
export type TimeLeft = Schemas['TimeLeft']

/** What is missed by more than this, in milliseconds, is not made up for: a machine slept, or was busy. */
const MISSED = 400

/** What has its moment in the planned class, and hangs on the scenes before it. */
type Planned = Pick<Cue, 'at' | 'shift' | 'scene'>

/** When it is on the led timeline, in milliseconds. */
export const ledAt = (it: Planned, added: number[]): number => it.at * 1000 + addedBefore(added, it.shift)

/** What is about a scene that was left out, or has become too short for it, is neither rung nor said. */
export function stays(it: Planned, scenes: Ends[], added: number[]): boolean {
  if (it.scene == null) return true
  if (lengthOf(scenes, added, it.scene) <= 0) return false
  const at = ledAt(it, added)
  // One that hangs on the end of its scene is not before it; one that hangs on its start is not behind it.
  return it.shift > it.scene
    ? at >= endOf(scenes, added, it.scene - 1)
    : at <= Math.max(endOf(scenes, added, it.scene), endOf(scenes, added, it.scene - 1))
}

/** What is due after one place of the led timeline, up to and with another. */
function due<T extends Planned>(
  all: T[],
  scenes: Ends[],
  added: number[],
  after: number,
  until: number,
): [number, T][] {
  const found: [number, T][] = []
  for (const it of all) {
    const at = ledAt(it, added)
    if (at > after && at <= until && stays(it, scenes, added)) found.push([at, it])
  }
  return found
}

/** Which bells ring, and at which places; those long past are left out. */
export function bellsBetween(
  cues: Cue[],
  scenes: Ends[],
  state: LeadState,
  position: number,
  after: number,
  until: number,
): [number, Cue][] {
  // What lies behind a closed gate begins with a tap; only the last cue of all may sound at the limit itself.
  const limit = limitOf(state, scenes)
  return due(cues, scenes, state.added, Math.max(after, position - MISSED), until).filter(
    ([at, cue]) => at < limit || cue.kind === 'finish',
  )
}

/** Chooses what is said as a class runs on: what is being said is never talked over. */
export class Caller {
  private busyUntil = -1

  /** @param through where it has been on the led timeline: what came before is not said */
  constructor(
    private readonly calls: Call[],
    private readonly scenes: Ends[],
    private readonly state: LeadState,
    private through: number,
    private readonly left: TimeLeft[] = [],
  ) {}

  /** What begins now, at this place of the led timeline; null: nothing. */
  at(position: number): Call | null {
    const { added } = this.state
    const limit = limitOf(this.state, this.scenes)
    const after = Math.max(this.through, position - MISSED)
    this.through = Math.max(this.through, position)
    let said: Call | null = null
    for (const [at, call] of due(this.calls, this.scenes, added, after, position)) {
      // Behind a closed gate nothing is said; that it is waited for, and the last word of all, have their place at the limit itself.
      if (at >= limit && call.kind !== 'end' && call.kind !== 'gate') continue
      if (at < this.busyUntil) continue
      this.busyUntil = at + call.seconds * 1000
      said = call.kind === 'minutes' ? this.asItStands(call, position) : call
    }
    return said
  }

  /** Minutes left are those of the class as it stands when they are said. */
  private asItStands(call: Call, position: number): Call {
    const seconds = (endOf(this.scenes, this.state.added, this.scenes.length - 1) - position) / 1000
    const text = this.left.find(({ under }) => seconds < under)?.words
    return text ? { ...call, text } : call
  }
}
