import { Sheet } from './Sheet'
import css from './Stage.module.css'
import { useSingleKeys } from './useStageKeys'

const keys: [string, string][] = [
  ['space or k', 'start, pause, carry on, go'],
  ['→ or n', 'skip to the next part'],
  ['← or b', 'back to the start of this part, or to the one before'],
  ['+ or t', 'add 10 s'],
  ['-', 'take off 10 s'],
  ['1 2 3', 'use a suggested way to catch up'],
  ['0', 'put the ways away'],
  ['u', 'undo it'],
  ['m', 'bells on and off'],
  ['v', 'voice and beat'],
  ['a', 'people: who came, notes'],
  ['s', 'screens: wall and phone'],
  ['f', 'full screen'],
  ['?', 'this list'],
  ['Esc', 'close what is open'],
]

export function KeySheet({ onClose }: { onClose: () => void }) {
  const [single, setSingle] = useSingleKeys()
  return (
    <Sheet title="Shortcuts" onClose={onClose}>
      <dl className={css.keys}>
        {keys.map(([key, what]) => (
          <div key={key}>
            <dt>{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <p>Space and Enter press a control that was reached with Tab.</p>
      <p>
        <label>
          <input type="checkbox" checked={single} onChange={(e) => setSingle(e.currentTarget.checked)} /> Letters,
          digits and signs are keys
        </label>
      </p>
    </Sheet>
  )
}
