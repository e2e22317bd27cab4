import { MD3DarkTheme, MD3LightTheme, configureFonts, useTheme, type MD3Theme } from 'react-native-paper';

/** Neutral surfaces (a* = b* = 0), one madder accent for what is live. The card is L* 72 in light, 22 in dark. */
const light = {
  card: '#b1b1b1',
  chrome: '#efefef',
  raised: '#f8f8f8',
  line: '#c9c9c9',
  ink: '#1c1c1c',
  quiet: '#555555',
  accent: '#a2423d',
  onAccent: '#ffffff',
  field: '#e2e2e2',
};
const dark = {
  card: '#363636',
  chrome: '#1e1e1e',
  raised: '#292929',
  line: '#474747',
  ink: '#ececec',
  quiet: '#b0b0b0',
  accent: '#d98077',
  onAccent: '#1a1a1a',
  field: '#3a3a3a',
};
export type Colours = typeof light;

export const SANS = 'Mukta_400Regular';
export const SANS_MEDIUM = 'Mukta_500Medium';
export const SERIF = 'Alegreya_500Medium';

const fonts = configureFonts({ config: { fontFamily: SANS } });

function build(base: MD3Theme, c: Colours): MD3Theme & { dx: Colours } {
  return {
    ...base,
    roundness: 1,
    fonts,
    dx: c,
    colors: {
      ...base.colors,
      primary: c.accent,
      onPrimary: c.onAccent,
      primaryContainer: c.field,
      onPrimaryContainer: c.ink,
      secondary: c.ink,
      onSecondary: c.chrome,
      secondaryContainer: c.field,
      onSecondaryContainer: c.ink,
      background: c.chrome,
      onBackground: c.ink,
      surface: c.chrome,
      onSurface: c.ink,
      surfaceVariant: c.field,
      onSurfaceVariant: c.quiet,
      outline: c.quiet,
      outlineVariant: c.line,
      error: c.accent,
      elevation: { level0: 'transparent', level1: c.raised, level2: c.raised, level3: c.raised, level4: c.raised, level5: c.raised },
    },
  };
}

export const lightTheme = build(MD3LightTheme, light);
export const darkTheme = build(MD3DarkTheme, dark);

export const useColours = (): Colours => useTheme<MD3Theme & { dx: Colours }>().dx;

/** Colours for masks and guards: they differ in lightness as well as hue. */
export const maskColours = [
  { id: 'madder', label: 'Madder', rgb: [0.64, 0.2, 0.2] as [number, number, number] },
  { id: 'lime', label: 'Pale lime', rgb: [0.86, 0.95, 0.35] as [number, number, number] },
  { id: 'sea', label: 'Sea blue', rgb: [0.05, 0.42, 0.62] as [number, number, number] },
  { id: 'ink', label: 'Ink', rgb: [0.08, 0.06, 0.16] as [number, number, number] },
];
