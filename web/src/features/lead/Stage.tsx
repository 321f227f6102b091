import { useComputedColorScheme } from '@mantine/core'
import { useCallback, useMemo, useRef, useState } from 'react'
import type { CommandKind, Payload } from '../../leading/core/fold'
import { addedBefore, endOf } from '../../leading/core/fold'
import { useBeat } from '../../leading/useBeat'
import { useBells } from '../../leading/useBells'
import { useClock } from '../../leading/useClock'
import { useFilmsAhead } from '../../leading/useFilm'
import type { Lead } from '../../leading/useLead'
import { useWakeLock } from '../../leading/useNow'
import { useVoice } from '../../leading/useVoice'
import { useWays } from '../../leading/useWays'
import { useTabName } from '../../ui/Page'
import { Tape } from '../../ui/Tape'
import type { Panel } from './Controls'
import { Controls } from './Controls'
import { Done } from './Done'
import { Hearts } from './Hearts'
import { KeySheet } from './KeySheet'
import { Now } from './Now'
import { PeoplePanel } from './PeoplePanel'
import { Screens } from './Screens'
import css from './Stage.module.css'
import { Top } from './Top'
import { useAnnounced } from './useAnnounced'
import { useStageKeys } from './useStageKeys'
import { VoicePanel } from './VoicePanel'
import { WaysBar } from './WaysBar'
import { useWho, WhoNeeds } from './WhoNeeds'

/** The screen that runs the class. */
export function Stage({ lead }: { lead: Lead }) {
  const { script, state, send } = lead
  const clock = useClock(lead)
  const { position, over, phase, index, scene } = clock
  const stage = useRef<HTMLElement>(null)
  const [panel, setPanel] = useState<Panel>(null)
  const bells = useBells(script, state)
  const voice = useVoice(script, state, false)
  const cardsOf = (of: typeof scene | undefined) => of?.cards.map((card) => script.cards[card]!) ?? []
  const on = cardsOf(scene)
  const beat = useBeat(lead.session, scene, on.length === 1 ? on[0] : undefined, clock, voice.speaking)
  const ways = useWays(lead, clock)
  const who = useWho(lead.session)
  useFilmsAhead(lead.session, script.scenes, script.cards)
  useWakeLock(phase === 'running')
  useTabName(`Leading ${script.title}`)

  const { turnOn, turnOff } = bells
  const act = useCallback(
    (kind: CommandKind, payload?: Payload) => {
      // Any tap is the gesture that lets a browser make sound.
      if (kind === 'start') turnOn()
      send(kind, payload)
    },
    [send, turnOn],
  )
  const close = useCallback(() => setPanel(null), [])
  const toggle = useCallback((next: NonNullable<Panel>) => setPanel((open) => (open === next ? null : next)), [])
  useStageKeys({ clock, ways, act, toggle, close, toggleSound: bells.on ? turnOff : turnOn })

  const tape = useTape(lead)
  const scheme = useComputedColorScheme('dark')
  const said = over ? 'Class finished.' : [scene.headline, scene.target, scene.sideWords].filter(Boolean).join(', ')
  const announced = useAnnounced(lead, clock)
  const isTold = voice.settings.on && voice.caption !== null && phase === 'running'

  return (
    <div
      className={css.stage}
      data-phase={phase}
      onClick={(event) => {
        // After a tap the space bar is for pausing again, whatever was tapped; reached by Tab, a control keeps it.
        const target = event.target as HTMLElement
        if (event.detail > 0 && target.closest('button, a, summary, [type=checkbox], [type=range]'))
          stage.current?.focus({ preventScroll: true })
      }}
    >
      <Top lead={lead} clock={clock} ways={ways} bells={bells} />
      <main ref={stage} className={css.floor} tabIndex={-1}>
        {over ? (
          <Done send={act} lead={lead} />
        ) : (
          <>
            <Now lead={lead} clock={clock} />
            {!scene.ahead && (
              <p className={css.next} data-testid="next">
                <span>Next:</span> {scene.next}
              </p>
            )}
            <WhoNeeds who={who} on={on} next={cardsOf(script.scenes[index + 1])} />
            {script.focus && <p className={css.focus}>Cue of the day: {script.focus}</p>}
          </>
        )}
        <p className="hidden" aria-live="assertive">
          {said}
        </p>
        <p className="hidden" aria-live="polite" data-testid="announced">
          {announced}
        </p>
      </main>
      {isTold && (
        <p className={css.caption} data-testid="caption">
          {voice.caption!.text}
        </p>
      )}
      {!over && <Hearts who={who.data ?? []} />}
      {!over && <WaysBar ways={ways} />}
      <footer className={css.bottom}>
        <div className={css.tape}>
          <Tape
            spans={tape.spans}
            blocks={tape.blocks}
            slot={script.slot}
            now={position / 1000}
            dark={scheme === 'dark'}
          />
        </div>
        {!over && <Controls lead={lead} clock={clock} act={act} toggle={toggle} />}
      </footer>
      {panel === 'people' && <PeoplePanel lead={lead} who={who.data} scene={index} onClose={close} />}
      {panel === 'voice' && <VoicePanel session={lead.session} voice={voice} beat={beat} onClose={close} />}
      {panel === 'screens' && <Screens session={lead.session} onClose={close} />}
      {panel === 'keys' && <KeySheet onClose={close} />}
    </div>
  )
}

/** The class as it runs now, on the tape. */
function useTape({ script, state }: Lead) {
  const { scenes, cards } = script
  return useMemo(() => {
    const blocks: { name: string; start: number; end: number }[] = []
    const spans = scenes.map((s, i) => {
      const shift = addedBefore(state.added, i) / 1000
      const span = { start: s.start + shift, end: endOf(scenes, state.added, i) / 1000, kind: s.kind, side: s.side }
      const last = blocks.at(-1)
      if (last && scenes[i - 1]?.block === s.block) last.end = span.end
      else blocks.push({ name: s.blockName, start: span.start, end: span.end })
      return { ...span, families: s.ahead ? [] : s.cards.map((card) => cards[card]!.family) }
    })
    return { spans: spans.filter((span) => span.end > span.start), blocks: blocks.filter((b) => b.end > b.start) }
  }, [scenes, cards, state.added])
}
