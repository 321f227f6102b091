import type { Lead } from './useLead'
import { endOf, limitOf, positionAt, sceneAt } from './core/fold'
import { useNow } from './useNow'

/** Where a class under way is, as a screen shows it. */
export function useClock(lead: Lead) {
  const { script, state } = lead
  const { scenes } = script
  const tick = useNow(state.phase === 'running')
  // A tap may be younger than the last tick.
  const now = Math.max(tick, state.at)
  const position = positionAt(state, now, scenes)
  const end = endOf(scenes, state.added, scenes.length - 1)
  const over = state.phase === 'finished' || (state.phase === 'running' && position >= end)
  const phase = over ? 'finished' : state.phase
  const index = sceneAt(position, scenes, state.added)
  const scene = scenes[index]!
  // At a closed gate the clock stands and the next scene waits for a tap.
  const waiting = phase === 'running' && position >= limitOf(state, scenes)
  const left = (endOf(scenes, state.added, index) - position) / 1000
  const shown = phase === 'ready' ? scene.end - scene.start : Math.ceil(left)
  /** How far into the scene, in seconds. */
  const into = (position - endOf(scenes, state.added, index - 1)) / 1000
  /** The moment at which the scene began, or would have without a pause; it stands while the class runs on. */
  const began = now - (position - endOf(scenes, state.added, index - 1))
  return { now, position, end, over, phase, index, scene, waiting, left, shown, into, began } as const
}

export type Clock = ReturnType<typeof useClock>

/** What the one main button does now. */
export function mainAct({ phase, waiting }: Pick<Clock, 'phase' | 'waiting'>) {
  return phase === 'ready'
    ? ({ kind: 'start', name: 'Start the class' } as const)
    : waiting
      ? ({ kind: 'go', name: 'Go' } as const)
      : phase === 'running'
        ? ({ kind: 'pause', name: 'Pause' } as const)
        : ({ kind: 'resume', name: 'Carry on' } as const)
}
