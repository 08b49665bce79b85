import { openStudy, exportStudy } from '@schritt/core/document';
import { type ExportSettings, FIRST, isOfMethod, isOfStep, EXPORT_KINDS } from './export-settings.ts';
import { exportRequestOf } from './export-request.ts';

const DOCUMENT = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -k*sqrt(level)\nk = 0.35\nlevel(0) = 4\n0 <= t <= 8" },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
  ladder: { counts: [4, 8] },
} as const;

const RUN = { method: 0, h: 2, n: 1 };

test('everything that can be chosen beside the tables of the study can be made as it is chosen at first', () => {
  const opened = openStudy(DOCUMENT);
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  for (const { value: what } of EXPORT_KINDS) {
    const request = exportRequestOf('Sluice', { ...FIRST, what }, RUN);
    if (request === null) {
      expect(['rungs', 'cost', 'comparison']).toContain(what);
      continue;
    }
    const made = exportStudy(DOCUMENT, opened.study, request, (tex) => tex);
    const kinds = { sheet: 'workbook', plot: 'plot', handout: 'page', questions: 'page', rows: 'text' };
    expect(made.kind).toBe(Object.entries(kinds).find(([of]) => of === what)?.[1] ?? 'text');
  }
});

test('a handout asks for what is chosen', () => {
  const choice: ExportSettings = {
    ...FIRST,
    what: 'handout',
    handout: {
      ...FIRST.handout,
      coefficients: true,
      variants: 'k in 1..3',
      sheets: 3,
      seed: 9,
      solved: true,
    },
  };
  expect(exportRequestOf('Sluice', choice, RUN)).toMatchObject({
    what: 'handout',
    as: 'html',
    solved: true,
    request: {
      of: { kind: 'rows', method: 0, gridRequest: { h: 2 } },
      blanks: 'rows after 2; coefficients',
      choices: 'k in 1..3',
      sheets: 3,
      seed: 9,
    },
  });
});

test('a method and a step size are asked for where they matter', () => {
  const of = (part: Partial<ExportSettings>): readonly [boolean, boolean] => [
    isOfMethod({ ...FIRST, ...part }),
    isOfStep({ ...FIRST, ...part }),
  ];
  expect(of({ what: 'rungs' })).toEqual([false, false]);
  expect(of({ what: 'sheet' })).toEqual([true, false]);
  expect(of({ what: 'plot', plot: 'order' })).toEqual([false, false]);
  expect(of({ what: 'plot', plot: 'error' })).toEqual([false, true]);
  expect(of({ what: 'plot', plot: 'solution' })).toEqual([true, true]);
  expect(of({ what: 'handout', handout: { ...FIRST.handout, of: 'rungs' } })).toEqual([false, false]);
});
