import { type Complex, growthAt } from '@schritt/core/inspect';
import { short, stepSizeText } from '@schritt/core/text';
import { Select } from 'antd';
import { type ReactNode, useMemo } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { useRegion, useSpectrum } from '../state/use-results.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { methodMark } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';
import { stabilityPlot } from './stability-plot.ts';

/** The stability region of a method, with h times the eigenvalues of the problem along the run drawn into it. */
export function StabilityPanel(): ReactNode {
  const { good, view, setView, chosen, methods } = useStudyState(
    'good',
    'view',
    'setView',
    'chosen',
    'methods',
  );
  const palette = usePalette();
  const place = Math.min(view.method, Math.max(0, good.keys.length - 1));
  const key = good.keys[place] ?? '';
  const method = good.methods.find((one) => one.key === key)?.good ?? null;
  const region = useRegion(method?.text ?? null);
  const spectrum = useSpectrum(good.document, place).value;
  const polynomial = region.value?.polynomial ?? null;
  const h = chosen.grid?.h ?? null;
  const title = methods.titleOf(key);
  const growth = useMemo(
    () => (z: Complex) => (polynomial === null ? NaN : growthAt(polynomial, z)),
    [polynomial],
  );
  const plot = useMemo(() => {
    if (region.value === null) return null;
    const mark = methodMark(palette, methods.placeOf(key));
    const own =
      h === null || spectrum === null || spectrum.eigenvalues.length === 0
        ? null
        : { label: title, mark, eigenvalues: spectrum.eigenvalues, h };
    return stabilityPlot(title, { region: region.value, spectrum: own, growth }, palette);
  }, [region.value, palette, methods, key, h, spectrum, title, growth]);
  const worst =
    h === null || spectrum === null
      ? null
      : Math.max(0, ...spectrum.eigenvalues.map(({ re, im }) => growth({ re: h * re, im: h * im })));
  const largest = spectrum?.largestStep ?? null;
  return (
    <>
      <div className="plot-panel-controls">
        <Select
          size="small"
          popupMatchSelectWidth={false}
          variant="borderless"
          aria-label="Method of the region"
          value={place}
          options={good.keys.map((own, i) => ({ value: i, label: methods.titleOf(own) }))}
          onChange={(next) => setView({ method: next })}
        />
        {worst !== null && worst > 0 && h !== null && (
          <span className="quiet">
            at h = {stepSizeText(h)} an error is multiplied by at most {short(worst, 4)} per step
            {largest === null
              ? ''
              : largest === Infinity
                ? '; stable for every h'
                : largest > 0
                  ? `; stable up to h = ${short(largest, 4)}`
                  : '; unstable for every h'}
          </span>
        )}
      </div>
      {plot !== null && <PlotCanvas plot={plot} />}
      {region.why !== null && (
        <p className="wrong" role="alert">
          The stability region could not be computed: {region.why}.
        </p>
      )}
      {plot === null && region.why === null && region.part === null && (
        <p className="quiet nothing">The region of this formula is not known from its text.</p>
      )}
    </>
  );
}
