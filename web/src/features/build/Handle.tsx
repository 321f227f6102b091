import type { DragEvent, KeyboardEvent } from 'react'
import { useContext, useState } from 'react'
import css from './Build.module.css'
import type { Bench, Spot } from './useBench'
import { same, SelectedContext, useBenchContext } from './useBench'

/** Where a thing is taken hold of: drag it, or choose it. */
export function Handle({ spot, what }: { spot: Spot; what: string }) {
  const bench = useBenchContext()
  const selected = useContext(SelectedContext)
  return (
    <span
      className={css.handle}
      draggable
      title="Drag to move; Alt with the arrow keys moves it too"
      onDragStart={(event) => {
        event.dataTransfer.effectAllowed = 'move'
        event.dataTransfer.setData('text/plain', what)
        bench.drag(spot)
      }}
      onDragEnd={() => bench.drag(null)}
    >
      <svg width="10" height="18" viewBox="0 0 10 18" aria-hidden="true">
        <path d="M2 3H8 M2 9H8 M2 15H8" stroke="currentColor" strokeWidth="1.6" strokeLinecap="round" />
      </svg>
      <input
        type="checkbox"
        aria-label={`Choose ${what}`}
        checked={selected.some((s) => same(s, spot))}
        onChange={() => bench.toggle(spot)}
      />
    </span>
  )
}

/** What a card needs to be dropped on, and to be moved by keys. */
export function useCard(bench: Bench, spot: Spot) {
  const [over, setOver] = useState<'before' | 'after' | null>(null)
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
    onKeyDown: (event: KeyboardEvent) => {
      if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return
      event.preventDefault()
      event.stopPropagation()
      bench.nudge(spot, event.key === 'ArrowUp' ? -1 : 1)
    },
  }
}
