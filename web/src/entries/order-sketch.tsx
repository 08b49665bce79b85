import { rounded } from '@schritt/core/text';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import useSWR from 'swr';
import { type ErrorsOfMethod, loadErrors } from '../api/study-errors.ts';
import { methodMark } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';

const WIDTH = 76;
const HEIGHT = 46;
const EDGE = 3;

/** Lines of errors over h, both logarithmic, fitted into the sketch; a method without two errors has none. */
export function sketchLines(methods: readonly ErrorsOfMethod[]): readonly string[] {
  const placed = methods.map((errors) =>
    errors.flatMap(({ h, error }) =>
      h > 0 && error > 0 && Number.isFinite(error) ? [{ x: Math.log(h), y: Math.log(error) }] : [],
    ),
  );
  const all = placed.flat();
  const [xs, ys] = [all.map(({ x }) => x), all.map(({ y }) => y)];
  const within = (values: readonly number[], value: number): number => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    return high > low ? (value - low) / (high - low) : 0.5;
  };
  return placed.map((points) =>
    points.length < 2
      ? ''
      : points
          .map(({ x, y }) => {
            const px = EDGE + within(xs, x) * (WIDTH - 2 * EDGE);
            const py = HEIGHT - EDGE - within(ys, y) * (HEIGHT - 2 * EDGE);
            return `${rounded(px, 4)},${rounded(py, 4)}`;
          })
          .join(' '),
  );
}

/** How the errors of a stored study fall with h, small; run when the row comes into sight. */
export function OrderSketch({ id, version }: { readonly id: string; readonly version: number }): ReactNode {
  const palette = usePalette();
  const host = useRef<SVGSVGElement>(null);
  const [isSeen, setSeen] = useState(false);
  useEffect(() => {
    if (host.current === null) return undefined;
    const observer = new IntersectionObserver((entries) => {
      if (entries.some(({ isIntersecting }) => isIntersecting)) setSeen(true);
    });
    observer.observe(host.current);
    return () => observer.disconnect();
  }, []);
  const { data } = useSWR(isSeen ? ['errors', id, version] : null, () => loadErrors(id), {
    revalidateOnFocus: false,
    revalidateIfStale: false,
    shouldRetryOnError: false,
  });
  return (
    <svg
      ref={host}
      className="order-sketch"
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      aria-hidden="true"
    >
      {sketchLines(data ?? []).map((points, i) => (
        <polyline
          key={i}
          points={points}
          fill="none"
          stroke={methodMark(palette, i).color}
          strokeWidth="1.5"
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}
