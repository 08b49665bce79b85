import type { Stroke } from '@schritt/core/study';
import type { MethodMark } from './palette.ts';

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A curve. */
export interface Curve {
  readonly kind: 'line';
  /** What a legend switches it by; curves of one thing have one. */
  readonly id: string;
  readonly label: string;
  readonly points: readonly Point[];
  readonly color: string;
  readonly width: number;
  /** Whether it is dashed: what is computed and not run. */
  readonly dashed?: boolean;
}

/** Points with the marker of a method. */
export interface Dots {
  readonly kind: 'dots';
  readonly id: string;
  readonly label: string;
  readonly points: readonly Point[];
  readonly mark: MethodMark;
  /** Radius of every marker; 0 for none. */
  readonly radius: number;
  /** Width of the line that joins them; 0 for none. */
  readonly joined: number;
  /** Whether markers stay where they touch each other, because a person wants them. */
  readonly keepsMarkers?: boolean;
  /** Markers that are pale and hollow, by place. */
  readonly pale: readonly boolean[];
  /** What fills hollow markers. */
  readonly ground: string;
}

export type Series = Curve | Dots;

/** A line between two points with ends and a text beside it, such as a fitted order. */
export interface Fit {
  /** The series that it belongs to. */
  readonly id: string;
  readonly color: string;
  readonly text: string;
  readonly from: Point;
  readonly to: Point;
}

/** A word at a place. */
export interface Note {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly color: string;
}

/** A curve that leaves the plot: at which edge, where, and how far it goes. */
export interface Runaway {
  readonly x: number;
  readonly up: boolean;
  readonly text: string;
  readonly color: string;
}

/** What is drawn besides the series, behind them or before them. */
export type Overlay =
  /** A stroke of the highlighter across the plot. */
  | { readonly kind: 'band'; readonly x: number }
  /** The quantity at the top, the variable in the corner opposite to the curves' fall. */
  | { readonly kind: 'caption'; readonly upper: string; readonly lower: string; readonly falls: boolean }
  | { readonly kind: 'fits'; readonly fits: readonly Fit[] }
  /** Slopes to compare with, as a fan of thin lines in the lower right corner. */
  | { readonly kind: 'guides'; readonly orders: readonly number[] }
  /** Arrows at the upper or lower edge, for curves that the axis does not follow. */
  | { readonly kind: 'runaways'; readonly runaways: readonly Runaway[] }
  /** Words at places of the plot. */
  | { readonly kind: 'notes'; readonly notes: readonly Note[] }
  /** Short strokes along a field of directions. */
  | { readonly kind: 'field'; readonly strokes: readonly Stroke[]; readonly arrows: boolean };

export interface Axis {
  readonly scale: 'linear' | 'logarithmic';
  /** Ends of the axis; without them it fits what is shown. */
  readonly range?: readonly [number, number];
  /** Part of the range that is left free above and below. */
  readonly grace?: number;
  readonly mostTicks?: number;
  /** The text of a numbered tick; without it the number itself. */
  readonly tick?: (value: number) => string;
}

/** A curve in the legend: its marker, or a stroke for a line. */
export interface LegendItem {
  readonly id: string;
  readonly label: string;
  readonly mark: MethodMark | null;
  readonly color: string;
  /** What is to be known of it besides. */
  readonly remark?: string;
}

/** A plot as plain data: what it shows, not how it is drawn. */
export interface Plot {
  /** What it is, for those who do not see it. */
  readonly title: string;
  readonly x: Axis;
  readonly y: Axis;
  readonly series: readonly Series[];
  readonly overlays: readonly Overlay[];
  /** What is said of a point that is pointed at; null for plots that say nothing. */
  readonly tip: ((label: string, point: Point) => string | readonly string[]) | null;
  /** Curves that a person may switch; none where there is one alone. */
  readonly legend: readonly LegendItem[];
  /** Whether a unit takes as much room across as up, as in a plane of two like quantities. */
  readonly equal?: boolean;
  /** Whether the nearest point speaks wherever the pointer is, and not only when it is on one. */
  readonly reads?: boolean;
}

/** What happens when a person points at a plot. */
export interface PlotEvents {
  /** Receives the point under the pointer; null for none. */
  readonly onPoint?: ((point: Point | null) => void) | undefined;
  /** Receives the place in its series of a point that was clicked. */
  readonly onChoose?: ((place: number) => void) | undefined;
}
