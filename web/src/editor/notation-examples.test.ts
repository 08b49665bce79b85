import { parseMethod, parseProblem } from '@schritt/core/notation';
import { type Example, EXAMPLES } from './notation-examples.ts';
import { isFound } from './notation-panel.tsx';

const ALL = EXAMPLES.flatMap(({ of, examples }) =>
  examples.map((example) => [example.text, of, example] as const),
);

function tried({ text, within = '…' }: Example): string {
  return within.replace('…', () => text);
}

test.each(ALL)('%s can be written in a %s', (_, of, example) => {
  const reading = of === 'method' ? parseMethod(tried(example)) : parseProblem(tried(example));
  expect(reading.ok ? [] : reading.errors).toEqual([]);
});

test('every example is itself, and is found by words of what it shows or says', () => {
  expect(new Set(ALL.map(([text]) => text)).size).toBe(ALL.length);
  const found = (sought: string): readonly string[] =>
    ALL.filter(([, , example]) => isFound(example, sought)).map(([text]) => text);
  expect(found('newton solve')).toEqual(['solve y[n+1] = y + h*f(t + h, y[n+1])']);
  expect(found('conserved')).toHaveLength(1);
  expect(found('no such word')).toEqual([]);
});
