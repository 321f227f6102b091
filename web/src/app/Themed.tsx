import { MantineProvider } from '@mantine/core'
import type { ReactNode } from 'react'
import { useEffect } from 'react'
import { useSettings } from '../api/queries'
import { theme } from './theme'

const KEY = 'halterion.scheme'

/** What was chosen last, so that the page does not flash in the other scheme before the settings are there. */
function lastScheme(): string {
  try {
    return localStorage.getItem(KEY) ?? 'light'
  } catch {
    return 'light'
  }
}

/** Light, dark, or as the machine has it. */
export function Themed({ children }: { children: ReactNode }) {
  const scheme = useSettings().data?.preferences.scheme ?? lastScheme()
  useEffect(() => {
    try {
      localStorage.setItem(KEY, scheme)
    } catch {
      // Only the flash comes back.
    }
  }, [scheme])
  return (
    <MantineProvider
      theme={theme}
      defaultColorScheme="auto"
      forceColorScheme={scheme === 'light' || scheme === 'dark' ? scheme : undefined}
    >
      {children}
    </MantineProvider>
  )
}
