import { Button, Group, Modal, Text } from '@mantine/core'
import type { ReactNode } from 'react'
import { useState, useSyncExternalStore } from 'react'
import css from './ConflictDialog.module.css'
import type { Difference, Saver } from './Saver'

interface Props<V> {
  saver: Saver<V>
  /** A further choice, such as keeping both. */
  children?: ReactNode
  onMine?: () => void
  onTheirs?: () => void
}

/** Two tabs changed one document: mine, theirs, or both seen side by side first. Nothing is lost until it is chosen. */
export function ConflictDialog<V>({ saver, children, onMine, onTheirs }: Props<V>) {
  const saving = useSyncExternalStore(saver.store.subscribe, saver.store.getState)
  const [beside, setBeside] = useState(false)
  const choose = (how: () => void) => () => {
    setBeside(false)
    how()
  }
  return (
    <Modal
      opened={saving.state === 'conflict'}
      onClose={() => undefined}
      withCloseButton={false}
      size={beside ? 'lg' : 'md'}
      title={`${saver.name} was changed in another tab`}
    >
      <Text>
        The other change is saved. Yours here is not saved yet. Nothing is lost until you choose which of the two is to
        stay.
      </Text>
      {beside && <Differences list={saving.differences} />}
      <Group mt="lg" gap="sm">
        <Button data-autofocus onClick={choose(onMine ?? (() => saver.keepMine()))}>
          Keep mine
        </Button>
        <Button variant="default" onClick={choose(onTheirs ?? (() => saver.takeTheirs()))}>
          Use the other one
        </Button>
        {!beside && (
          <Button variant="default" onClick={() => setBeside(true)}>
            See both side by side
          </Button>
        )}
        {children}
      </Group>
    </Modal>
  )
}

function Differences({ list }: { list: Difference[] }) {
  if (list.length === 0) return <Text mt="md">They differ only in ways that are not shown on a screen.</Text>
  // Of a class it is said in one sentence what mine changes.
  const inOne = list.every((d) => d.mine === '' && d.theirs === '')
  if (inOne) {
    return (
      <>
        <Text mt="md">Yours, compared with the other one:</Text>
        <ul className={css.list}>
          {list.map((d) => (
            <li key={d.what}>{d.what}</li>
          ))}
        </ul>
      </>
    )
  }
  return (
    <div className={css.scroll} role="region" aria-label="Both side by side" tabIndex={0}>
      <table className={css.table}>
        <thead>
          <tr>
            <th scope="col">What differs</th>
            <th scope="col">Yours</th>
            <th scope="col">The other one</th>
          </tr>
        </thead>
        <tbody>
          {list.map((d) => (
            <tr key={d.what}>
              <th scope="row">{d.what}</th>
              <td>{d.mine}</td>
              <td>{d.theirs}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
