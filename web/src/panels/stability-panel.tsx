import { growthAt } from '@schritt/core/inspect';
import { short, stepSizeText } from '@schritt/core/text';
import { Select } from 'antd';
import { type ReactNode, useMemo } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { useRegion, useSpectrum } from '../state/use-results.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { methodMark } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';
import { STABILITY_VIEWS } from '../state/view.ts';
import type { Region, RegionRequest, Spectrum } from '../worker/messages.ts';
import { type OtherRegion, stabilityPlot } from './stability-plot.ts';

/** By how much errors grow at a step size, and the largest one at which they do not. */
function Growth({
  polynomial,
  spectrum: { eigenvalues, largestStep },
  h,
}: {
  readonly polynomial: Region['polynomial'];
  readonly spectrum: Spectrum;
  readonly h: number;
}): ReactNode {
  const growths = eigenvalues.map(({ re, im }) => growthAt(polynomial, { re: h * re, im: h * im }));
  const worst = Math.max(0, ...growths);
  if (worst === 0) return null;
  const limit =
    largestStep === null
      ? ''
      : largestStep === Infinity
        ? '; stable for every h'
        : largestStep > 0
          ? `; stable up to h = ${short(largestStep, 4)}`
          : '; unstable for every h';
  return (
    <span className="quiet">
      at h = {stepSizeText(h)} an error is multiplied by at most {short(worst, 4)} per step{limit}
    </span>
  );
}

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
  const switches = useStudyState('hidden', 'toggle');
  const shows = view.stability;
  const beside = useMemo(
    () => (shows === 'all regions' ? good.methods.filter((one) => one.key !== key && one.good !== null) : []),
    [shows, good.methods, key],
  );
  const text = method?.text ?? null;
  const request = useMemo(
    (): RegionRequest | null =>
      text === null
        ? null
        : { text, others: beside.map((one) => one.good?.text ?? ''), isStar: shows === 'order star' },
    [text, beside, shows],
  );
  const region = useRegion(request);
  const spectrum = useSpectrum(good.document, place).value;
  const polynomial = region.value?.polynomial ?? null;
  const h = chosen.grid?.h ?? null;
  const title = methods.titleOf(key);
  const plot = useMemo(() => {
    if (region.value === null) return null;
    const mark = methodMark(palette, methods.placeOf(key));
    const along =
      region.value.isStar || h === null || spectrum === null || spectrum.eigenvalues.length === 0
        ? null
        : { label: title, mark, eigenvalues: spectrum.eigenvalues, h };
    // an answer to an earlier question may be there still, with edges of other methods
    const edges = new Map(region.value.others.map(({ text: of, edge }) => [of, edge]));
    const others = beside.flatMap((one): readonly OtherRegion[] => {
      const edge = edges.get(one.good?.text ?? '');
      const otherMark = methodMark(palette, methods.placeOf(one.key));
      return edge === undefined
        ? []
        : [{ id: one.key, label: methods.titleOf(one.key), mark: otherMark, edge }];
    });
    const shown = { region: region.value, own: { id: key, mark }, others, spectrum: along };
    return stabilityPlot(title, shown, palette);
  }, [region.value, palette, methods, key, h, spectrum, title, beside]);
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
        <Select
          size="small"
          popupMatchSelectWidth={false}
          variant="borderless"
          aria-label="What is drawn"
          value={shows}
          options={STABILITY_VIEWS.map((value) => ({ value, label: value }))}
          onChange={(next) => setView({ stability: next })}
        />
        {polynomial !== null && h !== null && spectrum !== null && (
          <Growth polynomial={polynomial} spectrum={spectrum} h={h} />
        )}
      </div>
      {/* a curve that is hidden in other plots is the subject of this one, unless it is one of several */}
      {plot !== null && <PlotCanvas plot={plot} {...(shows === 'all regions' ? { switches } : {})} />}
      {region.why !== null && (
        <p className="wrong" role="alert">
          The stability region could not be computed: {region.why}.
        </p>
      )}
      {plot === null && region.why === null && region.part === null && (
        <p className="quiet nothing">
          {shows === 'order star'
            ? 'An order star is drawn for a consistent one-step method for first-order systems.'
            : 'The region of this formula is not known from its text.'}
        </p>
      )}
    </>
  );
}
