import { createTheme } from '@mui/material/styles'
import type {} from '@mui/x-data-grid/themeAugmentation'
import type { CSSProperties } from 'react'
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import { INKS, TEXT } from '@flimbo/core/charts'
import { nonce } from './nonce.ts'

declare module '@mui/material/styles' {
  interface TypographyVariants {
    mono: CSSProperties
  }
  interface TypographyVariantsOptions {
    mono?: CSSProperties
  }
}
declare module '@mui/material/Typography' {
  interface TypographyPropsVariantOverrides {
    mono: true
  }
}

const MONO = '"Atkinson Hyperlegible Mono Variable", ui-monospace, monospace'

const MOVING = [
  'Backdrop-root',
  'ButtonBase-root',
  'Collapse-root',
  'Dialog-container',
  'InputBase-root',
  'InputLabel-root',
  'LinearProgress-bar',
  'OutlinedInput-notchedOutline',
  'Paper-root',
  'SvgIcon-root',
  'Switch-thumb',
  'Switch-track',
  'Tabs-indicator',
]
  .map((part) => `.Mui${part}`)
  .join(', ')

/** Paper, ink and hairlines, in two schemes of the same contrasts. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-scheme' },
  colorSchemes: {
    light: {
      palette: {
        primary: { main: '#0C5A66', contrastText: '#FFFFFF' },
        secondary: { main: '#7B3F68' },
        error: { main: '#B3380B' },
        warning: { main: '#B3470F', contrastText: '#FFFFFF' },
        background: { default: '#FAF8F3', paper: INKS.light.sheet },
        text: { primary: INKS.light.ink, secondary: INKS.light.quiet },
        divider: INKS.light.hairline,
      },
    },
    dark: {
      palette: {
        primary: { main: '#6CC0CC', contrastText: '#0E1A1D' },
        secondary: { main: '#C98BB6' },
        error: { main: '#FF9466' },
        warning: { main: '#FF9466', contrastText: '#1C1008' },
        background: { default: '#14191C', paper: INKS.dark.sheet },
        text: { primary: INKS.dark.ink, secondary: INKS.dark.quiet },
        divider: INKS.dark.hairline,
      },
    },
  },
  shape: { borderRadius: 6 },
  typography: {
    fontFamily: TEXT,
    fontSize: 14,
    h1: { fontSize: '1.375rem', fontWeight: 650, lineHeight: 1.25 },
    h2: { fontSize: '0.95rem', fontWeight: 650, lineHeight: 1.3 },
    h3: { fontSize: '0.875rem', fontWeight: 650 },
    body1: { fontSize: '0.875rem' },
    body2: { fontSize: '0.8125rem' },
    caption: { fontSize: '0.75rem' },
    button: { textTransform: 'none', fontWeight: 600 },
    mono: { fontFamily: MONO, fontSize: '0.8125rem', lineHeight: 1.45 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { fontVariantNumeric: 'tabular-nums' },
        ':focus-visible': { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: 2 },
        // Whoever asked their system for less motion gets none (WCAG 2.2, technique C39). By the classes of what
        // moves: a rule for all elements would cost each frame of a long plan a third more.
        '@media (prefers-reduced-motion: reduce)': { [MOVING]: { transition: 'none !important' } },
      },
    },
    MuiDataGrid: {
      defaultProps: { nonce },
      styleOverrides: { root: { '& .MuiDataGrid-columnSeparator': { color: 'transparent' } } },
    },
    MuiStack: { defaultProps: { useFlexGap: true } },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: { defaultProps: { disableElevation: true, size: 'small' } },
    MuiLink: { defaultProps: { underline: 'hover' } },
    MuiTooltip: { defaultProps: { enterDelay: 400 } },
    MuiTypography: { defaultProps: { variantMapping: { mono: 'span' } } },
  },
})
