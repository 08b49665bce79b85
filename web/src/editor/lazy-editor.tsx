import { type ComponentProps, lazy, type ReactNode, Suspense } from 'react';
import type { TextEditor } from './text-editor.tsx';

const Loaded = lazy(async () => ({ default: (await import('./text-editor.tsx')).TextEditor }));

/** The editor, which is fetched when the first text is opened; the text stands there meanwhile. */
export function LazyEditor(props: ComponentProps<typeof TextEditor>): ReactNode {
  return (
    <Suspense fallback={<pre className="editor-to-come">{props.value}</pre>}>
      <Loaded {...props} />
    </Suspense>
  );
}
