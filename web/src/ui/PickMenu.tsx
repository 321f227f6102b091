import '@mantine/core/styles/Menu.css'
import '@mantine/core/styles/Popover.css'
import { Menu } from '@mantine/core'
import css from './ui.module.css'

interface Props {
  /** What is set by it: "Everyone at Glute bridge". */
  label: string
  shown: string
  /** Each choice with its word on the screen. */
  words: [string, string][]
  disabled?: boolean
  onPick: (word: string, shown: string) => void
}

/** Sets many things at once. A menu, for a list would set them with every arrow key while one is still looking. */
export function PickMenu({ label, shown, words, disabled, onPick }: Props) {
  return (
    <Menu position="bottom-start" withinPortal>
      <Menu.Target>
        <button type="button" className={css.pickMenu} disabled={disabled} data-screen-only>
          <span className="hidden">{label}: </span>
          {shown}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {words.map(([word, said]) => (
          <Menu.Item key={word} onClick={() => onPick(word, said)}>
            {said}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  )
}
