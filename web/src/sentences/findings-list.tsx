import { type Finding, splitFindings } from '@schritt/core/study';
import { Button } from 'antd';
import { type ReactNode, useState } from 'react';
import { Mark } from '../plots/mark.tsx';
import { useStudyState } from '../state/study-state.ts';
import type { KeyedResult } from '@schritt/plot';
import { methodMark } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';
import './findings-list.css';

const SIGNS: Readonly<Record<Finding['tone'], string>> = { good: '✓', trouble: '!', plain: '·' };

/** What the numbers mean: sentences, each pointing at its rungs. */
export function FindingsList(): ReactNode {
  const { results } = useStudyState('results');
  return results.value === null ? null : <Findings keyed={results.value} />;
}

/** The findings of one method or of the study: two lines at most, and the others when they are asked for. */
function OwnFindings({
  findings,
  item,
}: {
  readonly findings: readonly Finding[];
  readonly item: (finding: Finding) => ReactNode;
}): ReactNode {
  const [isOpen, setOpen] = useState(false);
  const { main, details } = splitFindings(findings);
  return (
    <>
      {main.length === 0 && <p className="quiet">No conclusion yet</p>}
      <ul>{(isOpen ? findings : main).map(item)}</ul>
      {details.length > 0 && (
        <Button type="link" size="small" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {isOpen ? 'Hide details' : `Details (${details.length})`}
        </Button>
      )}
    </>
  );
}

function Findings({ keyed }: { readonly keyed: KeyedResult }): ReactNode {
  const { methods: own, setPointed } = useStudyState('methods', 'setPointed');
  const { placeOf, titleOf, change } = own;
  const palette = usePalette();
  const { findings, methods } = keyed.result;
  const item = (finding: Finding, key: string | null): ReactNode => {
    const point = (): void => setPointed({ key, rows: finding.rungs });
    return (
      <li
        key={`${finding.kind}/${finding.sentence}`}
        className={finding.tone}
        tabIndex={finding.rungs.length > 0 ? 0 : undefined}
        onMouseEnter={point}
        onFocus={point}
        onMouseLeave={() => setPointed(null)}
        onBlur={() => setPointed(null)}
      >
        <span className="sign" aria-hidden="true">
          {SIGNS[finding.tone]}
        </span>
        {finding.sentence}
      </li>
    );
  };
  const first = findings.filter(({ kind }) => kind === 'wrong exact');
  const whole = findings.filter(
    ({ method, kind }) => method === null && kind !== 'comparison' && kind !== 'wrong exact',
  );
  return (
    <div className="findings">
      {first.length > 0 && (
        <section aria-label="Problem with the exact solution">
          <ul>{first.map((finding) => item(finding, null))}</ul>
        </section>
      )}
      {methods.map(({ fit }, i) => {
        const key = keyed.keys[i] ?? '';
        const own = findings.filter(({ method }) => method === i);
        return (
          <section key={key} aria-label={`Findings on ${titleOf(key)}`}>
            <h3 style={{ color: methodMark(palette, placeOf(key)).color }}>
              <Mark index={placeOf(key)} /> {titleOf(key)}
              {fit?.by === 'person' && (
                <Button
                  type="link"
                  size="small"
                  onClick={() => change(key, 'window of', ({ window: _, ...method }) => method)}
                >
                  fit range set manually: reset
                </Button>
              )}
            </h3>
            <OwnFindings findings={own} item={(finding) => item(finding, key)} />
          </section>
        );
      })}
      {whole.length > 0 && (
        <section aria-label="Findings on the study">
          <h3>The study</h3>
          <OwnFindings findings={whole} item={(finding) => item(finding, null)} />
        </section>
      )}
    </div>
  );
}
