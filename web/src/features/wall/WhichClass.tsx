import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { timeAt } from '../../ui/time'

/** What this screen shows where its address names no class. */
export const useNowOn = (enabled: boolean) =>
  useQuery({ queryKey: ['now-on'], queryFn: () => answer(api.GET('/api/wall')), enabled, refetchInterval: 5000 })

interface Props {
  /** Under which address a class is shown: "/wall/" or "/remote/". */
  at: string
  running: Schemas['ClassInProgress'][]
  className?: string
}

/** Two classes are in progress, and this screen was paired from neither: it says so and asks. */
export function WhichClass({ at, running, className }: Props) {
  return (
    <nav className={className} aria-label="Which class">
      <p>{running.length} classes are in progress. Which one?</p>
      {running.map(({ session, title, startedAt }) => (
        <a key={session} href={at + session}>
          {title}, started {timeAt(startedAt, 'h24')}
        </a>
      ))}
    </nav>
  )
}
