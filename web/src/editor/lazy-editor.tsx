import { type ComponentProps, lazy, type ReactNode, Suspense } from 'react';
import type { MethodEditor } from './method-editor.tsx';
import type { TextEditor } from './text-editor.tsx';

const Loaded = lazy(async () => ({ default: (await import('./text-editor.tsx')).TextEditor }));
const LoadedOfMethod = lazy(async () => ({ default: (await import('./method-editor.tsx')).MethodEditor }));

/** The text is there until its editor has come. */
function ToCome({ text, children }: { readonly text: string; readonly children: ReactNode }): ReactNode {
  return <Suspense fallback={<pre className="editor-to-come">{text}</pre>}>{children}</Suspense>;
}

/** The editor, which is fetched when the first text is opened. */
export function LazyEditor(props: ComponentProps<typeof TextEditor>): ReactNode {
  return (
    <ToCome text={props.value}>
      <Loaded {...props} />
    </ToCome>
  );
}

/** The editor of a method, fetched in the same way with what it remarks. */
export function LazyMethodEditor(props: ComponentProps<typeof MethodEditor>): ReactNode {
  return (
    <ToCome text={props.value}>
      <LoadedOfMethod {...props} />
    </ToCome>
  );
}
