import type { Ways } from '../../leading/useWays'
import { spoken } from '../../ui/time'
import css from './Stage.module.css'

/** Ways to catch up where the class runs late, or what to do with time in hand; nothing is changed unasked. */
export function WaysBar({ ways }: { ways: Ways }) {
  const { found, failed, taken, fresh, take, undo, seen, putAway } = ways
  const isFresh = taken !== null && fresh
  if (!isFresh && !found?.ways.length && !failed) return null
  return (
    <section className={css.waysBar} aria-label="Ways to catch up" data-testid="ways" tabIndex={0}>
      {isFresh && (
        <p role="status">
          Done: {taken.title}.{' '}
          <button type="button" className={css.way} onClick={undo}>
            <Key>u</Key> Undo
          </button>{' '}
          <button type="button" className={css.way} onClick={seen}>
            OK
          </button>
        </p>
      )}
      {failed && !isFresh && <p>No suggestions while offline. −10 s and Skip still work.</p>}
      {found && found.ways.length > 0 && (
        <>
          <p className={css.late} data-late={found.lateSeconds > 0}>
            {found.words}
            {found.shortBy > 0 &&
              `. Even with this you finish ${spoken(found.shortBy)} late. ${found.obstacles[0] ?? ''}`}
          </p>
          {found.ways.map((way, i) => (
            <button type="button" key={way.title + i} className={css.way} onClick={() => take(way)}>
              <Key>{i + 1}</Key>
              <b>{way.title}</b>
              <span>{way.changes.join('; ')}</span>
            </button>
          ))}
          <button type="button" className={css.way} onClick={putAway}>
            <Key>0</Key> Not now
          </button>
        </>
      )}
    </section>
  )
}

const Key = ({ children }: { children: React.ReactNode }) => (
  <kbd className={css.key} aria-hidden="true">
    {children}
  </kbd>
)
