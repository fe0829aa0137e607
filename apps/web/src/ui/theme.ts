'use client';
/**
 * The look of the interface's parts.
 */
import { createTheme } from '@mui/material/styles';
import { colours } from './colours';

export const theme = createTheme({
  // Who asks the system for less motion gets none.
  motion: { reducedMotion: 'system' },
  palette: {
    mode: 'light',
    primary: { main: colours.verdigris, contrastText: '#FFFFFF' },
    error: { main: colours.madder },
    warning: { main: colours.brass },
    text: { primary: colours.ink, secondary: colours.quietInk },
    background: { default: colours.ground, paper: colours.sheet },
    divider: colours.line,
  },
  shape: { borderRadius: 6 },
  typography: {
    fontFamily: '"Figtree Variable", sans-serif',
    fontSize: 14,
    button: { textTransform: 'none', fontWeight: 600 },
    h1: { fontSize: 26, fontWeight: 650, letterSpacing: '-0.01em' },
    h2: { fontSize: 17, fontWeight: 650 },
    h3: { fontSize: 14, fontWeight: 650 },
    body1: { fontSize: 14.5, lineHeight: 1.45 },
    body2: { fontSize: 13.5, lineHeight: 1.45 },
    caption: { fontSize: 12.5, lineHeight: 1.35 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        html: { height: '100%' },
        body: { height: '100%', fontVariantNumeric: 'tabular-nums', overscrollBehavior: 'none' },
        '@media (prefers-reduced-motion: reduce)': { '*, *::before, *::after': { transition: 'none !important' } },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true }, styleOverrides: { root: { fontFamily: 'inherit' } } },
    MuiButton: { defaultProps: { disableElevation: true } },
    MuiTooltip: {
      defaultProps: { enterDelay: 500, arrow: true },
      styleOverrides: { tooltip: { backgroundColor: colours.ink, fontSize: 12.5 }, arrow: { color: colours.ink } },
    },
    // A knob is where it was moved to: gliding there would cost a frame of the whole page sixty times a second.
    MuiSlider: { styleOverrides: { thumb: { transition: 'none' }, track: { transition: 'none' } } },
    MuiTextField: { defaultProps: { size: 'small' } },
    MuiToggleButton: { styleOverrides: { root: { color: colours.quietInk } } },
  },
});
