/** An axis: what stands at it, and how it is divided. */
export interface PlotAxis {
  readonly label: string;
  readonly scale: 'linear' | 'logarithmic';
}

export interface PlotPoint {
  readonly x: number;
  readonly y: number;
  /** Drawn hollow: it does not count. */
  readonly hollow?: boolean;
}

/** A curve or a row of points; points without a place on a logarithmic axis are left out. */
export interface PlotSeries {
  readonly label: string;
  readonly points: readonly PlotPoint[];
  /** Which colour and marker: the place of a method in its study; null for ink without a marker. */
  readonly mark: number | null;
  readonly line: 'none' | 'thin' | 'full' | 'dashed';
  /** Left out of the legend. */
  readonly unnamed?: boolean;
}

/** A picture for print: data, axes and words, without sizes and colours. */
export interface Plot {
  readonly title: string;
  readonly x: PlotAxis;
  readonly y: PlotAxis;
  readonly series: readonly PlotSeries[];
}

/** What is drawn for: a slide of 16:9, or a column of a paper. */
export const PLOT_SIZES = ['slide', 'column'] as const;
export type PlotSize = (typeof PLOT_SIZES)[number];

/** Colours, or black and white with markers alone to tell methods apart. */
export const PLOT_INKS = ['colour', 'black'] as const;
export type PlotInk = (typeof PLOT_INKS)[number];
