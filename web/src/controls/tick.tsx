import type { ComponentPropsWithRef, ReactNode } from 'react';
import './controls.css';

/** Something that is so or is not. */
export function Tick({
  isTicked,
  onChange,
  title,
  children,
  ...rest
}: Omit<ComponentPropsWithRef<'input'>, 'type' | 'checked' | 'onChange'> & {
  readonly isTicked: boolean;
  readonly onChange: (isTicked: boolean) => void;
}): ReactNode {
  return (
    <label className="tick" title={title}>
      <input
        type="checkbox"
        checked={isTicked}
        onChange={(event) => onChange(event.target.checked)}
        {...rest}
      />
      {children}
    </label>
  );
}
