import { type Inspection, zTex } from '@schritt/core/inspect';
import { evaluationsPerStep, isImplicit, type Method } from '@schritt/core/notation';
import { counted, fixed, short } from '@schritt/core/text';
import { Segmented } from 'antd';
import { memo, type ReactNode, useDeferredValue, useMemo, useState } from 'react';
import { useRegion } from '../state/use-results.ts';
import type { RegionRequest } from '../worker/messages.ts';
import { stabilityPlot } from '../panels/stability-plot.ts';
import { Tex } from '../math/tex.tsx';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { usePalette } from '../theme/use-palette.ts';
import { MethodTypeset } from '../statement/method-statement.tsx';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { useInspection } from '../editor/use-inspection.ts';
import { CoefficientGrid } from './coefficient-grid.tsx';
import { MethodProperties } from './method-properties.tsx';
import { OrderProof } from './order-proof.tsx';
import './method-inspection.css';

function limitText(limit: number): string {
  return limit === Infinity ? 'without bound' : `up to ${short(limit, 7)}`;
}

/** R(z), or the characteristic polynomial, as TeX. */
function polynomialTex({ stability }: Inspection): string | null {
  if (stability === null) return null;
  const { below, above } = stability.polynomial;
  const [first = []] = above;
  if (above.length === 1)
    return zTex(below) === '1' ? `R(z) = ${zTex(first)}` : `R(z) = \\frac{${zTex(first)}}{${zTex(below)}}`;
  const bracketed = (text: string): string => (/[+-]/.test(text.slice(1)) ? `(${text})` : text);
  const lower = above.map((p, j) => {
    const power = above.length - 1 - j;
    const r = power === 0 ? '' : power === 1 ? '\\,r' : `\\,r^{${power}}`;
    if (p.length === 0) return '';
    const written = bracketed(zTex(p));
    return written.startsWith('-') ? ` + ${written.slice(1)}${r}` : ` - ${written}${r}`;
  });
  const lead = zTex(below) === '1' ? '' : `${bracketed(zTex(below))}\\,`;
  return `${lead}r^{${above.length}}${lower.join('')} = 0`;
}

const Stability = memo(function Stability({
  title,
  inspection,
  text,
}: {
  readonly title: string;
  readonly inspection: Inspection;
  readonly text: string;
}): ReactNode {
  const palette = usePalette();
  const { stability } = inspection;
  const [shows, setShows] = useState<'region' | 'order star'>('region');
  const hasStar = stability !== null && stability.phase !== null;
  const isStar = hasStar && shows === 'order star';
  const request = useMemo(
    (): RegionRequest | null => (stability === null ? null : { text, others: [], isStar }),
    [stability, text, isStar],
  );
  const region = useRegion(request).value;
  const plot = useMemo(
    () => region && stabilityPlot(title, { region, own: null, others: [], spectrum: null }, palette),
    [region, title, palette],
  );
  if (stability === null) return null;
  const tex = polynomialTex(inspection);
  return (
    <section aria-label="Stability">
      <h2 className="label">Stability</h2>
      {tex !== null && (
        <div className="polynomial">
          <Tex tex={tex} />
        </div>
      )}
      <p>
        On the real axis {limitText(stability.real)}, on the imaginary axis {limitText(stability.imaginary)}
        {stability.lStable
          ? '; L-stable'
          : stability.aStable
            ? '; A-stable'
            : stability.alpha === null || stability.alpha === 0
              ? ''
              : `; A(α)-stable with α = ${fixed(stability.alpha, 2)}°`}
        .
        {stability.pade === null
          ? ''
          : ` R(z) is the (${stability.pade.numerator}, ${stability.pade.denominator}) Padé approximant of exp(z).`}
        {Number.isFinite(stability.atInfinity)
          ? ` ${stability.polynomial.above.length === 1 ? '|R(∞)| = ' : 'Largest root as z → ∞: '}${short(stability.atInfinity, 4)}.`
          : ''}
      </p>
      {hasStar && (
        <Segmented
          size="small"
          aria-label="What is drawn"
          options={['region', 'order star']}
          value={shows}
          onChange={setShows}
        />
      )}
      {plot !== null && (
        <div className="region-plot">
          <PlotCanvas plot={plot} />
        </div>
      )}
    </section>
  );
});

