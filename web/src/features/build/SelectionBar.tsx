import { Button } from '@mantine/core'
import { useContext } from 'react'
import css from './Build.module.css'
import { SelectedContext, useBenchContext } from './useBench'

/** What can be done with all that is chosen. */
export function SelectionBar() {
  const bench = useBenchContext()
  const selected = useContext(SelectedContext)
  const many = selected.length
  if (many === 0) return null
  const what =
    selected[0]?.station === undefined ? (many === 1 ? 'block' : 'blocks') : many === 1 ? 'station' : 'stations'
  return (
    <div className={css.selection} role="region" aria-label="What is chosen">
      <span role="status">
        {many} {what} chosen
      </span>
      <Button size="xs" variant="default" onClick={bench.copy} title="Ctrl+C">
        Copy
      </Button>
      <Button
        size="xs"
        variant="default"
        title="Ctrl+X"
        onClick={() => {
          bench.copy()
          bench.remove()
        }}
      >
        Cut
      </Button>
      <Button size="xs" variant="default" onClick={bench.duplicate}>
        Double
      </Button>
      <Button size="xs" variant="default" onClick={bench.remove}>
        Remove
      </Button>
      <Button size="xs" variant="default" onClick={bench.clear}>
        Let go
      </Button>
    </div>
  )
}
