/* What is counted of a stretch of work: one rule for every screen, so that the number and the figure agree. */
import type { Schemas } from '../../api/client'

type Counted = Pick<Schemas['Scene'], 'reps' | 'repSeconds' | 'countsDown'>

/**
 * The rep under way, or what is left with it where that is counted aloud; null: nothing is counted here.
 * @param into seconds into the scene
 */
export function countAt({ reps, repSeconds, countsDown }: Counted, into: number): number | null {
  if (!reps || !repSeconds) return null
  const done = Math.min(reps - 1, Math.max(0, Math.floor(into / repSeconds)))
  return countsDown ? reps - done : done + 1
}
