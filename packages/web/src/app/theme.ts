import { createTheme, type Theme } from '@mui/material/styles';

export type ThemeMode = 'bench' | 'dim';
/** The bench outside, in the sun: lighter, with black ink and heavier lines. */
export type ThemeTone = ThemeMode | 'sun';

/** Achromatic surround; marigold only for the pick and the primary action, red only for danger. */
interface Tones {
  readonly page: string;
  readonly panel: string;
  readonly raised: string;
  readonly ink: string;
  readonly inkSoft: string;
  readonly hairline: string;
  readonly pick: string;
  readonly danger: string;
  readonly onDanger: string;
}

declare module '@mui/material/styles' {
  interface Theme {
    tones: Tones;
  }
  interface ThemeOptions {
    tones: Tones;
  }
}

/** The bench page is about L* 70; the dim one for the booth about L* 15. */
const TONES: Record<ThemeTone, Tones> = {
  bench: {
    page: '#ababab',
    panel: '#b8b8b8',
    raised: '#c8c8c8',
    ink: '#121212',
    inkSoft: '#303030',
    hairline: '#7b7b7b',
    pick: '#f2a900',
    danger: '#7a120c',
    onDanger: '#f6f6f6',
  },
  sun: {
    page: '#cfcfcf',
    panel: '#dadada',
    raised: '#ececec',
    ink: '#000000',
    inkSoft: '#1c1c1c',
    hairline: '#4c4c4c',
    pick: '#f2a900',
    danger: '#7a0a05',
    onDanger: '#ffffff',
  },
  dim: {
    page: '#262626',
    panel: '#2e2e2e',
    raised: '#3b3b3b',
    ink: '#e8e8e8',
    inkSoft: '#bdbdbd',
    hairline: '#5d5d5d',
    pick: '#f2a900',
    danger: '#ff8f80',
    onDanger: '#1a1a1a',
  },
};

const HEADING = '"Archivo Variable", sans-serif';
const TEXT = '"Atkinson Hyperlegible Next Variable", sans-serif';
export const FIGURES = '"Atkinson Hyperlegible Mono", monospace';

export function createSteadyTheme(mode: ThemeTone): Theme {
  const t = TONES[mode];
  const heading = { fontFamily: HEADING, fontStretch: '82%', fontWeight: 680, letterSpacing: '-0.005em' };
  return createTheme({
    tones: t,
    palette: {
      mode: mode === 'dim' ? 'dark' : 'light',
      primary: { main: t.pick, dark: '#d79600', contrastText: '#121212' },
      error: { main: t.danger },
      background: { default: t.page, paper: t.panel },
      text: { primary: t.ink, secondary: t.inkSoft },
      divider: t.hairline,
    },
    shape: { borderRadius: 2 },
    typography: {
      fontFamily: TEXT,
      fontSize: 15,
      h1: { ...heading, fontSize: 30, lineHeight: 1.12 },
      h2: { ...heading, fontSize: 19, lineHeight: 1.2 },
      h3: { ...heading, fontSize: 16, lineHeight: 1.25 },
      body1: { fontSize: 16, lineHeight: 1.4 },
      body2: { fontSize: 14, lineHeight: 1.35 },
      button: { fontFamily: HEADING, fontWeight: 640, textTransform: 'none', fontSize: 16 },
    },
    components: {
      MuiCssBaseline: {
        styleOverrides: {
          body: { fontVariantNumeric: 'tabular-nums' },
          ':focus-visible': { outline: `3px solid ${t.ink}`, outlineOffset: 2 },
          '::selection': { background: t.ink, color: t.page },
          // Whoever wishes for less motion sees what opens, moves or fades stand where it ends.
          '@media (prefers-reduced-motion: reduce)': {
            '*, *::before, *::after': {
              animationDuration: '0.01ms !important',
              animationIterationCount: '1 !important',
              transitionDuration: '0.01ms !important',
              scrollBehavior: 'auto !important',
            },
          },
        },
      },
      MuiCheckbox: { defaultProps: { color: 'default' }, styleOverrides: { root: { color: t.ink } } },
      MuiButtonBase: {
        defaultProps: { disableRipple: true },
        // The library takes the ring away from its buttons, for it shows the focus by a ripple.
        styleOverrides: { root: { '&:focus-visible': { outline: `3px solid ${t.ink}`, outlineOffset: 2, zIndex: 1 } } },
      },
      MuiButton: {
        defaultProps: { disableElevation: true },
        styleOverrides: {
          root: { minHeight: 44, paddingInline: 18, borderRadius: 2 },
          outlined: { borderColor: t.hairline, color: t.ink, '&:hover': { borderColor: t.ink, background: t.raised } },
        },
      },
      MuiToggleButton: {
        styleOverrides: {
          root: {
            minHeight: 44,
            minWidth: 52,
            borderColor: t.hairline,
            color: t.ink,
            paddingInline: 14,
            fontSize: 15,
            '&.Mui-selected, &.Mui-selected:hover': { background: t.ink, color: t.page },
            '&:hover': { background: t.raised },
          },
        },
      },
      MuiPaper: { styleOverrides: { root: { backgroundImage: 'none', boxShadow: 'none' } } },
      MuiSwitch: {
        styleOverrides: {
          thumb: { borderRadius: 2, background: t.ink, boxShadow: 'none' },
          track: { borderRadius: 2, background: `${t.hairline} !important`, opacity: '1 !important' },
        },
      },
    },
  });
}
