import type { Method, Reading } from '@schritt/core/notation';
import { type ComponentProps, type ReactNode, useMemo } from 'react';
import { methodRemarks } from './method-remarks.ts';
import { TextEditor } from './text-editor.tsx';

/** The editor of a method: beside its errors it tells what is likely not meant, each with its repair. */
export function MethodEditor({
  reading,
  ...rest
}: Omit<ComponentProps<typeof TextEditor>, 'of' | 'errors' | 'remarks'> & {
  readonly reading: Reading<Method>;
}): ReactNode {
  const remarks = useMemo(() => (reading.ok ? methodRemarks(reading.value) : []), [reading]);
  return <TextEditor of="method" errors={reading.ok ? [] : reading.errors} remarks={remarks} {...rest} />;
}
