import { MantineProvider } from '@mantine/core'
import { useLocalStorage } from '@mantine/hooks'
import type { ReactNode } from 'react'
import { useEffect } from 'react'
import { useSettings } from '../api/queries'
import { theme } from './theme'

/** Light, dark, or as the machine has it. */
export function Themed({ children }: { children: ReactNode }) {
  // What was chosen last, so that the page does not flash in the other scheme before the settings are there.
  const [last, keep] = useLocalStorage({
    key: 'halterion.scheme',
    defaultValue: 'light',
    getInitialValueInEffect: false,
    serialize: (value) => value,
    deserialize: (value) => value ?? 'light',
  })
  const scheme = useSettings().data?.preferences.scheme ?? last
  useEffect(() => keep(scheme), [scheme, keep])
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
