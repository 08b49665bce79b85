/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { type ReactNode, useState } from 'react';
import { type ExportSettings, FIRST, type HandoutSettings } from './export-settings.ts';
import { HandoutOptions } from './handout-options.tsx';
import { Options } from './options.tsx';
import { ExportPreview } from './export-preview.tsx';

// the browser of the tests does not lay anything out
Object.assign(globalThis, {
  ResizeObserver: class {
    observe(): void {}
    unobserve(): void {}
    disconnect(): void {}
  },
});

let handout: HandoutSettings;
let choice: ExportSettings;

function Handout({ first = FIRST.handout }: { readonly first?: HandoutSettings }): ReactNode {
  const [now, setNow] = useState(first);
  const change = (part: Partial<HandoutSettings>): void => {
    handout = { ...now, ...part };
    setNow(handout);
  };
  return <HandoutOptions handout={now} change={change} />;
}

function Chosen({ first }: { readonly first: ExportSettings }): ReactNode {
  const [now, setNow] = useState(first);
  const change = (part: Partial<ExportSettings>): void => {
    choice = { ...now, ...part };
    setNow(choice);
  };
  return <Options choice={now} change={change} />;
}

test('a handout takes its task, its blanks, its variants and what it is', async () => {
  render(<Handout />);
  expect(screen.queryByLabelText('variants')).toBeNull();
  fireEvent.change(screen.getByLabelText('Instructions'), { target: { value: 'By hand.' } });
  fireEvent.change(screen.getByLabelText('Blanks'), { target: { value: 'columns k1' } });
  fireEvent.change(screen.getByLabelText('Individual parameters'), {
    target: { value: 'k in 1..3' },
  });
  fireEvent.change(screen.getByLabelText('variants'), { target: { value: '12' } });
  await userEvent.click(screen.getByLabelText('hide coefficients'));
  await userEvent.click(screen.getByText('Answer key'));
  await userEvent.click(screen.getByText('Letter'));
  await userEvent.click(screen.getByText('Errors and orders'));
  expect(handout).toEqual({
    ...FIRST.handout,
    task: 'By hand.',
    blanks: 'columns k1',
    variants: 'k in 1..3',
    sheets: 12,
    coefficients: true,
    solved: true,
    paper: 'Letter',
    of: 'rungs',
  });
});

test('a spreadsheet has neither paper nor room for a plot', () => {
  render(<Handout first={{ ...FIRST.handout, as: 'xlsx' }} />);
  expect(screen.queryByText('Letter')).toBeNull();
  expect(screen.queryByLabelText('space for plot')).toBeNull();
});

test('each kind offers its own options, and nothing else', async () => {
  const { rerender } = render(<Chosen key="csv" first={FIRST} />);
  await userEvent.click(screen.getByLabelText('UTF-8 BOM (for spreadsheet programs)'));
  expect(choice.mark).toBe(true);
  rerender(<Chosen key="tex" first={{ ...FIRST, table: 'tex' }} />);
  expect(screen.queryByLabelText('UTF-8 BOM (for spreadsheet programs)')).toBeNull();
  await userEvent.click(screen.getByLabelText('fragment only'));
  expect(choice.part).toBe(true);
  rerender(<Chosen key="plot" first={{ ...FIRST, what: 'plot', plotAs: 'png' }} />);
  await userEvent.click(screen.getByText('Black and white'));
  await userEvent.click(screen.getByText('Paper'));
  fireEvent.change(screen.getByLabelText('scale factor'), { target: { value: '4' } });
  expect(choice).toMatchObject({ ink: 'black', size: 'column', scale: 4 });
  rerender(<Chosen key="formulas" first={{ ...FIRST, what: 'formulas' }} />);
  await userEvent.click(screen.getByLabelText('with the chosen step worked out'));
  expect(choice.worked).toBe(false);
});

test('a page is shown in a frame in which nothing runs; the reason for none is reported', () => {
  const page: ExportSettings = { ...FIRST, what: 'handout' };
  const { rerender } = render(
    <ExportPreview choice={page} taken={{ text: '<p>sheet</p>', bytes: null, still: null, why: null }} />,
  );
  const frame = screen.getByTitle('Preview');
  expect(frame.getAttribute('sandbox')).toBe('allow-same-origin allow-modals');
  expect(frame.getAttribute('srcdoc')).toBe('<p>sheet</p>');
  rerender(
    <ExportPreview choice={FIRST} taken={{ text: null, bytes: null, still: null, why: 'it is too long' }} />,
  );
  expect(screen.getByRole('status').textContent).toBe('it is too long');
  rerender(<ExportPreview choice={FIRST} taken={{ text: 'a\nb', bytes: null, still: null, why: null }} />);
  expect(screen.getByLabelText('Preview').textContent).toBe('a\nb');
});
