import { Button } from 'antd';
import { lazy, type ReactNode, Suspense, useState } from 'react';

const TakeAway = lazy(async () => ({ default: (await import('./take-away.tsx')).TakeAway }));

/** Opens the place where tables and programs are taken away; its code comes when it is first wanted. */
export function TakeAwayButton(): ReactNode {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button title="Tables, code, spreadsheets, plots and handouts" onClick={() => setOpen(true)}>
        Export
      </Button>
      {isOpen && (
        <Suspense fallback={null}>
          <TakeAway onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
