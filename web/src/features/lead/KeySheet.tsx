import { Sheet } from './Sheet'
import css from './Stage.module.css'

const keys: [string, string][] = [
  ['space or k', 'start, pause, go on, go'],
  ['→ or n', 'skip to the next stretch'],
  ['← or b', 'back to its start, or the one before'],
  ['+ or t', 'ten seconds more'],
  ['-', 'ten seconds less'],
  ['1 2 3', 'take a way back that is offered'],
  ['u', 'take the last one back'],
  ['m', 'bells on and off'],
  ['v', 'voice on and off'],
  ['a', 'people: who came, notes'],
  ['f', 'full screen'],
  ['?', 'this sheet'],
  ['Esc', 'close what is open'],
]

export function KeySheet({ onClose }: { onClose: () => void }) {
  return (
    <Sheet title="Keys" onClose={onClose}>
      <dl className={css.keys}>
        {keys.map(([key, what]) => (
          <div key={key}>
            <dt>{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  )
}
