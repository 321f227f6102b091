import '@mantine/core/styles/Menu.css'
import '@mantine/core/styles/Popover.css'
import { Menu } from '@mantine/core'
import { Link } from 'react-router'
import css from './ui.module.css'

/** What can be done besides the main thing: an act, a screen, or a file. */
export type MoreItem = { words: string } & ({ act: () => void } | { to: string } | { file: string })

interface Props {
  shown: string
  /** What it is about, for who does not see where it stands: "More" … "for Full moon circuit". */
  about: string
  items: MoreItem[]
}

/** The rest of what can be done with one thing. */
export function MoreMenu({ shown, about, items }: Props) {
  return (
    <Menu position="bottom-end" withinPortal>
      <Menu.Target>
        <button type="button" className={css.pickMenu} data-screen-only>
          {shown}
          <span className="hidden"> {about}</span>
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {items.map((item) =>
          'act' in item ? (
            <Menu.Item key={item.words} onClick={item.act}>
              {item.words}
            </Menu.Item>
          ) : 'to' in item ? (
            <Menu.Item key={item.words} component={Link} to={item.to}>
              {item.words}
            </Menu.Item>
          ) : (
            <Menu.Item key={item.words} component="a" href={item.file} download>
              {item.words}
            </Menu.Item>
          ),
        )}
      </Menu.Dropdown>
    </Menu>
  )
}
