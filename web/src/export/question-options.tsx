import { Checkbox, InputNumber } from 'antd';
import type { ReactNode } from 'react';
import { type HandoutSettings, KINDS_OF_QUESTIONS, type ExportSettings } from './export-settings.ts';
import { Variants } from './handout-options.tsx';

interface Choosing {
  readonly choice: ExportSettings;
  readonly change: (part: Partial<ExportSettings>) => void;
}

/** What a teacher chooses for questions: their kinds, the digits that are asked for, the variants of their numbers. */
export function QuestionOptions({ choice, change }: Choosing): ReactNode {
  const { questions, handout } = choice;
  const vary = (part: Partial<HandoutSettings>): void => change({ handout: { ...handout, ...part } });
  return (
    <div className="handout-options">
      <Checkbox.Group
        aria-label="Kinds of questions"
        className="export-options"
        value={[...questions.kinds]}
        options={[...KINDS_OF_QUESTIONS]}
        onChange={(kinds) => change({ questions: { ...questions, kinds } })}
      />
      <div className="export-options">
        <label>
          digits required{' '}
          <InputNumber
            size="small"
            min={1}
            max={17}
            precision={0}
            value={handout.digits}
            onChange={(value) => vary({ digits: value ?? 6 })}
          />
        </label>
      </div>
      <Variants value={handout} change={vary} />
    </div>
  );
}
