import type { useWays } from '../../leading/useWays'
import { spoken } from '../../ui/time'
import css from './Stage.module.css'

/** Ways back where the class runs late, or what to do with time in hand; nothing is changed unasked. */
export function WaysBar({ ways }: { ways: ReturnType<typeof useWays> }) {
  const { found, failed, taken, take, undo, seen } = ways
  if (!taken && !found?.ways.length && !failed) return null
  return (
    <section className={css.waysBar} aria-label="Back on time" data-testid="ways">
      {taken && (
        <p role="status">
          Taken: {taken.way.title}.{' '}
          <button type="button" className={css.way} onClick={undo}>
            Take it back
          </button>{' '}
          <button type="button" className={css.way} onClick={seen}>
            Good
          </button>
        </p>
      )}
      {failed && !taken && <p>Ways back need the server. Ten seconds less, and skip, go on without it.</p>}
      {found && found.ways.length > 0 && (
        <>
          <p className={css.late} data-late={found.lateSeconds > 0}>
            {found.words}
            {found.shortBy > 0 && `; even so ${spoken(found.shortBy)} late. ${found.obstacles[0] ?? ''}`}
          </p>
          {found.ways.map((way, i) => (
            <button type="button" key={way.title + i} className={css.way} onClick={() => take(way)}>
              <kbd className={css.key} aria-hidden="true">
                {i + 1}
              </kbd>
              <b>{way.title}</b>
              <span>{way.changes.join('; ')}</span>
            </button>
          ))}
        </>
      )}
    </section>
  )
}
