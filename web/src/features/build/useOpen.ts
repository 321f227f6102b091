import { createContext, useCallback, useContext, useEffect, useMemo } from 'react'
import { useLocation, useNavigate } from 'react-router'

/** What the focus goes to when something is opened: itself, its dose, or its name. */
export type FocusOn = 'card' | 'dose' | 'name' | 'none'

export interface Opened {
  /** `block-ID` or `station-ID`, or empty: it stands in the address, so that tape, row and editor agree. */
  open: string
  show: (what: string, focus?: FocusOn) => void
}

export const OpenContext = createContext<Opened>({ open: '', show: () => undefined })

export const useOpened = () => useContext(OpenContext)

const PREFIX: Record<FocusOn, string> = { card: '', dose: 'dose-', name: 'name-', none: '' }

/** Only one block or one station is open at a time. */
export function useOpening(): Opened {
  const { hash, state, key } = useLocation()
  const navigate = useNavigate()
  const open = decodeURIComponent(hash.slice(1))
  const show = useCallback(
    (what: string, focus: FocusOn = 'none') =>
      void navigate({ hash: what }, { replace: true, preventScrollReset: true, state: { focus } }),
    [navigate],
  )

  // The tape leads here: what the address names is shown and focused, each time anew.
  useEffect(() => {
    const focus = (state as { focus?: FocusOn } | null)?.focus ?? 'card'
    // A window that was opened meanwhile keeps the focus: what is typed there must not go to what came behind it.
    if (open === '' || focus === 'none' || document.querySelector('[role=dialog]')) return
    const card = document.getElementById(open)
    const target = document.getElementById(`${PREFIX[focus]}${open}`) ?? card
    if (!target || (focus === 'card' && card?.contains(document.activeElement))) return
    target.focus()
    if (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) target.select()
    card?.scrollIntoView({ block: 'nearest' })
  }, [key, open, state])

  return useMemo(() => ({ open, show }), [open, show])
}
