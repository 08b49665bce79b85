import { Button } from 'antd';
import { lazy, type ReactNode, Suspense, useState } from 'react';

const ExportPanel = lazy(async () => ({ default: (await import('./export-panel.tsx')).ExportPanel }));

/** Opens the export panel; its code is loaded on first use. */
export function ExportButton(): ReactNode {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button title="Tables, code, spreadsheets, plots and handouts" onClick={() => setOpen(true)}>
        Export
      </Button>
      {isOpen && (
        <Suspense fallback={null}>
          <ExportPanel onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
