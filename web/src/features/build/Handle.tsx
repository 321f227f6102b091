import type { DragEvent, KeyboardEvent, MouseEvent, PointerEvent } from 'react'
import { useContext, useRef, useState } from 'react'
import css from './Build.module.css'
import type { Spot } from '../../plan/chosen'
import { same } from '../../plan/chosen'
import type { Bench } from './useBench'
import { SelectedContext, useBenchContext } from './useBench'

/** The card under a finger that takes what is dragged, and whether before or behind it. */
function under(event: PointerEvent, station: boolean): { card: HTMLElement; spot: Spot; after: boolean } | null {
  const at = document.elementFromPoint(event.clientX, event.clientY)
  const card = at?.closest<HTMLElement>(station ? '[data-station]' : 'section[data-block]')
  if (!card?.dataset.block) return null
  const box = card.getBoundingClientRect()
  return {
    card,
    spot: { block: card.dataset.block, station: card.dataset.station },
    after: event.clientY > box.top + box.height / 2,
  }
}

/** Where a thing is taken hold of: drag it with the mouse or a finger, or choose it. */
export function Handle({ spot, what }: { spot: Spot; what: string }) {
  const bench = useBenchContext()
  const selected = useContext(SelectedContext)
  const finger = useRef<HTMLElement | null>(null)
  const dragging = useRef(false)

  const mark = (card: HTMLElement | null, after = false) => {
    if (finger.current && finger.current !== card) delete finger.current.dataset.drop
    finger.current = card
    if (card) card.dataset.drop = after ? 'after' : 'before'
  }

  return (
    <span
      className={css.handle}
      draggable
      title="Drag to move, or Alt + arrow keys"
      onDragStart={(event) => {
        event.dataTransfer.effectAllowed = 'move'
        event.dataTransfer.setData('text/plain', what)
        bench.drag(spot)
      }}
      onDragEnd={() => bench.drag(null)}
      onPointerDown={(event) => {
        if (event.pointerType === 'mouse' || (event.target as HTMLElement).closest('input')) return
        event.preventDefault()
        event.currentTarget.setPointerCapture(event.pointerId)
        dragging.current = true
        bench.drag(spot)
      }}
      onPointerMove={(event) => {
        if (!dragging.current) return
        const over = under(event, spot.station !== undefined)
        mark(over?.card ?? null, over?.after)
        // Near the edge of the screen the page goes along.
        if (event.clientY < 80) window.scrollBy(0, -12)
        else if (event.clientY > window.innerHeight - 80) window.scrollBy(0, 12)
      }}
      onPointerUp={(event) => {
        if (!dragging.current) return
        dragging.current = false
        const over = under(event, spot.station !== undefined)
        mark(null)
        if (over && !same(over.spot, spot)) bench.drop(over.spot, over.after)
        else bench.drag(null)
      }}
      onPointerCancel={() => {
        dragging.current = false
        mark(null)
        bench.drag(null)
      }}
    >
      <svg width="10" height="18" viewBox="0 0 10 18" aria-hidden="true">
        <path d="M2 3H8 M2 9H8 M2 15H8" stroke="currentColor" strokeWidth="1.6" strokeLinecap="round" />
      </svg>
      <input
        type="checkbox"
        aria-label={`Select ${what}`}
        title="Select; Shift selects everything in between"
        checked={selected.some((s) => same(s, spot))}
        onChange={(event) => bench.toggle(spot, (event.nativeEvent as PointerEvent['nativeEvent']).shiftKey)}
      />
    </span>
  )
}

const LONG_PRESS = 450
const AFTER_TAP = 120

/** What a card needs to be dropped on, to be moved by keys, and to be chosen with a long press. */
export function useCard(bench: Bench, spot: Spot) {
  const [over, setOver] = useState<'before' | 'after' | null>(null)
  const pressing = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const pressed = useRef(false)
  const letGo = () => clearTimeout(pressing.current)
  const takes = () => {
    const dragged = bench.dragged()
    return dragged !== null && (dragged.station === undefined) === (spot.station === undefined)
  }
  const place = (event: DragEvent): 'before' | 'after' => {
    const box = event.currentTarget.getBoundingClientRect()
    return event.clientY < box.top + box.height / 2 ? 'before' : 'after'
  }
  return {
    'data-drop': over,
    onDragOver: (event: DragEvent) => {
      if (!takes()) return
      event.preventDefault()
      event.stopPropagation()
      setOver(place(event))
    },
    onDragLeave: () => setOver(null),
    onDrop: (event: DragEvent) => {
      if (!takes()) return
      event.preventDefault()
      event.stopPropagation()
      const after = place(event) === 'after'
      setOver(null)
      bench.drop(spot, after)
    },
    onPointerDown: (event: PointerEvent) => {
      if (
        event.pointerType === 'mouse' ||
        (event.target as HTMLElement).closest('input, textarea, select, span[draggable]')
      )
        return
      event.stopPropagation()
      letGo()
      pressed.current = false
      pressing.current = setTimeout(() => {
        pressed.current = true
      }, LONG_PRESS)
    },
    // Lifting the finger after a long press is no tap.
    onClickCapture: (event: MouseEvent) => {
      if (!pressed.current) return
      pressed.current = false
      event.preventDefault()
      event.stopPropagation()
    },
    onPointerUp: () => {
      letGo()
      // Once the finger is up and its tap is over: what comes to lie under it must not be pressed by it.
      if (pressed.current) setTimeout(() => bench.toggle(spot), AFTER_TAP)
    },
    onPointerCancel: letGo,
    onPointerMove: (event: PointerEvent) => {
      if (Math.abs(event.movementX) + Math.abs(event.movementY) > 4) letGo()
    },
    onContextMenu: (event: { preventDefault: () => void; nativeEvent: Event }) => {
      if ((event.nativeEvent as globalThis.PointerEvent).pointerType === 'touch') event.preventDefault()
    },
    onKeyDown: (event: KeyboardEvent) => {
      if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return
      event.preventDefault()
      event.stopPropagation()
      bench.nudge(spot, event.key === 'ArrowUp' ? -1 : 1)
    },
  }
}
