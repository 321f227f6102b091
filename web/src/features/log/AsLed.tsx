import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../../api/client'
import { clock } from '../../ui/time'
import css from './Log.module.css'

/** The class as it ran, against its plan: two tapes of one scale, and what was otherwise in words. */
export function AsLed({ session }: { session: string }) {
  const led = useQuery({
    queryKey: ['as-led', session],
    queryFn: () => answer(api.GET('/api/sessions/{id}/as-led', { params: { path: { id: session } } })),
    retry: false,
  }).data
  if (!led) return null
  const other = led.spans.filter((span) => span.note !== '')
  return (
    <details className={css.asLed}>
      <summary>
        How it ran: {led.words}
        {led.ways.length > 0 && `; to catch up: ${led.ways.join(', ')}`}
      </summary>
      {(['planned', 'real'] as const).map((which) => (
        <div key={which} className={css.ran}>
          <span>{which === 'planned' ? 'planned' : 'as led'}</span>
          <div className={css.ranTape} aria-hidden>
            {led.spans.map((span, i) => (
              <i key={i} data-kind={span.kind} style={{ flexGrow: span[which] }} />
            ))}
            <i data-kind="none" style={{ flexGrow: leftOver(led.spans, which) }} />
          </div>
        </div>
      ))}
      {other.length === 0 ? (
        <p>Everything ran as planned.</p>
      ) : (
        <table className={css.otherwise}>
          <caption>What ran otherwise</caption>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Planned</th>
              <th scope="col">As led</th>
              <th scope="col" />
            </tr>
          </thead>
          <tbody>
            {other.map((span, i) => (
              <tr key={i}>
                <td>{span.words}</td>
                <td>{clock(span.planned)}</td>
                <td>{clock(span.real)}</td>
                <td>{span.note}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </details>
  )
}

/** Both tapes are drawn to one scale: the shorter one leaves the rest empty. */
function leftOver(spans: { planned: number; real: number }[], which: 'planned' | 'real') {
  const length = (of: 'planned' | 'real') => spans.reduce((all, span) => all + span[of], 0)
  return Math.max(length('planned'), length('real')) - length(which)
}
