/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { moveInRows } from './row-keys.ts';

function Row({ name, stop }: { readonly name: string; readonly stop: boolean }) {
  return (
    <tr onKeyDown={moveInRows} {...(stop ? { tabIndex: 0, 'aria-label': name } : {})}>
      <td>
        <a href="/x" tabIndex={stop ? -1 : 0}>
          link {name}
        </a>
        <button tabIndex={-1}>button {name}</button>
      </td>
    </tr>
  );
}

function table(stop: boolean): (...keys: readonly string[]) => string | null {
  render(
    <table>
      <tbody>
        {['a', 'b', 'c'].map((name) => (
          <Row key={name} name={name} stop={stop} />
        ))}
      </tbody>
    </table>,
  );
  return (...keys) => {
    for (const key of keys) fireEvent.keyDown(document.activeElement ?? document.body, { key });
    const { activeElement } = document;
    return activeElement?.getAttribute('aria-label') ?? activeElement?.textContent ?? null;
  };
}

test('arrows move within a row and to the same place of the next one; the ends are safe', () => {
  const press = table(true);
  screen.getByRole('row', { name: 'a' }).focus();
  expect(press('ArrowLeft')).toBe('a');
  expect(press('ArrowRight')).toBe('link a');
  expect(press('ArrowRight')).toBe('button a');
  expect(press('ArrowRight')).toBe('button a');
  expect(press('ArrowDown')).toBe('button b');
  expect(press('ArrowDown', 'ArrowDown', 'ArrowDown')).toBe('button c');
  expect(press('Escape')).toBe('c');
  expect(press('ArrowUp')).toBe('b');
});

test('a row that is no stop itself begins with its first control; keys with others pass on', () => {
  const press = table(false);
  screen.getByRole('link', { name: 'link b' }).focus();
  expect(press('ArrowRight', 'ArrowUp')).toBe('button a');
  expect(press('Escape')).toBe('link a');
  const passed = fireEvent.keyDown(document.activeElement!, { key: 'ArrowRight', ctrlKey: true });
  expect([passed, press('x')]).toEqual([true, 'link a']);
});
