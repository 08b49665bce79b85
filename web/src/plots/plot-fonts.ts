import sans from '@fontsource/ibm-plex-sans/files/ibm-plex-sans-latin-400-normal.woff2?inline';
import sansBold from '@fontsource/ibm-plex-sans/files/ibm-plex-sans-latin-600-normal.woff2?inline';
import serif from '@fontsource/source-serif-4/files/source-serif-4-latin-400-italic.woff2?inline';

const FACES = [
  { family: 'IBM Plex Sans', weight: 400, style: 'normal', source: sans },
  { family: 'IBM Plex Sans', weight: 600, style: 'normal', source: sansBold },
  { family: 'Source Serif 4', weight: 400, style: 'italic', source: serif },
] as const;

/** The faces of plots as a style sheet that needs no other file: a saved SVG looks the same wherever it is opened. */
export const PLOT_FACES = FACES.map(
  ({ family, weight, style, source }) =>
    `@font-face{font-family:'${family}';font-weight:${weight};font-style:${style};src:url(${source}) format('woff2')}`,
).join('\n');
