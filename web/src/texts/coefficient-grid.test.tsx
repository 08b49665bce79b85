/** @jest-environment jsdom */
import { amountText, findSlips, inspectMethod } from '@schritt/core/inspect';
import { parseMethod } from '@schritt/core/notation';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { remarksOf } from '../editor/use-inspection.ts';
import { provedText, provedTexts } from '../worker/proved.ts';
import { cellAmount, CoefficientGrid, tableauOfCells } from './coefficient-grid.tsx';
import { OrderProof } from './order-proof.tsx';

function method(text: string) {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return reading.value;
}

const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)\n';

test.each([
  ['1/3', '1/3'],
  [' -2 / 6 ', '-1/3'],
  ['0.25', '1/4'],
  ['.5', '1/2'],
  ['1/0', null],
  ['k1', null],
  ['', null],
  ['1e-2', '1/100'],
])('a cell with "%s" is %s', (text, amount) => {
  const found = cellAmount(text);
  expect(found && amountText(found)).toBe(amount);
});

test('cells are a tableau if each is a number', () => {
  const cells = [
    ['0', '0', '0'],
    ['1', '1', '0'],
    ['', '1/2', '1/2'],
  ];
  expect(tableauOfCells(cells)?.tableau.b.map(amountText)).toEqual(['1/2', '1/2']);
  expect(tableauOfCells([['0', '0', 'x'], ...cells.slice(1)])).toBeNull();
});

test('what is typed into the grid becomes the text on request, and is put back otherwise', async () => {
  const onText = jest.fn();
  render(<CoefficientGrid inspection={inspectMethod(method(HEUN))} startWith={null} onText={onText} />);
  const cell = screen.getByRole('textbox', { name: 'b 1' });
  await userEvent.clear(cell);
  await userEvent.type(cell, '1/4');
  await userEvent.click(screen.getByRole('button', { name: 'Reset' }));
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'b 1' }).value).toBe('1/2');
  await userEvent.clear(screen.getByRole('textbox', { name: 'b 2' }));
  await userEvent.type(screen.getByRole('textbox', { name: 'b 2' }), '3/4');
  await userEvent.click(screen.getByRole('button', { name: 'Write as text' }));
  expect(onText).toHaveBeenCalledWith(
    'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*(1/2*k1 + 3/4*k2)\n',
  );
});

test('the weights of an embedded formula are a second row, kept in the text and with a stage more', async () => {
  const onText = jest.fn();
  const pair = `${HEUN}\nyhat[n+1] = y + h*k1`;
  render(<CoefficientGrid inspection={inspectMethod(method(pair))} startWith={null} onText={onText} />);
  const cell = (name: string): HTMLInputElement => screen.getByRole('textbox', { name });
  expect([cell('b 1').value, cell('embedded b 1').value, cell('embedded b 2').value]).toEqual([
    '1/2',
    '1',
    '0',
  ]);
  await userEvent.click(screen.getByRole('button', { name: '+ stage' }));
  expect([cell('b 3').value, cell('embedded b 1').value, cell('embedded b 3').value]).toEqual([
    '0',
    '1',
    '0',
  ]);
  await userEvent.click(screen.getByRole('button', { name: '− stage' }));
  await userEvent.clear(cell('embedded b 1'));
  await userEvent.type(cell('embedded b 1'), '1/3');
  await userEvent.click(screen.getByRole('button', { name: 'Write as text' }));
  expect(onText).toHaveBeenCalledWith(
    'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*(1/2*k1 + 1/2*k2)\nyhat[n+1] = y + h*(1/3*k1)\n',
  );
});

test('a stage more is a row and a column of zeros', async () => {
  render(
    <CoefficientGrid inspection={inspectMethod(method(HEUN))} startWith={null} onText={() => undefined} />,
  );
  await userEvent.click(screen.getByRole('button', { name: '+ stage' }));
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'a 3 2' }).value).toBe('0');
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'b 2' }).value).toBe('1/2');
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'b 3' }).value).toBe('0');
});

test.each([
  [HEUN, 'order 2', 'Order 2, proved from the text: 5 conditions checked.'],
  ['y[n+1] = y + h/2*f(t, y)', 'order 0', 'Order 0, proved from the text: 2 conditions checked.'],
  [
    'start with RK4\ny[n+1] = -4*y + 5*y[n-1] + h*(4*f[n] + 2*f[n-1])',
    'not stable',
    'Does not converge. The formula has order 3, but it is not zero-stable: errors grow from step to step for every h.',
  ],
  ['k1 = f(t, y)\ny[n+1] = y + k1', null, 'No order can be proved: a term has the wrong power of h.'],
])('of\n%s\nis said: %s', (text, short, long) => {
  expect(provedText(method(text))).toBe(short);
  const { container } = render(<OrderProof inspection={inspectMethod(method(text))} />);
  expect(container.querySelector('p')?.textContent).toBe(long);
});

test('the orders of several texts are reported in their order; of one that cannot be read nothing is', () => {
  expect(provedTexts([HEUN, 'y[n+1] = ', 'y[n+1] = y + h*f(t, y)'])).toEqual(['order 2', null, 'order 1']);
});

test('remarks are slips and near misses, each with its repair', () => {
  const remarks = remarksOf(
    findSlips(method('k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/3*(k1 + k2)')),
  );
  expect(remarks[0]?.message).toContain('the weights of the slopes sum to 2/3');
  expect(remarks.find(({ repairs }) => repairs[0]?.text === '2')?.message).toBe(
    '2 instead of 3 in line 3 gives order 2',
  );
  expect(remarksOf(findSlips(method(HEUN)))).toEqual([]);
});
