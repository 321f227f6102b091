import type { MantineColorsTuple } from '@mantine/core'
import { createTheme } from '@mantine/core'

const slate: MantineColorsTuple = [
  '#f1f4f5',
  '#dfe5e8',
  '#c3ced3',
  '#a2b2ba',
  '#82969f',
  '#677d87',
  '#526771',
  '#41545d',
  '#2f4049',
  '#26333a',
]

export const theme = createTheme({
  colors: { slate },
  primaryColor: 'slate',
  primaryShade: { light: 8, dark: 8 },
  autoContrast: true,
  fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  headings: { fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif", fontWeight: '650' },
  defaultRadius: 3,
  cursorType: 'pointer',
  respectReducedMotion: true,
  components: {
    // The head of a window is no second banner of the page.
    Modal: { defaultProps: { attributes: { header: { role: 'presentation' } } } },
  },
})
