import type { Finding, FindingKind } from '../../src/study/findings/facts.ts';
import type { Figures } from '../../src/study/findings/figures.ts';
import type { Study } from '../../src/study/runs/study.ts';
import { placesOf, truthOf } from '../../src/study/runs/truth.ts';
import { latestTime } from '../../src/study/runs/run-method.ts';
import { layLadder } from '../../src/study/runs/ladder.ts';
import type { StudyResult } from '../../src/study/study-result.ts';
import { type Claimed, errorsAt, type Verdict } from './claimed.ts';
import * as order from './order-claims.ts';
import * as rounding from './rounding-claims.ts';
import * as size from './size-claims.ts';
import * as solution from './solution-claims.ts';

/** What a comparison says is run: with so many steps the error is the target, with fewer it is larger. */
function comparison(_: Figures['comparison'], { study, result }: Claimed): Verdict {
  if (result.comparison === null) return null;
  for (const { method, steps, atMost } of result.comparison.needs) {
    const half = Math.max(study.methods[method]!.method.depth + 3, Math.floor(steps / 2));
    const [error, fewer] = errorsAt(study, method, [steps, half]);
    if (error != null && error > 1.6 * result.comparison.wished) return `${steps} steps give ${error}`;
    // below all that were run errors may be small by chance
    const isBetween = half >= Math.min(...result.methods[method]!.rungs.map((rung) => rung.steps));
    const isEnough =
      isBetween && half < 0.6 * steps && fewer != null && fewer < 0.5 * result.comparison.wished;
    if (!atMost && isEnough) return `${half} steps give ${fewer} already`;
  }
  return null;
}

/** How the figures of each kind of finding are worked out another way. */
export const CLAIMS: { readonly [K in FindingKind]: (figures: Figures[K], of: Claimed) => Verdict } = {
  'wrong exact': solution.wrongExact,
  refused: size.refused,
  'left the numbers': size.stopped,
  formula: order.slip,
  'as promised': order.asExpected,
  'no order': order.noOrder,
  'two rungs': order.twoSizes,
  'better than promised': order.anotherOrder,
  'order lost': order.anotherOrder,
  'not yet': order.beside,
  oscillation: size.oscillation,
  predicted: order.leadingTerm,
  'leading sign': order.leadingSign,
  'leading zero': order.leadingZero,
  unstable: size.unstable,
  large: size.large,
  damped: size.damped,
  leap: size.leap,
  coarse: size.coarse,
  'same grid': size.sameGrid,
  'typed derivative': solution.typedDerivative,
  'last step': solution.lastStep,
  time: solution.elsewhere,
  sign: rounding.changedSign,
  digits: rounding.roundedCoefficients,
  'near zero': solution.nearZero,
  floor: rounding.floor,
  'rounding part': rounding.roundingPart,
  reference: solution.reference,
  'rounding only': rounding.roundingOnly,
  'no relative error': solution.noRelativeError,
  struck: size.struck,
  comparison,
};

/** The verdict on a finding; its kind and its figures belong together. */
function verdictOf<K extends FindingKind>(
  { kind, figures }: { readonly kind: K; readonly figures: Figures[K] },
  of: Claimed,
): Verdict {
  return CLAIMS[kind](figures, of);
}

/** Every claim of a study that another way of working it out contradicts. */
export function falseClaims(study: Study, result: StudyResult): readonly string[] {
  const { problem, error, ladder, lastStep } = study;
  const places = placesOf(problem, error.of);
  if ('message' in places) return [];
  const laid = layLadder(ladder, problem.start, problem.end, lastStep);
  const truth = truthOf(problem, places, latestTime(study, laid));
  return result.findings.flatMap((finding: Finding) => {
    const method = finding.method ?? 0;
    const own = result.methods[method];
    if (own === undefined) return [];
    const { rungs, sentence } = finding;
    const wrong = verdictOf(finding, { study, result, truth, method, own, rungs, sentence });
    return wrong === null ? [] : [`${finding.kind}: ${sentence}; but ${wrong}`];
  });
}
