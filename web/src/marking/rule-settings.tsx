import { parseChoices, repeatedSheets } from '@schritt/core/document';
import { attempt } from '@schritt/core/text';
import { Collapse, Input, InputNumber } from 'antd';
import type { ReactNode } from 'react';
import type { MarkingSession } from './marking-session.ts';

interface RuleSettingsProps {
  readonly session: MarkingSession;
  readonly change: (part: Partial<MarkingSession>) => void;
}

/** How marks are given. */
function Rule({ session: { rule }, change }: RuleSettingsProps): ReactNode {
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
function Variants({ session: { variants }, change }: RuleSettingsProps): ReactNode {
  const vary = (part: Partial<MarkingSession['variants']>): void =>
    change({ variants: { ...variants, ...part }, sheets: {} });
  const read = attempt(() => repeatedSheets(parseChoices(variants.choices), variants.sheets));
  const note = read.ok ? read.value : read.refusal.message;
  return (
    <div className="marking-rule">
      <Input
        aria-label="Individual parameters"
        value={variants.choices}
        maxLength={2000}
        placeholder="k in 0.2, 0.25, ..., 0.6; start in 1..5"
        onChange={(event) => vary({ choices: event.target.value })}
      />
      <label>
        variants{' '}
        <InputNumber
          size="small"
          min={1}
          max={500}
          precision={0}
          value={variants.sheets}
          onChange={(value) => vary({ sheets: value ?? 1 })}
        />
      </label>
      <label>
        seed{' '}
        <InputNumber
          size="small"
          min={0}
          max={2 ** 31}
          precision={0}
          value={variants.seed}
          onChange={(value) => vary({ seed: value ?? 1 })}
        />
      </label>
      {variants.choices.trim() !== '' && note !== null && <p className="wrong">{note}</p>}
      <p className="quiet">
        As in the export of the handouts. The sheet of a student is read from the name, as in “Anna, sheet 3”;
        otherwise it is that with which most rows agree.
      </p>
    </div>
  );
}

/** The rule for marks, and the variants of the handouts. */
export function RuleSettings(props: RuleSettingsProps): ReactNode {
  const { rule, variants } = props.session;
  const hasVariants = variants.choices.trim() !== '';
  return (
    <Collapse
      size="small"
      items={[
        {
          key: 'rule',
          label: `Marks: ${rule.rowMarks} for rows, ${rule.stepMarks} for steps`,
          children: <Rule {...props} />,
        },
        {
          key: 'variants',
          label: hasVariants ? `Variants: ${variants.sheets}` : 'Variants: none',
          children: <Variants {...props} />,
        },
      ]}
    />
  );
}
