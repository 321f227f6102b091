/*
 * Where a class under way is: state = fold(commands, timeline). The same fold as Halterion.Core.Sessions.LeadFold,
 * carried here so that leading goes on without the server. Both are held to tests/lead-cases.json.
 */
import type { Schemas } from '../../api/client'

export type CommandKind = Schemas['LeadCommandKind']

/** Milliseconds by which scenes become longer or shorter. */
export type Shift = { scene: number; by: number }

export interface Payload {
  shifts?: Shift[] | null
  scene?: number | null
  text?: string | null
  person?: string | null
  tap?: Schemas['LeadPayload']['tap']
}

export interface Command {
  id: string
  kind: CommandKind
  /** Milliseconds since 1970 UTC, on a clock that only goes forwards while the class is led. */
  at: number
  /** Which screen it was tapped on. */
  device?: string | null
  payload?: Payload | null
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
  /** The device that leads: the last that started the class or took it over. */
  leader: string | null
}

const BACK_GRACE = 2000

export function fold(commands: Command[], scenes: Ends[]): LeadState {
  return commands.reduce((state, command) => apply(state, command, scenes), {
    phase: 'ready',
    position: 0,
    at: 0,
    added: scenes.map(() => 0),
    opened: -1,
    leader: null,
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

const plannedOf = (scenes: Ends[], scene: number): number =>
  1000 * (scenes[scene]!.end - (scene === 0 ? 0 : scenes[scene - 1]!.end))

/** What a scene takes on the led timeline, in milliseconds. */
export const lengthOf = (scenes: Ends[], added: number[], scene: number): number =>
  plannedOf(scenes, scene) + added[scene]!

/** The next scene whose gate is closed; the number of scenes if there is none. A scene that was left out waits for nobody. */
export function nextGate(state: LeadState, scenes: Ends[]): number {
  const gate = scenes.findIndex(
    (scene, i) => i > state.opened && scene.gated === true && lengthOf(scenes, state.added, i) > 0,
  )
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

/** The state after one more command. */
export function apply(before: LeadState, command: Command, scenes: Ends[]): LeadState {
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
      return state.phase === 'ready' ? { ...here, phase: 'running', leader: command.device ?? state.leader } : state
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
    case 'lessTen':
      return underWay ? { ...here, added: shifted(here, scene, [{ scene, by: -10_000 }], scenes) } : state
    case 'adjust':
      return state.phase === 'finished'
        ? state
        : { ...here, added: shifted(here, scene, command.payload?.shifts ?? [], scenes) }
    case 'jump': {
      const to = command.payload?.scene
      if (state.phase === 'ready' || to == null || to < 0 || to >= scenes.length) return state
      return {
        ...here,
        phase: state.phase === 'finished' ? 'paused' : state.phase,
        position: endOf(scenes, state.added, to - 1),
        opened: to > scene ? Math.max(state.opened, to) : Math.min(state.opened, to),
      }
    }
    case 'note':
      return state
    case 'lead':
      return { ...state, leader: command.device ?? state.leader }
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

/** What is added to each scene after shifts: none of the past is moved, none gets shorter than nothing or than what has run. */
function shifted(here: LeadState, scene: number, shifts: Shift[], scenes: Ends[]): number[] {
  const added = [...here.added]
  for (const { scene: at, by } of shifts) {
    if (at < scene || at >= scenes.length) continue
    const run = at === scene ? here.position - endOf(scenes, here.added, scene - 1) : 0
    added[at] = Math.max(added[at]! + by, run - plannedOf(scenes, at))
  }
  return added
}

function backFrom(position: number, scene: number, state: LeadState, scenes: Ends[]): number {
  const start = endOf(scenes, state.added, scene - 1)
  return position - start > BACK_GRACE ? start : endOf(scenes, state.added, scene - 2)
}
