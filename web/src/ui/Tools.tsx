import { ActionIcon } from '@mantine/core'
import css from './Tools.module.css'

interface Props {
  /** What is moved, copied or removed, for the labels. */
  what: string
  first: boolean
  last: boolean
  onMove: (by: -1 | 1) => void
  onCopy: () => void
  onRemove?: () => void
}

const paths = {
  up: 'M4 10 L8 6 L12 10',
  down: 'M4 6 L8 10 L12 6',
  copy: 'M6 6 H13 V13 H6 Z M3 10 V3 H10',
  remove: 'M4 4 L12 12 M12 4 L4 12',
}

function Icon({ path }: { path: string }) {
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
      <path d={path} fill="none" stroke="currentColor" strokeWidth="1.8" strokeLinecap="round" />
    </svg>
  )
}

/** Move, copy and remove, for blocks and stations alike. */
export function Tools({ what, first, last, onMove, onCopy, onRemove }: Props) {
  const tools = [
    { name: `Move ${what} up`, path: paths.up, off: first, act: () => onMove(-1) },
    { name: `Move ${what} down`, path: paths.down, off: last, act: () => onMove(1) },
    { name: `Duplicate ${what}`, path: paths.copy, off: false, act: onCopy },
    { name: `Remove ${what}`, path: paths.remove, off: !onRemove, act: () => onRemove?.() },
  ]
  return (
    <div className={css.tools}>
      {tools.map((tool) => (
        <ActionIcon
          key={tool.path}
          variant="subtle"
          size={28}
          aria-label={tool.name}
          title={tool.name}
          disabled={tool.off}
          onClick={tool.act}
        >
          <Icon path={tool.path} />
        </ActionIcon>
      ))}
    </div>
  )
}
