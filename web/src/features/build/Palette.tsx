import { Kbd, TextInput } from '@mantine/core'
import type { KeyboardEvent } from 'react'
import { useEffect, useRef, useState } from 'react'
import css from './Build.module.css'
import type { Command } from './commands'
import { Dialog } from '../../ui/Dialog'

/** Everything that can be done here, found by its words. */
export function Palette({ commands, onClose }: { commands: Command[]; onClose: () => void }) {
  const [looked, setLooked] = useState('')
  const [at, setAt] = useState(0)
  const list = useRef<HTMLUListElement>(null)
  const words = looked.toLowerCase().split(/\s+/).filter(Boolean)
  const found = commands.filter((c) => words.every((word) => c.name.toLowerCase().includes(word)))
  const chosen = found[Math.min(at, found.length - 1)]

  useEffect(() => {
    list.current?.children[at]?.scrollIntoView({ block: 'nearest' })
  }, [at])

  function run(command: Command) {
    onClose()
    // The window is closed, and has given the focus back, before anything takes it.
    requestAnimationFrame(() => requestAnimationFrame(command.run))
  }

  function onKey(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') setAt(Math.min(found.length - 1, at + 1))
    else if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1))
    else if (event.key === 'Enter' && chosen) run(chosen)
    else return
    event.preventDefault()
  }

  return (
    <Dialog onClose={onClose} title="Commands" size="md">
      <TextInput
        data-autofocus
        aria-label="What is to be done"
        placeholder="Type a command or a station name"
        role="combobox"
        aria-expanded
        aria-controls="commands-found"
        aria-activedescendant={chosen ? `command-${found.indexOf(chosen)}` : undefined}
        value={looked}
        onChange={(event) => {
          setLooked(event.currentTarget.value)
          setAt(0)
        }}
        onKeyDown={onKey}
      />
      {found.length === 0 && <p role="status">No command or station matches. Shorten the search.</p>}
      <ul ref={list} id="commands-found" role="listbox" aria-label="Commands found" className={css.commands}>
        {found.map((command, i) => (
          <li
            key={i}
            id={`command-${i}`}
            role="option"
            aria-selected={command === chosen}
            onClick={() => run(command)}
            onPointerMove={() => setAt(i)}
          >
            <span>{command.name}</span>
            {command.key && <Kbd size="xs">{command.key}</Kbd>}
          </li>
        ))}
      </ul>
    </Dialog>
  )
}

/** All keys on one sheet. */
export function KeySheet({ commands, onClose }: { commands: Command[]; onClose: () => void }) {
  const groups = ['Add', 'Here', 'Go', 'Class'] as const
  const titles = { Add: 'Add', Here: 'Selected block or station', Go: 'Move around', Class: 'Class' }
  return (
    <Dialog onClose={onClose} title="Shortcuts on Build" size="lg">
      <div className={css.keys}>
        {groups.map((group) => (
          <section key={group}>
            <h3>{titles[group]}</h3>
            <dl>
              {commands
                .filter((c) => c.group === group && c.key && !c.many)
                .map((c) => (
                  <div key={c.name}>
                    <dt>
                      <Kbd size="xs">{c.key}</Kbd>
                    </dt>
                    <dd>{c.name}</dd>
                  </div>
                ))}
              {group === 'Go' && (
                <>
                  <div>
                    <dt>
                      <Kbd size="xs">Ctrl K</Kbd>
                    </dt>
                    <dd>All commands</dd>
                  </div>
                  <div>
                    <dt>
                      <Kbd size="xs">?</Kbd>
                    </dt>
                    <dd>This list</dd>
                  </div>
                </>
              )}
            </dl>
          </section>
        ))}
      </div>
      <p className={css.aside}>Single-letter shortcuts work when you are not typing. Esc closes what is open.</p>
    </Dialog>
  )
}
