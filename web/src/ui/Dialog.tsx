import { Modal } from '@mantine/core'
import { type ReactNode, useEffect, useState } from 'react'

interface Props {
  title: string
  size: string
  onClose: () => void
  children: ReactNode
}

/** A dialog that is drawn only while it is open; gone, it gives the focus back to what opened it. */
export function Dialog({ title, size, onClose, children }: Props) {
  // Read while drawing: what is in the dialog takes the focus before any effect runs.
  const [before] = useState(() => document.activeElement)
  useEffect(
    () => () => {
      // Whoever closed it may have set the focus itself; only one that fell out of the dialog is caught.
      setTimeout(() => {
        const now = document.activeElement
        if (now && now !== document.body && !now.matches('[data-portal]')) return
        const to = before?.isConnected && before !== document.body ? before : document.querySelector('main')
        if (to instanceof HTMLElement) to.focus({ preventScroll: true })
      })
    },
    [before],
  )
  return (
    <Modal
      opened
      onClose={onClose}
      title={title}
      size={size}
      transitionProps={{ duration: 0 }}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      {children}
    </Modal>
  )
}
