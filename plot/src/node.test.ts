import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  openStudy,
  type PlotData,
  type PlotInk,
  type PlotName,
  exportStudy,
  type Exported,
} from '@schritt/core/document';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { paletteOf, plotOf } from './data-plot.ts';
import { drawnFile, plotPng, plotSvg } from './node.ts';
import { BLACK, DARK, LIGHT, methodMark, PRINT } from './palette.ts';
import type { Plot } from './plot.ts';
import { SHEETS } from './static-plot.ts';

const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)';
const DOCUMENT = {
  schritt: 1,
  kind: 'study',
  title: '<script>Reservoir</script> & "1"',
  problem: { title: 'Reservoir', text: "w' = -w\nw(0) = 1\n0 <= t <= 2\nw(t) = exp(-t)" },
  methods: [
    { title: 'Euler <1> & "2"', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'Heun', text: HEUN },
  ],
  ladder: { counts: [4, 8, 16, 32] },
} as const;

function taken(plot: PlotName, ink: PlotInk = 'colour'): Exported & { readonly kind: 'plot' } {
  const opened = openStudy(DOCUMENT);
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  const wanted = {
    what: 'plot',
    plot,
    size: 'slide',
    ink,
    method: null,
    gridRequests: [{ steps: 8 }],
    component: null,
    drawn: null,
  } as const;
  const made = exportStudy(DOCUMENT, opened.study, wanted, String);
  if (made.kind !== 'plot') throw new Error(made.kind);
  return made;
}

function plotFor(plot: PlotName): Plot {
  const data: PlotData = taken(plot).plot;
  return plotOf(data, PRINT);
}

/** Width and height of a PNG (ISO 15948, IHDR). */
function sizeOf(png: Uint8Array): readonly number[] {
  const bytes = Buffer.from(png);
  expect(bytes.subarray(1, 4).toString()).toBe('PNG');
  return [bytes.readUInt32BE(16), bytes.readUInt32BE(20)];
}

test('a slide is 16 to 9, a column 85 millimetres wide, and a PNG as large as it is asked for', () => {
  const plot = plotFor('order');
  expect(plotSvg(plot, PRINT, SHEETS.slide)).toMatch(
    /^<svg .*width="1280" height="720" viewBox="0 0 512 288"/,
  );
  expect(plotSvg(plot, PRINT, SHEETS.column)).toMatch(/^<svg .*width="85mm" height="63.8mm"/);
  expect(sizeOf(plotPng(plot, PRINT, SHEETS.slide, 1))).toEqual([1280, 720]);
  expect(sizeOf(plotPng(plot, PRINT, SHEETS.column, 3))).toEqual([963, 723]);
});

test.each(['order', 'work', 'solution', 'error'] as const)(
  'the plot of %s is well formed, whatever titles hold, and has no letters but outlines',
  (plot) => {
    const svg = String(drawnFile(taken(plot), 'svg'));
    expect(svg).not.toContain('<script>');
    expect(svg.replace(/<[a-z][^<>]*>|<\/[a-zA-Z]+>/g, '')).not.toMatch(/[<>]/);
    expect(svg).not.toContain('<text');
    const open = [...svg.matchAll(/<([a-zA-Z]+)(?:\s(?:[^<>]*[^/<>])?)?>/g)].map(([, name]) => name).sort();
    const closed = [...svg.matchAll(/<\/([a-zA-Z]+)>/g)].map(([, name]) => name).sort();
    expect(open).toEqual(closed);
  },
);

/** Pixels that have a colour, as places. */
async function placesOf(png: Uint8Array, color: string): Promise<readonly (readonly [number, number])[]> {
  const image = await loadImage(Buffer.from(png));
  const canvas = createCanvas(image.width, image.height);
  const context = canvas.getContext('2d');
  context.drawImage(image, 0, 0);
  const { data, width } = context.getImageData(0, 0, image.width, image.height);
  const [r, g, b] = [1, 3, 5].map((i) => Number.parseInt(color.slice(i, i + 2), 16));
  const found: [number, number][] = [];
  for (let i = 0; i < data.length; i += 4)
    if (data[i] === r && data[i + 1] === g && data[i + 2] === b)
      found.push([(i / 4) % width, Math.floor(i / 4 / width)]);
  return found;
}

test('points are where their numbers are, on a logarithmic and on a linear axis', async () => {
  const at = [
    { x: 0.1, y: 0 },
    { x: 1, y: 1 },
    { x: 10, y: 2 },
  ];
  const colors = ['#b5490f', '#1f6fb2', '#0f7561'];
  const plot: Plot = {
    title: 'Probe',
    x: { scale: 'logarithmic', range: [0.1, 10] },
    y: { scale: 'linear', range: [0, 2] },
    series: at.map((point, i) => ({
      kind: 'dots',
      id: String(i),
      label: '',
      points: [point],
      mark: { color: colors[i] ?? '', shape: 'circle', filled: true },
      radius: 4,
      joined: 0,
      pale: [],
      ground: '#ffffff',
    })),
    overlays: [],
    tip: null,
    legend: [],
  };
  const png = plotPng(plot, PRINT, SHEETS.slide, 1);
  const centres = await Promise.all(
    colors.map(async (color) => {
      const places = await placesOf(png, color);
      expect(places.length).toBeGreaterThan(100);
      return [0, 1].map((j) => places.reduce((sum, place) => sum + (place[j] ?? NaN), 0) / places.length);
    }),
  );
  const [first, middle, last] = centres;
  for (const j of [0, 1]) expect(middle?.[j]).toBeCloseTo(((first?.[j] ?? NaN) + (last?.[j] ?? NaN)) / 2, 0);
  expect((last?.[0] ?? NaN) - (first?.[0] ?? NaN)).toBeGreaterThan(1000);
  expect((first?.[1] ?? NaN) - (last?.[1] ?? NaN)).toBeGreaterThan(500);
});

