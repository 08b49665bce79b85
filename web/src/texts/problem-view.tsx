import {
  aligned,
  componentNames,
  type ParameterValues,
  type Problem,
  systemTex,
} from '@schritt/core/notation';
import { short } from '@schritt/core/text';
import { MAX_SHOWN } from '@schritt/core/study';
import { Segmented } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { Tex } from '../math/tex.tsx';
import { PortraitPanel } from '../panels/portrait-panel.tsx';
import { ProblemTypeset } from '../statement/problem-statement.tsx';
import { usePalette } from '../theme/use-palette.ts';
import type { ProblemView as View } from '../worker/messages.ts';
import { type Ask, useComputed } from '../worker/use-work.ts';
import { Derivatives } from './derivatives.tsx';
import './problem-view.css';

const ORIGIN = {
  exact: 'exact solution',
  taylor: 'reference solution (Taylor series of order 24)',
  'fine steps': 'approximate solution (RK4 with small steps)',
} as const;

/** Why a solution ends before the end of the interval; a time follows. */
const ENDING = {
  leaves: 'becomes infinite near',
  singular: 'right-hand side singular near',
  stuck: 'computed up to',
} as const;

function shownNames(problem: Problem): readonly string[] {
  const names = componentNames(problem);
  if (names.length <= MAX_SHOWN) return names;
  return Array.from(
    { length: MAX_SHOWN },
    (_, i) => names[Math.round((i * (names.length - 1)) / (MAX_SHOWN - 1))] ?? '',
  );
}

interface ProblemViewProps {
  readonly problem: Problem;
  /** Values that sliders have set, by name. */
  readonly values: ParameterValues;
}

/** What the program understood of a problem: typeset, reduced, checked, and drawn. */
export function ProblemView({ problem, values }: ProblemViewProps): ReactNode {
  const { text } = problem;
  const [view, setView] = useState<'time' | 'plane'>('time');
  const ask = useMemo(
    (): Ask<View> => (computer) => computer.ask('problem', { text, parameters: values }),
    [text, values],
  );
  const palette = usePalette();
  const { value, why } = useComputed(ask);
  const names = useMemo(() => shownNames(problem), [problem]);
  const reduced = problem.unknowns.some((u) => u.order > 1 || u.rearranged);
  const canPlane = problem.size === 2 && problem.blocks.length === 2;
  const shown = canPlane ? view : 'time';
  return (
    <div className="problem-view">
      <div className="problem-words">
        <h2 className="label">Problem</h2>
        <ProblemTypeset problem={problem} />
        {reduced && (
          <>
            <h2 className="label">As a first-order system</h2>
            <div className="typeset">
              <div className="formula">
                <Tex tex={aligned(systemTex(problem, '&='))} />
              </div>
            </div>
          </>
        )}
        <Derivatives problem={problem} />
        {problem.size > 2 && <p className="quiet">{problem.size} components</p>}
        {value !== null &&
          [...(value.check === null ? [] : [value.check]), ...value.typed].map(({ satisfied, sentence }) => (
            <p key={sentence} className={satisfied ? 'good' : 'wrong'} role="status">
              {satisfied ? '✓ ' : ''}
              {sentence}
            </p>
          ))}
        {why !== null && <p className="wrong">{why}</p>}
      </div>
      <section className="problem-plot" aria-label="Plot">
        <div className="plot-panel-head">
          <h2>{shown === 'plane' ? 'Plane' : 'Solution'}</h2>
          {canPlane && (
            <Segmented<typeof view>
              aria-label="Plot"
              size="small"
              options={[
                { value: 'time', label: `vs ${problem.independent}` },
                { value: 'plane', label: `${names[1] ?? ''} vs ${names[0] ?? ''}` },
              ]}
              value={view}
              onChange={setView}
            />
          )}
          {shown === 'time' && names.length > 1 && (
            <span className="component-names">
              {names.map((name, j) => (
                <i key={name} style={{ color: palette.methods[j % palette.methods.length] }}>
                  {name}
                </i>
              ))}
            </span>
          )}
          {value !== null && (
            <span className="quiet">
              {ORIGIN[value.portrait.kind]}
              {value.portrait.ends !== null &&
                `; ${ENDING[value.portrait.ends.why]} ${problem.independent} = ${short(value.portrait.ends.t, 4)}`}
            </span>
          )}
        </div>
        {value !== null && (
          <PortraitPanel
            portrait={value.portrait}
            names={names}
            independent={problem.independent}
            view={shown}
          />
        )}
      </section>
    </div>
  );
}
