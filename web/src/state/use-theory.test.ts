/** @jest-environment jsdom */
import type { StudyDocument } from '@schritt/core/document';
import { act, renderHook } from '@testing-library/react';
import { useTheory } from './use-results.ts';

/** What the worker was asked, in order. */
const asked: string[] = [];

jest.mock('../worker/computer.ts', () => ({
  Superseded: class extends Error {},
  Computer: class {
    ask(kind: string, question: { texts?: readonly string[] }): Promise<unknown> {
      asked.push(`${kind} ${question.texts?.join(' ') ?? ''}`.trim());
      return Promise.resolve(
        kind === 'proved' ? question.texts?.map((text) => `order of ${text}`) : [0.5, null],
      );
    }
    close(): void {}
    cancel(): void {}
  },
}));

const DOCUMENT: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Probe',
  problem: { title: 'Probe', text: "y' = -y\ny(0) = 1\n0 <= t <= 1" },
  methods: [],
  ladder: { counts: [2] },
};
const KEYS = ['a', 'b'];
const TEXTS = ['euler', 'heun'];

beforeEach(() => {
  asked.length = 0;
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

async function later(milliseconds: number): Promise<void> {
  await act(() => jest.advanceTimersByTimeAsync(milliseconds));
}

test('orders are reported at once, limits after the numbers of the study', async () => {
  const { result } = renderHook(() => useTheory(DOCUMENT, KEYS, TEXTS));
  await later(1);
  expect(result.current.proved.get('heun')).toBe('order of heun');
  expect(result.current.limits.size).toBe(0);
  await later(300);
  expect([...result.current.limits]).toEqual([
    ['a', 0.5],
    ['b', null],
  ]);
  expect(asked).toEqual(['proved euler heun', 'limits']);
});

test('of texts that were changed meanwhile no limits are asked for, and those that stood there stay', async () => {
  const { result, rerender } = renderHook(({ texts }) => useTheory(DOCUMENT, KEYS, texts), {
    initialProps: { texts: TEXTS },
  });
  await later(300);
  rerender({ texts: ['heun', 'rk'] });
  await later(100);
  rerender({ texts: ['heun', 'rk4'] });
  await later(100);
  expect(result.current.proved.get('rk4')).toBe('order of rk4');
  expect(result.current.limits.get('a')).toBe(0.5);
  await later(300);
  expect(asked).toEqual(['proved euler heun', 'limits', 'proved heun rk', 'proved heun rk4', 'limits']);
});

test('where the problem alone changes, the orders are not asked for again', async () => {
  const { rerender } = renderHook(({ document }) => useTheory(document, KEYS, [...TEXTS]), {
    initialProps: { document: DOCUMENT },
  });
  await later(300);
  rerender({ document: { ...DOCUMENT, title: 'Other' } });
  await later(300);
  expect(asked).toEqual(['proved euler heun', 'limits', 'limits']);
});

test('while no problem can be read the orders of the methods are reported all the same', async () => {
  const { result } = renderHook(() => useTheory(null, KEYS, TEXTS));
  await later(300);
  expect(result.current.proved.get('euler')).toBe('order of euler');
  expect(asked).toEqual(['proved euler heun']);
});
