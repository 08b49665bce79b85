import type { Finding } from './facts.ts';
import { splitFindings } from './main-findings.ts';

function finding(kind: 'rounding only' | 'damped' | 'predicted' | 'leading sign', sentence: string): Finding {
  const of = { rungs: [], method: 0, sentence } as const;
  switch (kind) {
    case 'rounding only':
      return { ...of, kind, tone: 'plain', figures: {} };
    case 'damped':
      return { ...of, kind, tone: 'trouble', figures: { sizes: [1], times: 1, steps: 2 } };
    case 'predicted':
      return { ...of, kind, tone: 'good', figures: { h: 1, off: 0, order: 1, constant: 1 } };
    case 'leading sign':
      return { ...of, kind, tone: 'plain', figures: { axis: { independent: 't', start: 0, end: 8 }, t: 1 } };
  }
}

test('two lines at most: the verdict, then what is wrong, then the predicted term; in the order of the rules', () => {
  const all = [
    finding('damped', 'a'),
    finding('predicted', 'b'),
    finding('leading sign', 'c'),
    finding('damped', 'd'),
    finding('rounding only', 'e'),
  ];
  const { main, details } = splitFindings(all);
  expect(main.map(({ sentence }) => sentence)).toEqual(['a', 'e']);
  expect(details.map(({ sentence }) => sentence)).toEqual(['b', 'c', 'd']);
});

test('what only explains is a detail even where there is room', () => {
  const { main, details } = splitFindings([finding('predicted', 'b'), finding('leading sign', 'c')]);
  expect([main.length, details.length]).toEqual([1, 1]);
});

test('of the study the first two are in sight, and what is wrong before the rest', () => {
  const of = (kind: 'predicted' | 'damped' | 'leading sign', text: string): Finding => ({
    ...finding(kind, text),
    method: null,
  });
  const { main, details } = splitFindings([of('leading sign', 'a'), of('predicted', 'b'), of('damped', 'c')]);
  expect(main.map(({ sentence }) => sentence)).toEqual(['a', 'c']);
  expect(details.map(({ sentence }) => sentence)).toEqual(['b']);
});
