import type { ComponentPropsWithRef, ReactNode } from 'react';
import './controls.css';

/** How much a button asks to be pressed: the one that goes on, an outlined one, or a word that can be pressed. */
export type ButtonLook = 'primary' | 'outlined' | 'text';

/** A button of the look. It never sends a form. */
export function Button({
  look = 'outlined',
  size = 'usual',
  className = '',
  children,
  ...rest
}: Omit<ComponentPropsWithRef<'button'>, 'type'> & {
  readonly look?: ButtonLook;
  readonly size?: 'small' | 'usual';
}): ReactNode {
  return (
    <button type="button" className={`button ${look} ${size} ${className}`.trimEnd()} {...rest}>
      {children}
    </button>
  );
}
