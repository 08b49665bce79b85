import { openStudy } from '../document/open-study.ts';
import { Refusal } from '../text/refusal.ts';
import { type ExportQuery, exportRequest } from './export-query.ts';

const opened = openStudy({
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "y' = -y\ny(0) = 1\n0 <= t <= 1" },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'Own', text: 'y[n+1] = y + h*f(t, y)' },
  ],
  ladder: { counts: [4] },
});
if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
const { study } = opened;

test('what is not said is what most want', () => {
  expect(exportRequest('Sluice', study, { what: 'sheet' })).toEqual({
    what: 'sheet',
    as: 'xlsx',
    method: 0,
    gridRequest: null,
  });
  expect(exportRequest('Sluice', study, { what: 'plot' })).toMatchObject({
    plot: 'order',
    method: null,
    size: 'slide',
    ink: 'colour',
  });
  expect(exportRequest('Sluice', study, { what: 'handout' })).toMatchObject({
    as: 'html',
    paper: 'A4',
    solved: false,
    request: { of: { kind: 'rungs' }, title: 'Sluice', blanks: 'rows after 2', digits: 6, sheets: 1 },
  });
  expect(exportRequest('Sluice', study, { what: 'program', method: 'Own', h: 'pi/8' })).toEqual({
    what: 'program',
    as: 'py',
    method: 1,
    gridRequest: { h: Math.PI / 8 },
  });
});

test.each<[ExportQuery, string]>([
  [{ what: 'program', steps: '4' }, 'there is no method "" in this study; there are Euler, Own'],
  [{ what: 'rows', method: 'Own', h: '1', steps: '2' }, 'give either h'],
  [{ what: 'rows', method: 'Own', h: '1', as: 'svg' }, 'rows can be written as csv, md, tex, html, txt'],
  [{ what: 'handout', sheets: '501' }, 'sheets takes an integer from 1 to 500, not 501'],
  [{ what: 'handout', seed: '1.5' }, 'seed takes an integer'],
  [
    { what: 'program', method: 'Own', h: '1', digits: '3' },
    'digits does not apply to program, which takes method, h, steps',
  ],
  [{ what: 'rows', method: 'Own', h: '1', as: 'md', comma: true }, 'comma applies to csv only, not to md'],
  [{ what: 'plot', as: 'svg', part: true }, 'part applies to tex, html, tikz only, not to svg'],
])('what cannot be meant is refused in words: %j', (asked, words) => {
  let said: unknown = null;
  try {
    exportRequest('Sluice', study, asked);
  } catch (thrown) {
    said = thrown;
  }
  expect(said).toBeInstanceOf(Refusal);
  expect(String(said)).toContain(words);
});

test('a plot of runs takes several step sizes of one method, a component by name, and how it is drawn', () => {
  const query: ExportQuery = {
    what: 'plot',
    plot: 'solution',
    method: 'Own',
    sizes: '0.5, 1/4',
    component: 'y',
    draw: 'both',
  };
  expect(exportRequest('Sluice', study, query)).toMatchObject({
    gridRequests: [{ h: 0.5 }, { h: 0.25 }],
    component: 0,
    drawn: 'both',
  });
  expect(() => exportRequest('Sluice', study, { ...query, component: 'z' })).toThrow('there are y');
  expect(() => exportRequest('Sluice', study, { ...query, h: '1' })).toThrow('give either sizes');
});
