import { useEffect, useRef, useState } from 'react'
import { useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { answer, api, troubleWords } from '../../api/client'
import { mainAct, useClock } from '../../leading/useClock'
import type { Lead } from '../../leading/useLead'
import { useLead } from '../../leading/useLead'
import { useWakeLock } from '../../leading/useNow'
import { useWays } from '../../leading/useWays'
import { useTabName } from '../../ui/Page'
import { clock as clockWords, spoken } from '../../ui/time'
import { PeoplePanel } from '../lead/PeoplePanel'
import stage from '../lead/Stage.module.css'
import { WaysBar } from '../lead/WaysBar'
import { useWho, WhoNeeds } from '../lead/WhoNeeds'
import css from './Remote.module.css'

/** Leads from a phone in one hand. Without a session in its address it takes what is on. */
export function RemotePage() {
  const { session } = useParams()
  const now = useQuery({
    queryKey: ['now-on'],
    queryFn: () => answer(api.GET('/api/wall')),
    enabled: session === undefined,
    refetchInterval: 5000,
  })
  useTabName('Phone')
  const shown = session ?? now.data?.session ?? null
  if (!shown) return <p className={css.empty}>{now.error ? troubleWords(now.error) : 'Nothing is on.'}</p>
  return <Open key={shown} session={shown} />
}

function Open({ session }: { session: string }) {
  const { lead, problem } = useLead(session)
  if (lead) return <Remote lead={lead} />
  return <p className={css.empty}>{problem ? troubleWords(problem) : 'One moment.'}</p>
}

function Remote({ lead }: { lead: Lead }) {
  const { script, send } = lead
  const clock = useClock(lead)
  const { scene, index, phase, shown, over, waiting, left } = clock
  const ways = useWays(lead, clock)
  const who = useWho(lead.session)
  const [people, setPeople] = useState(false)
  const main = mainAct(clock)
  useWakeLock(phase === 'running')

  // Where the phone can, it is felt when something changes.
  const before = useRef(index)
  useEffect(() => {
    if (before.current !== index && phase === 'running')
      navigator.vibrate?.(scene.kind === 'work' ? [180] : [90, 60, 90])
    before.current = index
  }, [index, phase, scene.kind])

  return (
    <main className={css.remote} data-phase={phase}>
      <header className={css.top}>
        <span>{over ? script.title : [scene.blockName, scene.round].filter(Boolean).join(' · ')}</span>
        <b data-testid="class-left">{clockWords(Math.max(0, (clock.end - clock.position) / 1000))}</b>
      </header>
      <h1 className={css.head}>{over ? 'Done' : scene.headline}</h1>
      {!over && (
        <>
          <p className={css.target}>
            {scene.target} {scene.sideWords && <b className={css.side}>{scene.sideWords}</b>}
          </p>
          {scene.mirrorSide && <p className={css.soft}>{scene.mirrorSide}</p>}
          <div className={css.clock} data-testid="clock" role="timer" aria-label={spoken(shown)} data-last={left <= 3}>
            {shown < 60 ? shown : clockWords(shown)}
          </div>
          <p className={css.next} data-testid="next">
            Next: {scene.next}
          </p>
          <WhoNeeds who={who} cards={scene.cards.map((card) => script.cards[card]!)} />
        </>
      )}
      {!lead.connected && (
        <p className={css.soft} role="status">
          No server. The class goes on{lead.unsent > 0 && `; ${lead.unsent} to be sent`}.
        </p>
      )}
      {lead.trouble && <p role="alert">A tap was not taken. {lead.trouble}</p>}
      {!over && <WaysBar ways={ways} />}
      <div className={css.hand}>
        {!over && (
          <>
            <button type="button" className={css.small} disabled={phase === 'ready'} onClick={() => send('lessTen')}>
              −10
            </button>
            <button type="button" className={css.small} disabled={phase === 'ready'} onClick={() => send('addTen')}>
              +10
            </button>
            <button type="button" className={css.small} disabled={phase === 'ready'} onClick={() => send('back')}>
              Back
            </button>
            <button type="button" className={css.small} onClick={() => setPeople(true)}>
              Note
            </button>
            <button type="button" className={css.big} onClick={() => send(main.kind)}>
              {main.name}
            </button>
            <button
              type="button"
              className={css.big}
              data-quiet="true"
              disabled={phase === 'ready'}
              onClick={() => send(waiting ? 'go' : 'skip')}
            >
              Next
            </button>
          </>
        )}
      </div>
      {people && (
        <div className={stage.stage} data-over="true">
          <PeoplePanel lead={lead} who={who.data ?? []} scene={index} onClose={() => setPeople(false)} />
        </div>
      )}
    </main>
  )
}
