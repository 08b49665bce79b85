import { count } from '@schritt/core/text';
import { type ReactNode, useMemo } from 'react';
import { type ExportSettings, preview } from './export-settings.ts';
import type { ExportOutcome } from './use-export.ts';

/** Lines of the preview. */
const SHOWN = 200;

/** The first lines of a text. */
function Lines({ text }: { readonly text: string }): ReactNode {
  const { shown, more } = useMemo(() => preview(text, SHOWN), [text]);
  return (
    <>
      <pre className="export-preview" tabIndex={0} aria-label="Preview">
        {shown}
      </pre>
      <p className="quiet">{more === 0 ? '' : `and ${count(more)} more lines`}</p>
    </>
  );
}

/** What will be taken: a plot or a page as it looks, everything else as text. */
export function ExportPreview({
  choice,
  taken,
}: {
  readonly choice: ExportSettings;
  readonly taken: ExportOutcome;
}): ReactNode {
  const { text, why } = taken;
  if (text === null)
    return (
      <p className={why === null ? 'quiet' : 'export-why'} role="status">
        {why ?? 'Preparing …'}
      </p>
    );
  if (choice.what === 'plot' && choice.plotAs !== 'tikz')
    return (
      <img
        className="export-plot"
        alt="Preview"
        src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`}
      />
    );
  // nothing in the page runs: it is in a frame without leave for anything but being printed
  if (choice.what === 'handout' && choice.handout.as === 'html')
    return (
      <iframe
        className="export-page"
        title="Preview"
        sandbox="allow-same-origin allow-modals"
        srcDoc={text}
      />
    );
  return <Lines text={text} />;
}
