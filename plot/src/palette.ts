/** The face of everything but headings. What draws without a page knows the parts of a face by names of their own. */
export const SANS =
  "'IBM Plex Sans', 'IBM Plex Sans Extended', 'IBM Plex Sans Greek', 'DejaVu Sans', system-ui, sans-serif";
/** The face of what is at axes. */
export const SERIF =
  "'Source Serif 4', 'Source Serif 4 Extended', 'Source Serif 4 Greek', Georgia, 'DejaVu Sans', serif";

/** The colours of the look, for one ground. */
export interface Palette {
  readonly dark: boolean;
  readonly paper: string;
  readonly ink: string;
  readonly quiet: string;
  readonly hairline: string;
  readonly gridFine: string;
  readonly gridCoarse: string;
  /** Marks what is chosen now, and nothing else. */
  readonly highlight: string;
  readonly good: string;
  readonly wrong: string;
  /** One colour a method, in the order in which methods are in a study. */
  readonly methods: readonly string[];
}

export const LIGHT: Palette = {
  dark: false,
  paper: '#F7F5EF',
  ink: '#1B2733',
  quiet: '#5C6873',
  hairline: 'rgba(27, 39, 51, 0.13)',
  gridFine: '#E6EAE9',
  gridCoarse: '#DCE4E6',
  highlight: '#FFE36E',
  good: '#0F7561',
  wrong: '#A3262A',
  methods: ['#B5490F', '#1F6FB2', '#0F7561', '#8E4585', '#9A7400', '#4A5A6A'],
};

export const DARK: Palette = {
  dark: true,
  paper: '#14191E',
  ink: '#E8E4DA',
  quiet: '#9AA5AE',
  hairline: 'rgba(232, 228, 218, 0.16)',
  gridFine: '#1E272E',
  gridCoarse: '#26313A',
  highlight: '#6B5A12',
  good: '#4CC2A6',
  wrong: '#F08A86',
  methods: ['#EE8A54', '#6FB3EC', '#4CC2A6', '#CF8BC6', '#D2AC3C', '#A3B4C4'],
};

/** What is printed: the colours of the page on white. */
export const PRINT: Palette = { ...LIGHT, paper: '#FFFFFF' };

/** Black and white: markers alone tell methods apart, grey those behind the sixth. */
export const BLACK: Palette = {
  ...PRINT,
  ink: '#000000',
  quiet: '#444444',
  gridFine: '#E4E4E4',
  gridCoarse: '#D8D8D8',
  highlight: '#DDDDDD',
  good: '#000000',
  wrong: '#000000',
  methods: [...Array<string>(6).fill('#000000'), ...Array<string>(6).fill('#777777')],
};

/** Marker shapes in the order of methods: hollow first, then the same filled. */
const MARKERS = ['square', 'circle', 'triangle', 'diamond', 'plus', 'cross'] as const;

export type MarkerShape = (typeof MARKERS)[number];

/** How a method is drawn, everywhere the same. */
export interface MethodMark {
  readonly color: string;
  readonly shape: MarkerShape;
  readonly filled: boolean;
}

/**
 * How far the colours of methods behind the sixth go towards ink: where all markers are filled, they tell them apart.
 */
const SECOND = 0.5;

/** The mark of the method at a place in its study. */
export function methodMark(palette: Palette, index: number): MethodMark {
  const own = palette.methods[index % palette.methods.length] ?? palette.ink;
  const isSecond = Math.floor(index / MARKERS.length) % 2 === 1;
  return {
    color: isSecond && palette.methods.length === MARKERS.length ? mixed(own, palette.ink, SECOND) : own,
    shape: MARKERS[index % MARKERS.length] ?? 'circle',
    filled: isSecond,
  };
}
/** A colour between two, both as `#rrggbb`: the first where `part` is 0, the second where it is 1. */
export function mixed(one: string, other: string, part: number): string {
  const channel = (color: string, i: number): number =>
    Number.parseInt(color.slice(1 + 2 * i, 3 + 2 * i), 16);
  const both = [0, 1, 2].map((i) => Math.round((1 - part) * channel(one, i) + part * channel(other, i)));
  return `#${both.map((value) => value.toString(16).padStart(2, '0')).join('')}`;
}
