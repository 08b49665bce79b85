import type { Complex } from '../../inspect/stability/complex.ts';
import { spectrumAlong } from '../../inspect/stability/spectrum.ts';
import { lazily } from '../../text/lazily.ts';
import { attempt } from '../../text/refusal.ts';
import type { Comparison } from '../judge/comparison.ts';
import { decayAlong } from '../judge/fastest-decay.ts';
import { kinkTimes } from '../judge/kinks.ts';
import type { MethodResult } from '../judge/method-result.ts';
import type { Study } from '../runs/study.ts';
import type { Truth } from '../runs/truth.ts';
import type { StudyCase } from './cases.ts';
import type { Fact, Finding } from './facts.ts';
import { RULES } from './rules/rules.ts';
import { sentenceOf } from './sentences.ts';

function toFinding(fact: Fact, method: number | null): Finding {
  return { ...fact, method, sentence: sentenceOf(fact) };
}

/** Times at which eigenvalues are looked for, as parts of the interval. */
const PARTS = [0, 0.25, 0.5, 0.75, 1];

function spectrumOf({ problem }: Study, truth: Truth): readonly Complex[] {
  const times = PARTS.map((part) => problem.start + part * (problem.end - problem.start));
  const found = attempt(() => spectrumAlong(problem, truth.value, times));
  return found.ok ? found.value : [];
}

/** What can be said of methods although the exact solution is none. */
const SOUND: ReadonlySet<string> = new Set([
  'refused',
  'left the numbers',
  'leap',
  'damped',
  'last step',
  'struck',
  'typed derivative',
]);

/**
 * All findings of a study: a wrong exact solution first of all, then those of each method in turn, then those of the
 * study.
 */
export function findingsOf(
  study: Study,
  truth: Truth | null,
  methods: readonly MethodResult[],
  comparison: Comparison | null,
): readonly Finding[] {
  if (truth === null) return [];
  // what lies behind the time of the error is no cause of it
  const until = typeof study.error.at === 'object' ? study.error.at.t : study.problem.end;
  const whole: StudyCase = {
    study,
    truth,
    methods,
    comparison,
    kinks: lazily(() => kinkTimes(study.problem, truth).filter((t) => t < until)),
    decay: lazily(() => decayAlong(study.problem, truth)),
    spectrum: lazily(() => spectrumOf(study, truth)),
  };
  const wrong = (RULES['wrong exact'].ofStudy?.(whole) ?? []).map((fact) => toFinding(fact, null));
  const isSound = (kind: string): boolean =>
    kind !== 'wrong exact' && (wrong.length === 0 || SOUND.has(kind));
  const rules = Object.entries(RULES).flatMap(([kind, rule]) => (isSound(kind) ? [rule] : []));
  const own = methods.flatMap((result, i) => {
    const method = study.methods[i];
    if (method === undefined) return [];
    const of = { ...whole, method, result };
    // of a method that was not run there is nothing to say but why
    const activeRules = result.refused === null ? rules : [RULES.refused];
    return activeRules.flatMap(({ ofMethod, eachOfMethod }): readonly Finding[] => {
      const found = ofMethod?.(of) ?? null;
      return [...(found === null ? [] : [found]), ...(eachOfMethod?.(of) ?? [])].map((fact) =>
        toFinding(fact, i),
      );
    });
  });
  return [
    ...wrong,
    ...own,
    ...rules.flatMap(({ ofStudy }) => (ofStudy?.(whole) ?? []).map((fact) => toFinding(fact, null))),
  ];
}
