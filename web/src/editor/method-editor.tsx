import type { Method, Reading } from '@schritt/core/notation';
import type { ComponentProps, ReactNode } from 'react';
import { TextEditor } from './text-editor.tsx';
import { useMethodRemarks } from './use-inspection.ts';

/** The editor of a method: beside its errors it shows likely mistakes, each with its repair. */
export function MethodEditor({
  reading,
  ...rest
}: Omit<ComponentProps<typeof TextEditor>, 'of' | 'errors' | 'remarks'> & {
  readonly reading: Reading<Method>;
}): ReactNode {
  const remarks = useMethodRemarks(reading.ok ? reading.value : null);
  return <TextEditor of="method" errors={reading.ok ? [] : reading.errors} remarks={remarks} {...rest} />;
}
