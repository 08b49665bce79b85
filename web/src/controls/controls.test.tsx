/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { type ReactNode, useState } from 'react';
import { Button } from './button.tsx';
import { Dialog } from './dialog.tsx';
import { NumberField, numberTyped } from './number-field.tsx';
import { PickList } from './pick-list.tsx';
import { Range } from './range.tsx';
import { Segments } from './segments.tsx';
import { TextArea } from './text-area.tsx';
import { TextField } from './text-field.tsx';
import { Tick } from './tick.tsx';

test.each([
  ['3', 3],
  [' 17 ', 17],
  ['', null],
  ['2.5', undefined],
  ['0', undefined],
  ['18', undefined],
  ['x', undefined],
  ['1e1', 10],
])('as a whole number from 1 to 17, %j is %s', (typed, value) => {
  expect(numberTyped(typed, { min: 1, max: 17, isWhole: true })).toBe(value);
});

/** A number field with what it stands for, as a page has it. */
function Digits({ told, placeholder }: { readonly told: (number | null)[]; readonly placeholder?: string }) {
  const [value, setValue] = useState<number | null>(6);
  return (
    <NumberField
      label="digits"
      min={1}
      max={17}
      isWhole
      value={value}
      {...(placeholder === undefined ? {} : { placeholder })}
      onChange={(next) => {
        told.push(next);
        setValue(next);
      }}
    />
  );
}

test('a number that cannot be taken changes nothing, is marked, and gives way to the last good one', () => {
  const told: (number | null)[] = [];
  render(<Digits told={told} />);
  const field = screen.getByRole('textbox', { name: 'digits' });
  fireEvent.change(field, { target: { value: '40' } });
  expect([told, field.getAttribute('aria-invalid')]).toEqual([[], 'true']);
  fireEvent.change(field, { target: { value: '' } });
  expect([told, field.getAttribute('aria-invalid')]).toEqual([[], 'true']);
  fireEvent.change(field, { target: { value: '4' } });
  expect([told, field.getAttribute('aria-invalid')]).toEqual([[4], null]);
  fireEvent.change(field, { target: { value: '4x' } });
  fireEvent.blur(field);
  expect([told, field]).toEqual([[4], expect.objectContaining({ value: '4' })]);
});

test('where nothing typed means something, it is taken', () => {
  const told: (number | null)[] = [];
  render(<Digits told={told} placeholder="all" />);
  const field = screen.getByRole('textbox', { name: 'digits' });
  fireEvent.change(field, { target: { value: '' } });
  expect([told, field.getAttribute('aria-invalid')]).toEqual([[null], null]);
});

const RUNS = [
  { value: 3, label: 'Euler' },
  { value: 'all', label: 'all side by side' },
  { value: -1, label: 'at times ...' },
] as const;

test('of a list the value is told as it is, number or word', async () => {
  const told: (string | number)[] = [];
  render(
    <PickList<string | number> label="Rows" value="all" options={RUNS} onChange={(v) => told.push(v)} />,
  );
  const list = screen.getByRole('combobox', { name: 'Rows' });
  expect(screen.getByRole('option', { name: 'all side by side' })).toHaveProperty('selected', true);
  await userEvent.selectOptions(list, 'Euler');
  await userEvent.selectOptions(list, 'at times ...');
  expect(told).toEqual([3, -1]);
});

test('of segments one is marked, and another is told when it is chosen', async () => {
  const told: string[] = [];
  const options = [
    { value: 'a', label: 'Errors' },
    { value: 'b', label: 'Cost' },
  ];
  const all = (value: string): ReactNode => (
    <Segments label="Table" value={value} options={options} onChange={(v) => told.push(v)} />
  );
  const { rerender } = render(all('a'));
  const marked = (): boolean[] =>
    screen.getAllByRole<HTMLInputElement>('radio').map(({ checked }) => checked);
  expect([screen.getByRole('radiogroup', { name: 'Table' }), marked()]).toEqual([
    expect.anything(),
    [true, false],
  ]);
  await userEvent.click(screen.getByText('Cost'));
  expect(told).toEqual(['b']);
  // a choice of columns that is none of these
  rerender(all('own'));
  expect(marked()).toEqual([false, false]);
});

test('a tick and a range tell what they come to', () => {
  const told: (boolean | number)[] = [];
  render(
    <>
      <Tick isTicked={false} onChange={(v) => told.push(v)}>
        h as a part
      </Tick>
      <Range label="k" min={0} max={2} step={0.5} value={1} onChange={(v) => told.push(v)} />
    </>,
  );
  fireEvent.click(screen.getByRole('checkbox', { name: 'h as a part' }));
  fireEvent.change(screen.getByRole('slider', { name: 'k' }), { target: { value: '1.5' } });
  expect(told).toEqual([true, 1.5]);
});

test('Enter ends a line of text, and goes on to who listens to keys', () => {
  const told: string[] = [];
  render(
    <TextField
      aria-label="Go to"
      isWrong
      onEnter={() => told.push('entered')}
      onKeyDown={({ key }) => told.push(key)}
    />,
  );
  const field = screen.getByRole('textbox', { name: 'Go to' });
  fireEvent.keyDown(field, { key: 'a' });
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(told).toEqual(['a', 'entered', 'Enter']);
  expect(field.getAttribute('aria-invalid')).toBe('true');
});

test.each([
  ['', 2],
  ['1\n2\n3', 3],
  ['\n'.repeat(30), 10],
])('an area grows with %j to %d rows', (value, rows) => {
  render(<TextArea aria-label="Note" least={2} most={10} value={value} onChange={() => undefined} />);
  expect(screen.getByRole('textbox')).toHaveProperty('rows', rows);
});

test('a button sends no form, and a dialog is closed by Esc or beside it, not by what is in it', () => {
  // the browser of the tests opens no dialogs
  const open = jest.fn();
  Object.assign(HTMLDialogElement.prototype, { showModal: open, close: () => undefined });
  const onClose = jest.fn();
  render(
    <Dialog title="Keys" onClose={onClose}>
      <Button>Stay</Button>
    </Dialog>,
  );
  expect(open).toHaveBeenCalledTimes(1);
  const button = screen.getByText('Stay');
  expect(button.getAttribute('type')).toBe('button');
  fireEvent.click(button);
  expect(onClose).not.toHaveBeenCalled();
  const dialog = button.closest('dialog');
  if (dialog === null) throw new Error('no dialog');
  // the page decides whether it closes
  expect(fireEvent(dialog, new Event('cancel', { cancelable: true }))).toBe(false);
  fireEvent.click(dialog);
  expect(onClose).toHaveBeenCalledTimes(2);
});
