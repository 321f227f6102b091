import { useEffect, useRef } from 'react'
import type { Command } from './commands'

const arrows: Record<string, string> = { ArrowUp: '↑', ArrowDown: '↓' }

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest('input:not([type=checkbox]), textarea, select, [contenteditable], [role=slider]') !== null

/** Single keys while nothing is typed and no window is open; Ctrl K always. */
export function useKeys(commands: Command[], act: { palette: () => void; sheet: () => void; escape: () => void }) {
  const live = useRef({ commands, act })
  useEffect(() => {
    live.current = { commands, act }
  })
  useEffect(() => {
    // A window closes with Escape before the key comes here: whether one was open is asked first of all.
    let open = false
    const first = () => {
      open = document.querySelector('[role=dialog], [role=menu]') !== null
    }
    const onKey = (event: KeyboardEvent) => {
      const { commands: all, act: acts } = live.current
      if (event.defaultPrevented || open) return
      const take = (run: () => void) => {
        event.preventDefault()
        run()
      }
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') return take(acts.palette)
      if (event.ctrlKey || event.metaKey || event.altKey) return
      if (event.key === 'Escape') return acts.escape()
      if (typing(event.target)) return
      if (event.key === '?') return take(acts.sheet)
      const arrow = arrows[event.key]
      const letter = event.key.length === 1 ? event.key.toUpperCase() : event.key
      const named = `${event.shiftKey && arrow ? 'Shift ' : ''}${arrow ?? letter}`
      // A button does its own with Enter.
      if (event.key === 'Enter' && (event.target as HTMLElement).closest('button, a, summary, input')) return
      const command = all.find((c) => c.key === named)
      if (command) take(command.run)
    }
    window.addEventListener('keydown', first, true)
    document.addEventListener('keydown', onKey)
    return () => {
      window.removeEventListener('keydown', first, true)
      document.removeEventListener('keydown', onKey)
    }
  }, [])
}
