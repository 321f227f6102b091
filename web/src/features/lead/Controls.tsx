import { useEffect, useRef, useState } from 'react'
import type { CommandKind, Payload } from '../../leading/core/fold'
import { lengthOf } from '../../leading/core/fold'
import { mainAct } from '../../leading/useClock'
import type { Clock } from '../../leading/useClock'
import type { Lead } from '../../leading/useLead'
import css from './Stage.module.css'

/** What is open over the stage. */
export type Panel = 'people' | 'voice' | 'screens' | 'keys' | null

interface Props {
  lead: Lead
  clock: Clock
  act: (kind: CommandKind, payload?: Payload) => void
  toggle: (panel: NonNullable<Panel>) => void
}

/** All that is pressed while a class runs. */
export function Controls({ lead, clock, act, toggle }: Props) {
  const off = clock.phase === 'ready'
  const main = mainAct(clock)
  return (
    <div className={css.controls}>
      <Control name="Back" hint="←" off={off} onPress={() => act('back')} />
      <Control name={main.name} hint="space" big onPress={() => act(main.kind)} />
      <Control name="Skip" hint="→" off={off} onPress={() => act(clock.waiting ? 'go' : 'skip')} />
      <Control name="−10 s" hint="-" off={off} onPress={() => act('lessTen')} />
      <Control name="Add 10 s" hint="+" off={off} onPress={() => act('addTen')} />
      <GoTo lead={lead} off={off} onGo={(scene) => act('jump', { scene })} />
      <span className={css.apart}>
        <Control name="People" hint="a" onPress={() => toggle('people')} />
        <Control name="Voice" hint="v" onPress={() => toggle('voice')} />
        <Control name="Screens" hint="s" onPress={() => toggle('screens')} />
        <Control name="Shortcuts" hint="?" onPress={() => toggle('keys')} />
        <EndClass off={off} onEnd={() => act('finish')} />
      </span>
    </div>
  )
}

/** Forwards or back to where a block or a round begins: chosen first, gone to with Enter or the button. */
function GoTo({ lead, off, onGo }: { lead: Lead; off: boolean; onGo: (scene: number) => void }) {
  const [chosen, setChosen] = useState('')
  const { script, state } = lead
  const { scenes } = script
  const places = scenes.flatMap((scene, i) => {
    const before = scenes[i - 1]
    const begins = before?.block !== scene.block || (scene.round && before.round !== scene.round)
    return begins && lengthOf(scenes, state.added, i) > 0
      ? [{ scene: i, words: scene.round ? `${scene.blockName}, ${scene.round.toLowerCase()}` : scene.blockName }]
      : []
  })
  const go = () => {
    if (chosen === '') return
    onGo(Number(chosen))
    setChosen('')
  }
  return (
    <form
      className={css.goTo}
      onSubmit={(event) => {
        event.preventDefault()
        go()
      }}
    >
      <select
        className={css.control}
        aria-label="Go to"
        disabled={off}
        value={chosen}
        onChange={(event) => setChosen(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return
          event.preventDefault()
          go()
        }}
      >
        <option value="">Go to …</option>
        {places.map((place) => (
          <option key={place.scene} value={place.scene}>
            {place.words}
          </option>
        ))}
      </select>
      {chosen !== '' && <Control name="Go there" submits onPress={() => undefined} />}
    </form>
  )
}

/** Ends the class at the second press: the first only asks, until something else is pressed. */
function EndClass({ off, onEnd }: { off: boolean; onEnd: () => void }) {
  const [asks, setAsks] = useState(false)
  const own = useRef<HTMLSpanElement>(null)
  useEffect(() => {
    if (!asks) return
    const forget = (event: Event) => {
      if (!own.current?.contains(event.target as Node)) setAsks(false)
    }
    window.addEventListener('pointerdown', forget)
    window.addEventListener('keydown', forget)
    return () => {
      window.removeEventListener('pointerdown', forget)
      window.removeEventListener('keydown', forget)
    }
  }, [asks])
  return (
    <span ref={own}>
      <Control
        name={asks ? 'Press again to end' : 'End class'}
        off={off}
        onPress={() => {
          if (asks) onEnd()
          setAsks(!asks)
        }}
      />
    </span>
  )
}

interface ControlProps {
  name: string
  hint?: string
  big?: boolean
  off?: boolean
  submits?: boolean
  onPress: () => void
}

export function Control({ name, hint, big, off, submits, onPress }: ControlProps) {
  return (
    <button
      type={submits ? 'submit' : 'button'}
      className={big ? css.big : css.control}
      disabled={off}
      onClick={onPress}
    >
      {name}
      {hint && (
        <kbd className={css.key} aria-hidden="true">
          {hint}
        </kbd>
      )}
    </button>
  )
}
