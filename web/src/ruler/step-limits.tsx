import { stepSizeText } from '@schritt/core/text';
import type { ReactNode } from 'react';
import { methodMark } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';
import { placeOfSize, type RulerScale } from './scale.ts';

interface StepLimitsProps {
  readonly limits: readonly {
    readonly key: string;
    readonly title: string;
    readonly place: number;
    /** The largest h at which its runs do not grow; null where there is none, or none is known. */
    readonly limit: number | null;
  }[];
  readonly scale: RulerScale;
  /** Where the axis lies, in pixels. */
  readonly axis: number;
}

/** How high the range beyond a limit is shaded, in pixels. */
const HEIGHT = 14;

/** The range beyond the stability limit of every method, where one is known. */
export function StepLimits({ limits, scale, axis }: StepLimitsProps): ReactNode {
  const palette = usePalette();
  return limits.map(({ key, title, place, limit }) => {
    if (limit === null || limit >= scale.coarsest) return null;
    const x = Math.max(scale.left, placeOfSize(scale, limit));
    const { color } = methodMark(palette, place);
    return (
      <g key={key} className="step-limit">
        <title>{`${title} is stable up to h = ${stepSizeText(limit)} for the fastest decay`}</title>
        <rect x={x} y={axis - HEIGHT} width={scale.right - x} height={HEIGHT} fill={color} />
        <line x1={x} x2={x} y1={axis - HEIGHT} y2={axis} stroke={color} />
      </g>
    );
  });
}