const Roots = memo(function Roots({ inspection }: { readonly inspection: Inspection }): ReactNode {
  const zero = (inspection.withinDigits?.proof ?? inspection.order)?.zero;
  if (zero == null) return null;
  const at = (value: number): number => 45 + 36 * value;
  return (
    <section className="zero-roots" aria-label="Roots at h = 0">
      <svg width={90} height={90} role="img" aria-label="Roots of the first polynomial and the unit circle">
        <circle cx={45} cy={45} r={36} fill="none" stroke="var(--quiet)" />
        <line x1={2} x2={88} y1={45} y2={45} stroke="var(--hairline)" />
        <line x1={45} x2={45} y1={2} y2={88} stroke="var(--hairline)" />
        {zero.roots.map(({ re, im }, i) => (
          <circle
            key={i}
            cx={Math.min(88, Math.max(2, at(re)))}
            cy={Math.min(88, Math.max(2, 90 - at(im)))}
            r={4}
            fill="var(--ink)"
          />
        ))}
      </svg>
      <p>
        {zero.stable ? 'Zero-stable' : 'Not zero-stable'}: at h = 0 the roots are{' '}
        {zero.roots
          .map(({ re, im }) =>
            Math.abs(im) < 1e-9
              ? short(re, 4)
              : `${short(re, 4)} ${im < 0 ? '−' : '+'} ${short(Math.abs(im), 4)} i`,
          )
          .join(', ')}
        .
        {zero.stable && zero.undamped.length > 0
          ? ' A root other than 1 lies on the unit circle: errors in this mode are not damped.'
          : ''}
      </p>
    </section>
  );
});

/**
 * What can be proved of a method: its form, order with reasons, stability, and how it does on a battery of problems.
 */
export function MethodInspection({
  title,
  method,
  onText,
}: {
  readonly title: string;
  readonly method: Method;
  readonly onText: (text: string) => void;
}): ReactNode {
  const { value, why } = useInspection(method);
  // rendered in pieces between frames
  const inspection = useDeferredValue(value);
  const cost = evaluationsPerStep(method);
  return (
    <div className="method-inspection">
      <div>
        <h2 className="label">Method</h2>
        <MethodTypeset method={method} />
        <p className="quiet">
          {inspection === null ? '' : `${inspection.kind ?? 'not in a recognised form'}; `}
          {counted(cost, 'evaluation')} of {method.form === 'first order' ? 'f' : 'a'} per{' '}
          {isImplicit(method) ? 'Newton iteration' : 'step'}
        </p>
        <section aria-label="Order">
          <h2 className="label">Order</h2>
          {inspection === null && why === null && <p className="quiet">Analysing …</p>}
          {why !== null && (
            <p className="wrong" role="alert">
              This method could not be analysed: {why}.
            </p>
          )}
          {inspection !== null && (
            <ErrorBoundary what="The order" of={inspection}>
              <OrderProof inspection={inspection} />
              <Roots inspection={inspection} />
            </ErrorBoundary>
          )}
        </section>
        {inspection !== null && <MethodProperties inspection={inspection} cost={cost} />}
      </div>
      {inspection !== null && (
        <div>
          <ErrorBoundary what="The tableau" of={inspection}>
            <CoefficientGrid
              inspection={inspection}
              startWith={method.startWith?.name ?? null}
              onText={onText}
            />
          </ErrorBoundary>
          <ErrorBoundary what="The stability region" of={inspection}>
            <Stability title={title} inspection={inspection} text={method.text} />
          </ErrorBoundary>
        </div>
      )}
    </div>
  );
}
