import type { ComponentPropsWithRef, ReactNode } from 'react';
import './controls.css';

/** Lines of text; the area grows with them between a least and a most number of rows. */
export function TextArea({
  least = 2,
  most = least,
  className = '',
  value,
  ...rest
}: Omit<ComponentPropsWithRef<'textarea'>, 'rows' | 'value'> & {
  readonly value: string;
  readonly least?: number;
  readonly most?: number;
}): ReactNode {
  const rows = Math.min(most, Math.max(least, value.split('\n').length));
  return <textarea className={`text-area ${className}`.trimEnd()} rows={rows} value={value} {...rest} />;
}
