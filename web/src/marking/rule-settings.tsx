import { Collapse, InputNumber } from 'antd';
import { memo, type ReactNode } from 'react';
import { Variants } from '../export/handout-options.tsx';
import type { MarkingSession } from './marking-session.ts';

interface RuleSettingsProps extends Pick<MarkingSession, 'rule' | 'variants'> {
  readonly change: (part: Partial<MarkingSession>) => void;
}

/** How marks are given. */
function Rule({ rule, change }: Pick<RuleSettingsProps, 'rule' | 'change'>): ReactNode {
  const vary = (part: Partial<MarkingSession['rule']>): void => change({ rule: { ...rule, ...part } });
  return (
    <div className="marking-rule">
      <label>
        for right rows{' '}
        <InputNumber
          size="small"
          min={0}
          max={1000}
          value={rule.rowMarks}
          onChange={(value) => vary({ rowMarks: value ?? 0 })}
        />
      </label>
      <label>
        for right steps from own rows{' '}
        <InputNumber
          size="small"
          min={0}
          max={1000}
          value={rule.stepMarks}
          onChange={(value) => vary({ stepMarks: value ?? 0 })}
        />
      </label>
      <label>
        multiples of{' '}
        <InputNumber
          size="small"
          min={0.01}
          max={100}
          value={rule.roundTo}
          onChange={(value) => vary({ roundTo: value ?? 0.5 })}
        />
      </label>
      <label>
        rows asked{' '}
        <InputNumber
          size="small"
          min={1}
          max={10_000}
          precision={0}
          placeholder="N"
          value={rule.rowsAsked}
          onChange={(value) => vary({ rowsAsked: value })}
        />
      </label>
      <p className="quiet">
        Each part is given in proportion to the rows after the initial value; right in all of them gives{' '}
        {rule.rowMarks + rule.stepMarks}.
      </p>
    </div>
  );
}

/** Numbers that every student has of their own, as the handouts were made. */
function OwnNumbers({ variants, change }: Pick<RuleSettingsProps, 'variants' | 'change'>): ReactNode {
  return (
    <div className="marking-rule handout-options">
      <Variants
        value={variants}
        change={(part) => change({ variants: { ...variants, ...part }, sheets: {} })}
      />
      <p className="quiet">
        As in the export of the handouts. The sheet of a student is read from the name, as in “Anna, sheet 3”;
        otherwise it is that with which most rows agree.
      </p>
    </div>
  );
}

/** The rule for marks, and the variants of the handouts. */
export const RuleSettings = memo(function RuleSettings({
  rule,
  variants,
  change,
}: RuleSettingsProps): ReactNode {
  const hasVariants = variants.variants.trim() !== '';
  return (
    <Collapse
      size="small"
      items={[
        {
          key: 'rule',
          label: `Marks: ${rule.rowMarks} for rows, ${rule.stepMarks} for steps`,
          children: <Rule rule={rule} change={change} />,
        },
        {
          key: 'variants',
          label: hasVariants ? `Variants: ${variants.sheets}` : 'Variants: none',
          children: <OwnNumbers variants={variants} change={change} />,
        },
      ]}
    />
  );
});
