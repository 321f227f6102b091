import { useCallback, useEffect, useRef } from 'react'
import type { Lead } from './useLead'
import { endOf, positionAt, sceneAt } from './core/fold'
import { steadyNow } from './steady'

/**
 * Seconds into the scene under way, whenever it is asked: it stands while the class does, and a film with it.
 * @param faster so many times as fast, for a film of another tempo
 */
export function useSceneClock(lead: Lead, faster = 1): () => number {
  const latest = useRef(lead)
  useEffect(() => {
    latest.current = lead
  }, [lead])
  return useCallback(() => {
    const { script, state } = latest.current
    const position = positionAt(state, Math.max(steadyNow(), state.at), script.scenes)
    const scene = sceneAt(position, script.scenes, state.added)
    return (faster * Math.max(0, position - endOf(script.scenes, state.added, scene - 1))) / 1000
  }, [faster])
}
