/*
 * Where a class under way is: state = fold(commands, timeline). The same fold as Halterion.Core.Sessions.LeadFold,
 * carried here so that leading goes on without the server. Both are held to tests/lead-cases.json.
 */

export type CommandKind = 'start' | 'pause' | 'resume' | 'skip' | 'back' | 'addTen' | 'finish' | 'go'

export interface Command {
  id: string
  kind: CommandKind
  /** Milliseconds since 1970 UTC, on a clock that only goes forwards while the class is led. */
  at: number
  /** Which screen it was tapped on. */
  device?: string | null
}

export interface Ends {
  /** Seconds from the start of the planned class. */
  end: number
  /** It begins with a tap only. */
  gated?: boolean
}

export interface LeadState {
  phase: 'ready' | 'running' | 'paused' | 'finished'
  /** Milliseconds along the led timeline at `at`. */
  position: number
  at: number
  /** Milliseconds added to each scene. */
  added: number[]
  /** The last scene whose gate was opened; -1: none. */
  opened: number
}

const BACK_GRACE = 2000

export function fold(commands: Command[], scenes: Ends[]): LeadState {
  return commands.reduce((state, command) => apply(state, command, scenes), {
    phase: 'ready',
    position: 0,
    at: 0,
    added: scenes.map(() => 0),
    opened: -1,
  } as LeadState)
}

/** Milliseconds added to the first `count` scenes. */
export const addedBefore = (added: number[], count: number): number =>
  added.slice(0, Math.max(0, count)).reduce((sum, ms) => sum + ms, 0)

/** End of a scene on the led timeline. */
export const endOf = (scenes: Ends[], added: number[], scene: number): number =>
  scene < 0 ? 0 : scenes[scene]!.end * 1000 + addedBefore(added, scene + 1)

export function positionAt(state: LeadState, moment: number, scenes: Ends[]): number {
  if (state.phase !== 'running') return state.position
  return Math.min(state.position + Math.max(0, moment - state.at), limitOf(state, scenes))
}

/** The next scene whose gate is closed; the number of scenes if there is none. */
export function nextGate(state: LeadState, scenes: Ends[]): number {
  const gate = scenes.findIndex((scene, i) => i > state.opened && scene.gated === true)
  return gate < 0 ? scenes.length : gate
}

/** How far the class can run without a tap. */
export const limitOf = (state: LeadState, scenes: Ends[]): number =>
  endOf(scenes, state.added, nextGate(state, scenes) - 1)

/** The scene at a position; the last one at and past the end. */
export function sceneAt(position: number, scenes: Ends[], added: number[]): number {
  let extra = 0
  for (let i = 0; i < scenes.length; i++) {
    extra += added[i]!
    if (position < scenes[i]!.end * 1000 + extra) return i
  }
  return scenes.length - 1
}

function apply(before: LeadState, command: Command, scenes: Ends[]): LeadState {
  // A clock that was set back must not undo what has been shown.
  const at = Math.max(command.at, before.at)
  const position = positionAt(before, at, scenes)
  const end = endOf(scenes, before.added, scenes.length - 1)
  const state: LeadState =
    before.phase === 'running' && position >= end
      ? { ...before, phase: 'finished', position: end, at: before.at + end - before.position }
      : before
  const here = { ...state, position, at }
  const scene = sceneAt(position, scenes, state.added)
  const underWay = state.phase === 'running' || state.phase === 'paused'
  switch (command.kind) {
    case 'start':
      return state.phase === 'ready' ? { ...here, phase: 'running' } : state
    case 'pause':
      return state.phase === 'running' ? { ...here, phase: 'paused' } : state
    case 'resume':
      return state.phase === 'paused' || state.phase === 'finished' ? { ...here, phase: 'running' } : state
    case 'finish':
      return underWay ? { ...here, phase: 'finished' } : state
    case 'go':
      return state.phase === 'running' && position === limitOf(state, scenes) && position < end
        ? { ...here, opened: scene }
        : state
    case 'skip':
      return underWay
        ? { ...here, position: endOf(scenes, state.added, scene), opened: Math.max(state.opened, scene + 1) }
        : state
    case 'addTen':
      return underWay ? { ...here, added: state.added.map((ms, i) => (i === scene ? ms + 10_000 : ms)) } : state
    case 'back': {
      if (state.phase === 'ready') return state
      const to = backFrom(position, scene, state, scenes)
      return {
        ...here,
        phase: state.phase === 'finished' ? 'paused' : state.phase,
        position: to,
        opened: Math.min(state.opened, sceneAt(to, scenes, state.added)),
      }
    }
  }
}

function backFrom(position: number, scene: number, state: LeadState, scenes: Ends[]): number {
  const start = endOf(scenes, state.added, scene - 1)
  return position - start > BACK_GRACE ? start : endOf(scenes, state.added, scene - 2)
}
