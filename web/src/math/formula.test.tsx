/** @jest-environment jsdom */
import { act, render } from '@testing-library/react';
import { fitting } from './fit-lines.ts';
import { Formula } from './formula.tsx';
import { texHtml } from './tex-html.ts';
import { Tex } from './tex.tsx';

/** A page that is laid out at once, and whose fonts come when they are said to. */
const page = {
  fonts: {
    status: 'loaded',
    addEventListener: (_: string, come: () => void): void => {
      page.come = come;
    },
  },
  come: (): void => undefined,
};

beforeAll(() => {
  Object.defineProperty(document, 'fonts', { configurable: true, value: page.fonts });
  Object.assign(globalThis, {
    ResizeObserver: class {
      constructor(readonly changed: (entries: readonly { readonly target: Element }[]) => void) {}
      observe(target: Element): void {
        this.changed([{ target }]);
      }
      unobserve(): void {}
    },
  });
});

test.each([
  [100, 200, 1],
  [200, 200, 1],
  [250, 200, 0.8],
  // no smaller than can be read; the rest is scrolled
  [1000, 200, 0.6],
  // not laid out yet
  [300, 0, 1],
])('a formula of width %d in %d is set at %d', (width, room, scale) => {
  expect(fitting(width, room)).toBe(scale);
});

test('brackets that grow keep a line together, small ones do not', () => {
  const tex = 'a \\left(b + \\left|\\frac{c}{d}\\right|\\right) \\leftarrow';
  const small = texHtml(tex, 'small') ?? '';
  expect(small).toBe(
    texHtml('a \\bigl(b + \\bigl|\\frac{c}{d}\\bigr|\\bigr) \\leftarrow')?.replace(
      /(<annotation[^>]*>)[^<]*/,
      `$1${tex}`,
    ),
  );
  expect(small).not.toBe(texHtml(tex));
});

test('a long formula is broken inside of its brackets, and set smaller', async () => {
  const width = jest.spyOn(HTMLElement.prototype, 'scrollWidth', 'get').mockReturnValue(400);
  const room = jest.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(320);
  page.fonts.status = 'loaded';
  let container: HTMLElement | null = null;
  await act(async () => {
    ({ container } = render(<Formula tex="x \left(\frac{a}{b} + c\right)" />));
    await Promise.resolve();
  });
  // a pair of brackets that grows is one group, which cannot be broken
  expect(container!.querySelector('.minner')).toBeNull();
  expect(container!.querySelector('annotation')?.textContent).toBe('x \\left(\\frac{a}{b} + c\\right)');
  expect(container!.querySelector<HTMLElement>('.formula')?.style.fontSize).toBe(`${0.8 * 0.985 * 100}%`);
  width.mockRestore();
  room.mockRestore();
});

test('a formula is not broken by the width of a face that stands in for its own', async () => {
  const width = jest.spyOn(HTMLElement.prototype, 'scrollWidth', 'get').mockReturnValue(400);
  const room = jest.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(320);
  page.fonts.status = 'loading';
  const { container } = render(<Formula tex="y \left(\frac{a}{b} + c\right)" />);
  const isWhole = (): boolean => container.querySelector('.minner') !== null;
  await act(() => Promise.resolve());
  expect(isWhole()).toBe(true);
  await act(async () => {
    page.fonts.status = 'loaded';
    page.come();
    await Promise.resolve();
  });
  expect(isWhole()).toBe(false);
  width.mockRestore();
  room.mockRestore();
});

test('a formula too long to be typeset is shown by its beginning', () => {
  const { container } = render(<Tex tex={`${'x + '.repeat(1_000)}x`} />);
  expect(container.querySelector('.katex')).toBeNull();
  expect(container.textContent).toBe(`${'x + '.repeat(30)} …`);
});
