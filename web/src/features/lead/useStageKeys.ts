import { useLocalStorage } from '@mantine/hooks'
import { useEffect } from 'react'
import type { CommandKind } from '../../leading/core/fold'
import { mainAct } from '../../leading/useClock'
import type { Clock } from '../../leading/useClock'
import type { Ways } from '../../leading/useWays'
import type { Panel } from './Controls'

interface Keys {
  clock: Clock
  ways: Ways
  act: (kind: CommandKind) => void
  toggleSound: () => void
  toggle: (panel: NonNullable<Panel>) => void
  close: () => void
}

/** Letters, digits and signs as keys can be switched off, for whoever speaks to the machine or brushes against keys. */
export const useSingleKeys = () =>
  useLocalStorage({ key: 'halterion.single-keys', defaultValue: true, getInitialValueInEffect: false })

/** What has the keys of its own: what is typed into, and what Space or Enter presses. */
const typed = 'input:not([type=checkbox], [type=range]), select, textarea'
const pressed = 'a, button, summary, label, input'

/** The keys of the stage. Space and Enter are for a control that has the focus; else Space starts, pauses and goes on. */
export function useStageKeys({ clock, ways, act, toggleSound, toggle, close }: Keys) {
  const [single] = useSingleKeys()
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return
      const target = event.target instanceof HTMLElement ? event.target : null
      if (event.key === 'Escape') {
        close()
        return
      }
      if (target?.closest(typed) || ((event.key === ' ' || event.key === 'Enter') && target?.closest(pressed))) return
      const key = event.key.toLowerCase()
      const way = ways.found?.ways[Number(key) - 1]
      const isSign = key.length === 1 && key !== ' '
      if (isSign && !single) return
      if (key === ' ' || key === 'k') {
        if (!clock.over) act(mainAct(clock).kind)
      } else if (key === 'arrowright' || key === 'n') act(clock.waiting ? 'go' : 'skip')
      else if (key === 'arrowleft' || key === 'b') act('back')
      else if (key === '+' || key === 't') act('addTen')
      else if (key === '-') act('lessTen')
      else if (key === 'm') toggleSound()
      else if (key === 'v') toggle('voice')
      else if (key === 'u') ways.undo()
      else if (key === 'a') toggle('people')
      else if (key === 's') toggle('screens')
      else if (key === '?') toggle('keys')
      else if (key === '0') ways.putAway()
      else if (key === 'f') void document.documentElement.requestFullscreen?.()
      else if (way) ways.take(way)
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [clock, ways, act, toggleSound, toggle, close, single])
}
