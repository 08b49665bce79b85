/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import { type TexFormula, type Typesetter, typesetterBy } from './typesetter.ts';
import { useTypeset } from './use-typeset.ts';

/** A page that was just opened, and what it asks of others. */
function opened(answer?: (formulas: readonly TexFormula[]) => Promise<readonly string[]>): {
  readonly page: Typesetter;
  readonly asked: (readonly TexFormula[])[];
  readonly loads: () => number;
} {
  const asked: (readonly TexFormula[])[] = [];
  let loads = 0;
  const page = typesetterBy(
    (formulas) => {
      asked.push(formulas);
      return answer?.(formulas) ?? Promise.resolve(formulas.map(({ tex }) => `server ${tex}`));
    },
    () => {
      loads += 1;
      return Promise.resolve(({ tex, block }) => `page ${tex}${block ? ' block' : ''}`);
    },
  );
  return { page, asked, loads: () => loads };
}

const of = (tex: string, block = false): TexFormula => ({ tex, block });

/** Lets what was asked for come. */
function settled(): Promise<void> {
  return new Promise((done) => setTimeout(done, 0));
}

test('a page that is looked at has its formulas set by the server, those together in one question, each once', async () => {
  const { page, asked, loads } = opened();
  const told = jest.fn();
  page.watch(told);
  for (const formula of [of('a'), of('b'), of('a'), of('a', true)]) page.wish(formula);
  expect(page.html(of('a'))).toBeNull();
  await settled();
  expect(asked).toEqual([[of('a'), of('b'), of('a', true)]]);
  expect([page.html(of('a')), page.html(of('b'))]).toEqual(['server a', 'server b']);
  expect([told.mock.calls.length, loads()]).toEqual([1, 0]);
});

test('who types has formulas set at once, and the server is asked no more', async () => {
  const { page, asked } = opened();
  await page.fetch();
  expect(page.html(of('k_1', true))).toBe('page k_1 block');
  page.wish(of('k_2'));
  await settled();
  expect(asked).toEqual([]);
});

test.each([
  ['does not answer', () => Promise.reject(new Error('no way'))],
  ['answers too little', () => Promise.resolve([])],
])('where the server %s the page sets its formulas by itself', async (_how, answer) => {
  const { page, asked } = opened(answer);
  page.wish(of('k_1'));
  await settled();
  expect([asked.length, page.html(of('k_1'))]).toEqual([1, 'page k_1']);
});

test.each([
  ['longer than the server takes', [of('x'.repeat(1001))]],
  ['more than it takes', Array.from({ length: 101 }, (_, i) => of(`x_${i}`))],
])('formulas %s are set by the page', async (_how, formulas) => {
  const { page, asked, loads } = opened();
  for (const formula of formulas) page.wish(formula);
  await settled();
  expect([asked, loads()]).toEqual([[], 1]);
  expect(page.html(of('y'))).toBe('page y');
});

test('a page that is worked with gets what sets its formulas', async () => {
  const { page, asked, loads } = opened();
  for (let i = 0; i < 6; i += 1) {
    page.wish(of(`x_${i}`));
    await settled();
  }
  expect([asked.length, loads(), page.html(of('x_5'))]).toEqual([4, 1, 'page x_5']);
});

test('where nothing can be fetched it is tried again with the next formula', async () => {
  let isThere = false;
  const page = typesetterBy(
    () => Promise.reject(new Error('gone')),
    () => (isThere ? Promise.resolve(({ tex }) => tex) : Promise.reject(new Error('gone'))),
  );
  page.wish(of('a'));
  await settled();
  expect(page.html(of('a'))).toBeNull();
  isThere = true;
  page.wish(of('b'));
  await settled();
  expect(page.html(of('a'))).toBe('a');
});

test('while another formula is being set, the one before stays in sight', async () => {
  const { page } = opened();
  const { result, rerender } = renderHook(({ tex }) => useTypeset(tex, false, page), {
    initialProps: { tex: 'a' },
  });
  expect(result.current).toBeNull();
  await act(settled);
  expect(result.current).toBe('server a');
  rerender({ tex: 'b' });
  expect(result.current).toBe('server a');
  await act(settled);
  expect(result.current).toBe('server b');
});