test('black and white has no colour; markers and greys tell twelve methods apart', () => {
  const colour = String(drawnFile(taken('order'), 'svg'));
  const black = String(drawnFile(taken('order', 'black'), 'svg'));
  const greys = (svg: string): readonly string[] =>
    [...svg.matchAll(/(?:fill|stroke)="#([0-9A-F]{6})"/gi)].flatMap(([, hex = '']) =>
      hex.slice(0, 2) === hex.slice(2, 4) && hex.slice(2, 4) === hex.slice(4) ? [] : [hex],
    );
  expect(greys(black)).toEqual([]);
  expect(new Set(greys(colour))).toContain('B5490F');
  for (const palette of [BLACK, LIGHT, DARK]) {
    const marks = Array.from({ length: 12 }, (_, i) => methodMark(palette, i));
    expect(new Set(marks.map(({ color, shape }) => `${color} ${shape}`)).size).toBe(12);
  }
  expect(paletteOf('black')).toBe(BLACK);
});

test('a unit is as long across as up where both axes are alike', async () => {
  const corners = [
    { x: 0, y: 0 },
    { x: 1, y: 1 },
  ];
  const plot: Plot = {
    title: 'Plane',
    x: { scale: 'linear' },
    y: { scale: 'linear' },
    // the second line keeps the first one off the edges, which would cut its ends
    series: [
      { kind: 'line', id: 'a', label: '', points: corners, color: '#b5490f', width: 2 },
      {
        kind: 'line',
        id: 'b',
        label: '',
        points: corners.map(({ x, y }) => ({ x: 2 * x - 0.5, y: 0.5 - 2 * y + 1 })),
        color: '#1f6fb2',
        width: 2,
      },
    ],
    overlays: [],
    tip: null,
    legend: [],
    equal: true,
  };
  const places = await placesOf(plotPng(plot, PRINT, SHEETS.slide, 1), '#b5490f');
  const [xs, ys] = [0, 1].map((j) => places.map((place) => place[j] ?? NaN));
  const spread = (values: readonly number[] = []): number => Math.max(...values) - Math.min(...values);
  expect(spread(xs)).toBeGreaterThan(200);
  expect(Math.abs(spread(xs) - spread(ys))).toBeLessThan(4);
});

test('letters that are not in one face come from the next: no box stands for a superscript or an umlaut', () => {
  const plot: Plot = { ...plotFor('order'), series: [], overlays: [] };
  const svg = (lower: string): string =>
    plotSvg(
      { ...plot, overlays: [{ kind: 'caption', upper: '', lower, falls: false }] },
      PRINT,
      SHEETS.slide,
    );
  // a letter that no face has is drawn as the box of the first one
  const box = svg('\u{10FFFD}')
    .split('\n')
    .filter((line) => line.includes('<path'))
    .at(-1);
  for (const letter of ['⁻', '⁴', 'λ', 'ö', 'ř', '≤'])
    expect(
      svg(letter)
        .split('\n')
        .filter((line) => line.includes('<path'))
        .at(-1),
    ).not.toBe(box);
});

test('a PDF is as wide as its sheet, and PGFPlots gets every point, fit and title', () => {
  const pdf = Buffer.from(drawnFile(taken('order'), 'pdf')).toString('latin1');
  expect(pdf.slice(0, 5)).toBe('%PDF-');
  expect(/\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf)?.slice(1).map(Number)).toEqual([960, 540]);
  const tikz = String(drawnFile(taken('order'), 'tikz', { scale: 1, part: true }));
  expect(tikz).toContain('xmode=log');
  expect(tikz).toContain(
    '\\addlegendentry{Euler \\textless{}1\\textgreater{} \\& \\textquotedbl{}2\\textquotedbl{}}',
  );
  const data = taken('order').plot;
  if (!('result' in data)) throw new Error(data.kind);
  for (const { rungs, fit } of data.result.methods) {
    for (const { h, error } of rungs) expect(tikz).toContain(`(${h}, ${error ?? NaN})`);
    expect(fit).not.toBeNull();
  }
  expect(tikz.split('\\begin{axis}')).toHaveLength(2);
});

test('pdflatex sets the plots with their data', () => {
  const folder = mkdtempSync(join(tmpdir(), 'schritt-tikz-'));
  try {
    const bodies = (['order', 'solution', 'error'] as const).map((plot) =>
      String(drawnFile(taken(plot), 'tikz', { scale: 1, part: true })),
    );
    const whole = String(drawnFile(taken('work'), 'tikz'));
    const end = '\\end{document}';
    writeFileSync(
      join(folder, 'plots.tex'),
      whole.replace(end, () => `${bodies.join('\n\n')}${end}`),
    );
    const log = execFileSync(
      'pdflatex',
      ['-interaction=nonstopmode', '-halt-on-error', '-no-shell-escape', 'plots.tex'],
      { cwd: folder, encoding: 'utf8' },
    );
    expect(log).toContain('Output written on');
  } finally {
    rmSync(folder, { recursive: true });
  }
}, 60_000);
