import { type ArithmeticFields, MOST_DIGITS, FEWEST_DIGITS, precisionInFile } from '@schritt/core/document';
import { precisionText } from '@schritt/core/study';
import { InputNumber, Select } from 'antd';
import { type ReactNode, useState } from 'react';

/** The arithmetics, as they are listed. */
const KINDS = [
  { value: 'double', label: 'double precision' },
  { value: 'single', label: 'single precision' },
  { value: 'digits', label: 'decimal digits' },
] as const;

const OF_STUDY = { value: 'study', label: 'arithmetic of the study' } as const;

type Kind = (typeof KINDS)[number]['value'] | 'study';

const ROUNDINGS = [
  { value: 'half-even', label: 'round half to even' },
  { value: 'half-up', label: 'round half up' },
  { value: 'chop', label: 'chop' },
] as const;

const ROUNDED = [
  { value: 'operations', label: 'every operation' },
  { value: 'stored', label: 'stored values only' },
] as const;

/** Digits at first: those of a decimal number of 128 bits. */
const DIGITS = 34;

/** An arithmetic in a few words; nothing where a file leaves it out. */
export function arithmeticText(fields: ArithmeticFields): string | undefined {
  return fields.precision === undefined ? undefined : precisionText(precisionInFile(fields));
}

function kindOf({ precision }: ArithmeticFields, isOfMethod: boolean): Kind {
  if (precision === undefined) return isOfMethod ? 'study' : 'double';
  return typeof precision === 'string' ? precision : 'digits';
}

/** The fields of another kind: what says nothing in it is left out. */
function withKind(kind: Kind): ArithmeticFields {
  if (kind === 'study') return {};
  return { precision: kind === 'digits' ? { digits: DIGITS } : kind };
}

interface DigitsFieldProps {
  readonly label: string;
  readonly digits: number;
  readonly onChange: (digits: number) => void;
}

/** The number of digits; what is typed stays in the field until the study has taken it. */
function DigitsField({ label, digits, onChange }: DigitsFieldProps): ReactNode {
  const [taken, setTaken] = useState(digits);
  const [typed, setTyped] = useState<number | null>(digits);
  if (digits !== taken) {
    setTaken(digits);
    setTyped(digits);
  }
  return (
    <InputNumber
      size="small"
      aria-label={label}
      title="Significant decimal digits"
      min={FEWEST_DIGITS}
      max={MOST_DIGITS}
      precision={0}
      value={typed}
      onChange={(next) => {
        setTyped(next);
        if (next !== null && next >= FEWEST_DIGITS && next <= MOST_DIGITS) onChange(next);
      }}
    />
  );
}

interface ArithmeticChoiceProps {
  readonly value: ArithmeticFields;
  /** Whether it is that of a method, which may be that of the study. */
  readonly ofMethod: boolean;
  readonly label: string;
  readonly onChange: (fields: ArithmeticFields) => void;
}

/** The arithmetic of runs: double, single, or with a number of decimal digits and how these are rounded. */
export function ArithmeticChoice({ value, ofMethod, label, onChange }: ArithmeticChoiceProps): ReactNode {
  const { precision, rounding = 'half-even', rounded = 'operations' } = value;
  return (
    <div className="arithmetic">
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label={label}
        value={kindOf(value, ofMethod)}
        options={ofMethod ? [OF_STUDY, ...KINDS] : [...KINDS]}
        onChange={(kind) => onChange(withKind(kind))}
      />
      {typeof precision === 'object' && (
        <div className="arithmetic-digits">
          <DigitsField
            label={`${label}: significant digits`}
            digits={precision.digits}
            onChange={(digits) => onChange({ ...value, precision: { digits } })}
          />
          <Select
            size="small"
            popupMatchSelectWidth={false}
            aria-label={`${label}: rounding`}
            value={rounding}
            options={[...ROUNDINGS]}
            onChange={(next) => onChange({ ...value, rounding: next })}
          />
          <Select
            size="small"
            popupMatchSelectWidth={false}
            aria-label={`${label}: what is rounded`}
            title="What is rounded to these digits"
            value={rounded}
            options={[...ROUNDED]}
            onChange={(next) => onChange({ ...value, rounded: next })}
          />
        </div>
      )}
    </div>
  );
}
