import { type ParameterValues, type Problem, texSymbol } from '@schritt/core/notation';
import { rounded, short } from '@schritt/core/text';
import { Button, Slider } from 'antd';
import type { ReactNode } from 'react';
import { Tex } from '../math/tex.tsx';
import './parameter-sliders.css';

interface ParameterSlidersProps {
  readonly problem: Problem;
  readonly values: ParameterValues;
  readonly onChange: (values: ParameterValues) => void;
  /** Writes the values into the text. */
  readonly onWrite: () => void;
}

/** Where a slider runs: from nothing to twice the value of the text, or to both sides of zero. */
function reach(value: number): readonly [number, number] {
  if (value === 0) return [-1, 1];
  return value > 0 ? [0, 2 * value] : [2 * value, 0];
}

/** Parameters as sliders; the text stays as it is until a person has the values written into it. */
export function ParameterSliders({ problem, values, onChange, onWrite }: ParameterSlidersProps): ReactNode {
  const moved = problem.parameters.some(({ name }) => Object.hasOwn(values, name));
  return (
    <section className="parameter-sliders" aria-label="Parameters">
      <div className="statement-head">
        <h2 className="label">Parameters</h2>
        {moved && (
          <>
            <Button size="small" onClick={onWrite}>
              Write to text
            </Button>
            <Button size="small" type="text" onClick={() => onChange({})}>
              Reset
            </Button>
          </>
        )}
      </div>
      {problem.parameters.map(({ name, value }) => {
        const [low, high] = reach(value);
        const now = values[name] ?? value;
        return (
          <div key={name} className="parameter">
            <Tex tex={texSymbol(name)} />
            <Slider
              min={low}
              max={high}
              step={(high - low) / 200}
              value={now}
              ariaLabelForHandle={name}
              // the value is shown beside it; a tooltip that follows the handle re-renders several times per key and,
              // when
              // keys come faster than it settles, exceeds React's limit of nested updates
              tooltip={{ open: false }}
              onChange={(next) => onChange({ ...values, [name]: rounded(next, 4) })}
            />
            <span className="value">{short(now, 5)}</span>
          </div>
        );
      })}
    </section>
  );
}
