/** @jest-environment jsdom */
import type { StudyDocument } from '@schritt/core/document';
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { FromText } from './from-text.tsx';

test('a study is made of a text that is a problem, and of no other', async () => {
  const made: StudyDocument[] = [];
  render(<FromText onStudy={(document) => made.push(document)} />);
  await userEvent.click(screen.getByRole('button', { name: 'New from text' }));
  const text = screen.getByRole('textbox', { name: 'Text of the problem' });
  const make = (): HTMLElement => screen.getByRole('button', { name: 'Create' });
  expect(make()).toHaveProperty('disabled', true);
  fireEvent.change(text, { target: { value: "y' = -y" } });
  expect(screen.getByRole('status').textContent).toMatch(/line \d+, column \d+: /);
  expect(make()).toHaveProperty('disabled', true);
  fireEvent.change(text, { target: { value: "# Ice\ny' = -y\ny(0) = 1\n0 <= t <= 1" } });
  expect(screen.getByRole('status').textContent).toBe('“Ice” with Euler, Heun, RK4');
  await userEvent.click(make());
  expect(made.map(({ title }) => title)).toEqual(['Ice']);
});
