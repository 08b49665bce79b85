/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import type { ExportOutcome } from './use-export.ts';
import { type Delivery, useWhenMade } from './use-when-made.ts';

const NOTHING: ExportOutcome = { text: null, bytes: null, still: null, why: null };

test('a click before the file is made delivers it once, when it arrives; a reason against it ends the wait', () => {
  const delivered: string[] = [];
  const hook = renderHook(
    ({ taken }: { readonly taken: ExportOutcome }) =>
      useWhenMade(taken, (delivery: Delivery) => delivered.push(`${delivery} ${taken.text}`)),
    { initialProps: { taken: NOTHING } },
  );
  act(() => hook.result.current('download'));
  expect(delivered).toEqual([]);
  hook.rerender({ taken: { ...NOTHING, text: 'first' } });
  hook.rerender({ taken: { ...NOTHING, text: 'second' } });
  expect(delivered).toEqual(['download first']);
  act(() => hook.result.current('copy'));
  expect(delivered).toEqual(['download first', 'copy second']);
  hook.rerender({ taken: NOTHING });
  act(() => hook.result.current('copy'));
  hook.rerender({ taken: { ...NOTHING, why: 'a text has errors' } });
  hook.rerender({ taken: { ...NOTHING, text: 'third' } });
  expect(delivered).toHaveLength(2);
});
