/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { MeasuredStatement } from './measured-statement.tsx';

// the browser of the tests does not lay anything out
Object.assign(globalThis, {
  ResizeObserver: class {
    observe(): void {}
    unobserve(): void {}
    disconnect(): void {}
  },
});

let last: string | undefined;

const OF = { components: ['level'], start: 0, end: 6 };

function Probe({ first }: { readonly first?: string }): ReactNode {
  const [measured, setMeasured] = useState<string | undefined>(first);
  const change = (next: string | undefined): void => {
    last = next;
    setMeasured(next);
  };
  return <MeasuredStatement measured={measured} of={OF} onChange={change} />;
}

function type(text: string): void {
  fireEvent.change(screen.getByRole('textbox', { name: 'Data in columns' }), {
    target: { value: text },
  });
}

test('points are typed after a click, counted, and errors told with their places', async () => {
  render(<Probe />);
  await userEvent.click(screen.getByRole('button', { name: 'Add data' }));
  type('0;4\n1;x');
  expect(screen.getByText('line 2, column 3: x is not a number; leave the cell empty')).toBeTruthy();
  type('0;4\n1;3,3');
  expect(screen.getByText(/2 points/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Done' }));
  expect(screen.getByText(/2 data points/)).toBeTruthy();
  expect(last).toBe('0;4\n1;3,3');
});

test('points come from a file, and are taken out again', async () => {
  render(<Probe first="0,4" />);
  await userEvent.click(screen.getByRole('button', { name: 'edit' }));
  const file = new File(['t,level\n0,4\n2,2.7\n3,2.2\n'], 'lake.csv', { type: 'text/csv' });
  // the files of the tests have no text of their own
  Object.assign(file, { text: () => Promise.resolve('t,level\n0,4\n2,2.7\n3,2.2\n') });
  await userEvent.upload(screen.getByLabelText('Data file'), file);
  expect(await screen.findByText(/3 points/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Remove' }));
  expect(last).toBeUndefined();
  await userEvent.keyboard('{Escape}');
});
