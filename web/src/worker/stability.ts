import { inspectMethod, largestStep, orderStar, regionsTogether, spectrumAlong } from '@schritt/core/inspect';
import { componentNames, type Method, parseMethod } from '@schritt/core/notation';
import { Refusal } from '@schritt/core/text';
import { type Study, truthOf } from '@schritt/core/study';
import type { Region, RegionRequest, Spectrum } from './messages.ts';

/** Times at which eigenvalues are looked for, as parts of the interval. */
const PARTS = 12;

export function methodOf(text: string): Method {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Refusal('text', 'the text cannot be read');
  return reading.value;
}

/** The stability region of a method, or its order star; null where there is none, or it is not known from the text. */
export function regionOf({ text, others, isStar }: RegionRequest): Region | null {
  const { stability } = inspectMethod(methodOf(text));
  if (stability === null) return null;
  const { polynomial } = stability;
  if (isStar) {
    const star = orderStar(stability);
    return star && { isStar, polynomial, ...star, others: [] };
  }
  const known = others.flatMap((other) => {
    const found = inspectMethod(methodOf(other)).stability;
    return found === null ? [] : [{ text: other, found }];
  });
  const [own, ...pictures] = regionsTogether([stability, ...known.map(({ found }) => found)]);
  const edges = pictures.map(({ edge }, i) => ({ text: known[i]?.text ?? '', edge }));
  return own === undefined ? null : { isStar, polynomial, ...own, others: edges };
}

/** Eigenvalues along the solution of a study's problem, and the largest h at which a method of it is stable there. */
export function spectrumOf(study: Study, method: number): Spectrum {
  const { problem, methods } = study;
  const places = componentNames(problem).map((_, j) => j);
  const truth = truthOf(problem, places, problem.end);
  const times = Array.from(
    { length: PARTS + 1 },
    (_, i) => problem.start + ((problem.end - problem.start) * i) / PARTS,
  );
  const eigenvalues = spectrumAlong(problem, truth.value, times);
  const chosen = methods[method];
  const stability = chosen === undefined ? null : inspectMethod(chosen.method).stability;
  if (stability === null) return { eigenvalues, largestStep: null };
  const steps = eigenvalues.flatMap((value) => largestStep(stability.polynomial, value) ?? []);
  return { eigenvalues, largestStep: steps.length === 0 ? null : Math.min(...steps) };
}
