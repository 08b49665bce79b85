/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import { Button, theme } from 'antd';
import { type ReactNode, Suspense } from 'react';
import { DARK } from '@schritt/plot/palette';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { designed } from './designed.tsx';
import { PaletteContext } from './use-palette.ts';

function Part({ name }: { readonly name: string }): ReactNode {
  const { token } = theme.useToken();
  return <Button style={{ color: token.colorText }}>{name}</Button>;
}

function show(load: () => Promise<typeof Part>): (name: string) => void {
  const Designed = designed(load);
  const page = (name: string): ReactNode => (
    <PaletteContext value={DARK}>
      <p>numbers</p>
      <ErrorBoundary what="The panel">
        <Suspense fallback={<p>place</p>}>
          <Designed name={name} />
        </Suspense>
      </ErrorBoundary>
    </PaletteContext>
  );
  const { rerender } = render(page('Export'));
  return (name) => rerender(page(name));
}

test('a part comes to its place with its properties, in the look of the palette around it', async () => {
  const change = show(() => Promise.resolve(Part));
  expect(screen.getByText('numbers')).toBeTruthy();
  expect(screen.getByText('place')).toBeTruthy();
  const button = await screen.findByRole('button', { name: 'Export' });
  expect(screen.queryByText('place')).toBeNull();
  const probe = document.createElement('p');
  probe.style.color = DARK.ink;
  expect(button.style.color).toBe(probe.style.color);
  change('Save');
  expect(screen.getByRole('button', { name: 'Save' })).toBe(button);
});

test('a part that cannot be fetched says so in its place, and what surrounds it stays', async () => {
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  show(() => Promise.reject(new TypeError('Failed to fetch dynamically imported module')));
  expect((await screen.findByRole('alert')).textContent).toContain(
    'The panel cannot be shown: it could not be fetched from the server; reload the page.',
  );
  expect(screen.getByText('numbers')).toBeTruthy();
  quiet.mockRestore();
});
