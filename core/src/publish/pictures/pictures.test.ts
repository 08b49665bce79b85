import { openStudy } from '../../document/open-study.ts';
import type { Study } from '../../study/runs/study.ts';
import { colourOf, outlineOf } from './markers.ts';
import { pictureSvg, type PictureRequest } from './picture-svg.ts';
import { plotSvg } from './plot-svg.ts';
import { linearScale, logarithmicScale } from './ticks.ts';

function study(): Study {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Reservoir',
    problem: { title: 'Reservoir', text: "w' = -w\nw(0) = 1\n0 <= t <= 2\nw(t) = exp(-t)" },
    methods: [
      { title: 'Euler <1> & "2"', text: 'y[n+1] = y + h*f(t, y)' },
      { title: 'Heun', text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)' },
    ],
    ladder: { counts: [4, 8, 16, 32] },
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

const REQUEST: PictureRequest = {
  picture: 'order',
  size: 'slide',
  ink: 'colour',
  method: 0,
  wish: { steps: 8 },
};

test.each([
  [
    [0, 6],
    [0, 1, 2, 3, 4, 5, 6],
  ],
  [
    [0.13, 0.87],
    [0, 0.2, 0.4, 0.6, 0.8, 1],
  ],
  [
    [-3e6, 1e6],
    [-3e6, -2e6, -1e6, 0, 1e6],
  ],
  [
    [5, 5],
    [2, 3, 4, 5, 6, 7, 8],
  ],
])('a linear scale about %j is numbered at %j', (values, numbered) => {
  expect(linearScale(values).numbered).toEqual(numbered);
});

test('a logarithmic scale is numbered at decades, and within few of them at 2 and 5', () => {
  expect(logarithmicScale([1e-8, 1e-2]).numbered).toEqual([1e-8, 1e-7, 1e-6, 1e-5, 1e-4, 1e-3, 1e-2]);
  expect(logarithmicScale([0.11, 0.9]).numbered).toEqual([0.2, 0.5]);
  expect(logarithmicScale([1e-30, 1]).numbered.length).toBeLessThan(10);
  // whatever the values, there is an axis
  for (const values of [[], [0], [NaN, -1], [3]])
    expect(logarithmicScale(values).low).toBeLessThan(logarithmicScale(values).high);
});

test('points stand where their numbers are', () => {
  const svg = plotSvg(
    {
      title: 'Probe',
      x: { label: 'x', scale: 'logarithmic' },
      y: { label: 'y', scale: 'linear' },
      series: [
        {
          label: 'a',
          points: [
            { x: 0.1, y: 0 },
            { x: 1, y: 1 },
            { x: 10, y: 2 },
            { x: -1, y: 1 },
          ],
          mark: null,
          line: 'full',
        },
      ],
    },
    'slide',
    'colour',
  );
  const path = /<path d="(M[^"]+)" fill="none" stroke="#1B2733" stroke-width="2.8"/.exec(svg)![1]!;
  const [first, middle, last] = [...path.matchAll(/[ML]([\d.]+) ([\d.]+)/g)].map(([, x, y]) => [
    Number(x),
    Number(y),
  ]);
  expect(middle![0]).toBeCloseTo((first![0]! + last![0]!) / 2, 1);
  expect(middle![1]).toBeCloseTo((first![1]! + last![1]!) / 2, 1);
  expect(first![1]).toBeGreaterThan(last![1]!);
  // a value without a place on the axis is left out
  expect(path.match(/[ML]/g)).toHaveLength(3);
});

test('black and white has no colour, and tells methods apart by their markers', () => {
  const colour = pictureSvg('Reservoir', study(), REQUEST);
  const black = pictureSvg('Reservoir', study(), { ...REQUEST, ink: 'black' });
  expect(colour).toContain(colourOf(0));
  for (const mark of [0, 1, 2, 3, 4, 5]) expect(black).not.toContain(colourOf(mark));
  const outlines = new Set(Array.from({ length: 6 }, (_, mark) => outlineOf(mark, 0, 0, 10)));
  expect(outlines.size).toBe(6);
});

test('a slide is 16 to 9, a column 85 millimetres wide', () => {
  expect(pictureSvg('Reservoir', study(), REQUEST)).toMatch(/width="1280" height="720"/);
  expect(pictureSvg('Reservoir', study(), { ...REQUEST, size: 'column' })).toMatch(
    /width="85mm" height="[\d.]+mm" viewBox="0 0 850 /,
  );
});

test.each(['order', 'cost', 'solution', 'error'] as const)(
  'the picture of %s is well formed, whatever titles hold',
  (picture) => {
    const svg = pictureSvg('<script>x</script> & "y"', study(), { ...REQUEST, picture });
    expect(svg).not.toContain('<script>');
    expect(svg.replace(/<[a-z][^<>]*>|<\/[a-z]+>/g, '')).not.toMatch(/[<>]/);
    const open = [...svg.matchAll(/<([a-z]+)(?:\s[^<>]*[^/])?>/g)].map(([, name]) => name).sort();
    const closed = [...svg.matchAll(/<\/([a-z]+)>/g)].map(([, name]) => name).sort();
    expect(open).toEqual(closed);
  },
);

test('the errors of a picture are those of the study', () => {
  const svg = pictureSvg('Reservoir', study(), REQUEST);
  // two methods with four rungs each, in the picture and once in the legend
  expect(svg.match(new RegExp(`fill="${colourOf(0)}"`, 'g'))).toHaveLength(5);
  expect(svg).toContain('Heun: order 2.0');
});
