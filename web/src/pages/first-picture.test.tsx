import { openStudy, type StudyDocument } from '@schritt/core/document';
import { runStudy } from '@schritt/core/study';
import { DARK, LIGHT, methodMark } from '@schritt/plot/palette';
import { EITHER_GROUND } from '../theme/either-ground.ts';
import { firstPicture } from './first-picture.tsx';

const DECAY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Cooling <b>of</b> & at the "pass"',
  problem: { title: 'Cooling', text: "warmth' = -warmth\nwarmth(0) = 1\n0 <= t <= 1\nwarmth(t) = exp(-t)" },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: '<i>Heun</i>', text: 'k = f(t, y)\ny[n+1] = y + h/2*(k + f(t + h, y + h*k))' },
  ],
  ladder: { counts: [2, 4, 8] },
};

function pictureOf(document: StudyDocument): string {
  const opened = openStudy(document);
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return firstPicture(document, runStudy(opened.study), '/studies');
}

/** Texts of the cells of each row of the table, in order. */
function rowsOf(html: string): readonly (readonly string[])[] {
  const [, body = ''] = /<tbody>(.*)<\/tbody>/s.exec(html) ?? [];
  return body
    .split('</tr>')
    .slice(0, -1)
    .map((row) => row.split(/<\/t[dh]>/).map((cell) => cell.replace(/<[^>]*>/g, '').trim()));
}

test('the numbers are those of the study', () => {
  const rows = rowsOf(pictureOf(DECAY));
  const exact = Math.exp(-1);
  // one step multiplies by 1 - h, or by 1 - h + h^2/2
  const errorsOf = (factor: (h: number) => number): readonly number[] =>
    [2, 4, 8].map((steps) => Math.abs(factor(1 / steps) ** steps - exact));
  const euler = errorsOf((h) => 1 - h);
  const heun = errorsOf((h) => 1 - h + (h * h) / 2);
  expect(rows.map(([h, steps]) => [h, steps])).toEqual([
    ['0.5', '2'],
    ['0.25', '4'],
    ['0.125', '8'],
  ]);
  for (const [row, cells] of rows.entries()) {
    expect(Number(cells[2])).toBeCloseTo(euler[row]!, 3);
    expect(Number(cells[5])).toBeCloseTo(heun[row]!, 3);
  }
  expect(rows[1]?.[3]).toBe((euler[0]! / euler[1]!).toFixed(2));
  expect(rows[2]?.[7]).toBe(Math.log2(heun[1]! / heun[2]!).toFixed(2));
});

test('what a person has typed is text in it', () => {
  const html = pictureOf(DECAY);
  expect(html).toContain('Cooling &lt;b&gt;of&lt;/b&gt; &amp; at the &quot;pass&quot;');
  expect(html).toContain('&lt;i&gt;Heun&lt;/i&gt;');
  expect(html).not.toMatch(/<(b|i|script)>/);
});

test('it has the places of the parts that come later, and none of these', () => {
  const html = pictureOf(DECAY);
  for (const place of ['statement-column', 'plot-panel plot-panel-large', 'step-now', 'table-head'])
    expect(html).toContain(`<div class="${place}"></div>`);
  expect(html).not.toContain('ant-');
  expect(html).not.toContain('<canvas');
});

test('each of twelve methods has its colour of either ground', () => {
  for (let place = 0; place < 12; place += 1) {
    const { color } = methodMark(EITHER_GROUND, place);
    expect(color).toBe(`light-dark(${methodMark(LIGHT, place).color}, ${methodMark(DARK, place).color})`);
  }
  expect(pictureOf(DECAY)).toContain(`stroke="light-dark(${LIGHT.methods[1]}, ${DARK.methods[1]})"`);
});
