import type { ComponentPropsWithRef, ReactNode } from 'react';
import './controls.css';

/** A line of text. What cannot be read is marked as wrong and said to be so. */
export function TextField({
  size = 'usual',
  isBare = false,
  isWrong = false,
  className = '',
  onEnter,
  onKeyDown,
  ...rest
}: Omit<ComponentPropsWithRef<'input'>, 'size'> & {
  readonly size?: 'small' | 'usual';
  /** Without a frame, where the text stands among others. Default: with one. */
  readonly isBare?: boolean;
  readonly isWrong?: boolean;
  /** The line is done. */
  readonly onEnter?: () => void;
}): ReactNode {
  return (
    <input
      type="text"
      autoComplete="off"
      className={`text-field ${size} ${isBare ? 'bare' : ''} ${className}`.trimEnd()}
      aria-invalid={isWrong || undefined}
      onKeyDown={(event) => {
        if (event.key === 'Enter') onEnter?.();
        onKeyDown?.(event);
      }}
      {...rest}
    />
  );
}
