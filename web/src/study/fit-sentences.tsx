import { stepSizeText } from '@schritt/core';
import type { ReactNode } from 'react';
import { methodMark } from '../theme/tokens.ts';
import { usePalette } from '../theme/use-palette.ts';
import type { KeyedResult } from './use-results.ts';

interface FitSentencesProps {
  readonly keyed: KeyedResult;
  readonly placeOf: (key: string) => number;
  readonly titleOf: (key: string) => string;
  readonly exactKnown: boolean;
}

/** What the slopes say, one sentence a method. */
export function FitSentences({ keyed, placeOf, titleOf, exactKnown }: FitSentencesProps): ReactNode {
  const palette = usePalette();
  if (!exactKnown)
    return <p>No exact solution is given, so there is no error to show. Add a line such as y(t) = ….</p>;
  return keyed.result.methods.map(({ fit, rungs, refused }, i) => {
    const key = keyed.keys[i] ?? '';
    const name = <b style={{ color: methodMark(palette, placeOf(key)).color }}>{titleOf(key)}</b>;
    if (refused !== null)
      return (
        <p key={key}>
          {name} cannot be run on this problem: {refused}.
        </p>
      );
    const stopped = rungs.filter((rung) => rung.stopped !== null);
    const first = stopped[0]?.stopped;
    return (
      <p key={key}>
        {name}{' '}
        {fit === null
          ? 'has no order yet: two errors clear of rounding are needed.'
          : `shows order ${fit.order.toFixed(2)} over the rungs from h = ${stepSizeText(rungs[fit.from]?.h ?? NaN)} to ${stepSizeText(rungs[fit.to]?.h ?? NaN)}.`}
        {first != null &&
          (first.step === 0
            ? ` At h = ${stepSizeText(stopped[0]?.h ?? NaN)} it cannot be run: ${first.why}.`
            : ` At h = ${stepSizeText(stopped[0]?.h ?? NaN)} it leaves the numbers in step ${first.step}, ${first.stage}: ${first.why}.`)}
      </p>
    );
  });
}
