import type { ReactNode } from 'react';
import { methodMark, type MethodMark } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';

/** A marker, as it is in plots. */
export function Shape({ mark }: { readonly mark: MethodMark }): ReactNode {
  const { color, shape, filled } = mark;
  const line = { stroke: color, strokeWidth: 1.8, fill: filled ? color : 'none' };
  return (
    <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden="true" className="mark">
      {shape === 'square' && <rect x="1.5" y="1.5" width="8" height="8" {...line} />}
      {shape === 'circle' && <circle cx="5.5" cy="5.5" r="4.2" {...line} />}
      {shape === 'triangle' && <path d="M5.5 1 10 9.5H1Z" {...line} />}
      {shape === 'diamond' && <path d="M5.5 .8 10.2 5.5 5.5 10.2 .8 5.5Z" {...line} />}
      {shape === 'plus' && <path d="M5.5 .8V10.2M.8 5.5H10.2" {...line} strokeWidth={filled ? 3 : 1.8} />}
      {shape === 'cross' && (
        <path d="M1.5 1.5 9.5 9.5M9.5 1.5 1.5 9.5" {...line} strokeWidth={filled ? 3 : 1.8} />
      )}
    </svg>
  );
}

/** The marker of the method at a place of its study. */
export function Mark({ index }: { readonly index: number }): ReactNode {
  const palette = usePalette();
  return <Shape mark={methodMark(palette, index)} />;
}
