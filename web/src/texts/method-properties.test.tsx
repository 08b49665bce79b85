/** @jest-environment jsdom */
import { inspectMethod } from '@schritt/core/inspect';
import { parseMethod } from '@schritt/core/notation';
import { render, screen } from '@testing-library/react';
import { methodFacts } from '../worker/method-facts.ts';
import { MethodProperties } from './method-properties.tsx';
import { OrderProof } from './order-proof.tsx';

function inspection(text: string): ReturnType<typeof inspectMethod> {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return inspectMethod(reading.value);
}

const MIDPOINT = 'solve k1 = f(t + h/2, y + h/2*k1)\ny[n+1] = y + h*k1';
const DIGITS =
  'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h, y - h*k1 + 2*h*k2)\ny[n+1] = y + h*(0.1667*k1 + 0.6667*k2 + 0.1667*k3)';

test('properties are listed with their names, and none that is not known', () => {
  render(<MethodProperties inspection={inspection(MIDPOINT)} cost={1} />);
  const valueOf = (label: string): string | null | undefined =>
    screen.getByText(label).closest('tr')?.querySelector('.ant-descriptions-item-content')?.textContent;
  expect(valueOf('Symplectic')).toBe('yes');
  expect(valueOf('Stage order')).toBe('1');
  expect(valueOf('SSP coefficient')).toBe('2.00');
  expect(screen.queryByText('Order with any matrix for the Jacobian')).toBeNull();
});

test('the order within the digits comes with the order of the text taken exactly, and the defect', () => {
  render(<OrderProof inspection={inspection(DIGITS)} />);
  expect(screen.getByText('Order 3').parentElement?.textContent).toMatch(
    /^Order 3 within the 4 digits of its coefficients, proved from the text/,
  );
  // the weights sum to 1.0001
  expect(screen.getByText(/^Taken exactly/).textContent).toBe(
    'Taken exactly, it is not consistent: a condition is off by 1.0×10⁻⁴.',
  );
});

test('a list tells family, order, stages, type and stability of each text', () => {
  expect(
    methodFacts([
      MIDPOINT,
      DIGITS,
      'start with Heun\ny[n+1] = y + h/2*(3*f[n] - f[n-1])',
      'y[n+1] = y + h*f(t, y)/(1 - h*f_y(t, y))',
      'v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]',
      'y[n+1] = ',
    ]),
  ).toEqual([
    { family: 'Runge-Kutta', order: 2, stages: 1, isImplicit: true, stability: 'A' },
    { family: 'Runge-Kutta', order: 3, stages: 3, isImplicit: false, stability: '' },
    { family: 'Multistep', order: 2, stages: 2, isImplicit: false, stability: '' },
    { family: 'Rosenbrock', order: 1, stages: 1, isImplicit: true, stability: 'L' },
    { family: "x'' = a", order: 1, stages: 1, isImplicit: false, stability: '' },
    null,
  ]);
});
