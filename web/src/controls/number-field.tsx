import { useState, type ReactNode } from 'react';
import { TextField } from './text-field.tsx';

/** What a typed number stands for: nothing typed is null; what is no number, or not within the bounds, is not read. */
export function numberTyped(
  text: string,
  { min, max, isWhole }: { readonly min: number; readonly max: number; readonly isWhole: boolean },
): number | null | undefined {
  if (text.trim() === '') return null;
  const value = Number(text);
  if (!Number.isFinite(value) || value < min || value > max) return undefined;
  return isWhole && !Number.isInteger(value) ? undefined : value;
}

/** A number within bounds. While it cannot be taken it is marked and nothing changes; left so, the last good one is back. */
export function NumberField({
  label,
  value,
  min,
  max = Number.MAX_VALUE,
  isWhole = false,
  placeholder,
  onChange,
}: {
  /** For who cannot see what stands beside; none where it stands inside of its label. */
  readonly label?: string;
  readonly value: number | null;
  readonly min: number;
  readonly max?: number;
  readonly isWhole?: boolean;
  /** Where nothing typed means something. */
  readonly placeholder?: string;
  readonly onChange: (value: number | null) => void;
}): ReactNode {
  const [typed, setTyped] = useState<string | null>(null);
  const bounds = { min, max, isWhole };
  const read = typed === null ? value : numberTyped(typed, bounds);
  const isMissing = read === null && placeholder === undefined;
  return (
    <TextField
      size="small"
      className="number-field"
      inputMode="decimal"
      aria-label={label}
      placeholder={placeholder}
      value={typed ?? (value === null ? '' : String(value))}
      isWrong={read === undefined || isMissing}
      onChange={(event) => {
        const text = event.target.value;
        setTyped(text);
        const next = numberTyped(text, bounds);
        if (next === undefined || (next === null && placeholder === undefined)) return;
        onChange(next);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}
