import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { StudyDocument } from '../document/document.ts';
import { openStudy } from '../document/open-study.ts';
import { layGrid } from '../run/grid.ts';
import { notebookOf } from './notebook.ts';

interface Cell {
  readonly cell_type: string;
  readonly id: string;
  readonly source: readonly string[];
}

function notebook(
  text: string,
  method: string,
  precision: StudyDocument['precision'] = 'double',
): { readonly cells: readonly Cell[]; readonly nbformat: number } {
  const document = {
    schritt: 1,
    kind: 'study',
    title: 'Lake * 1',
    problem: { title: 'P', text },
    methods: [{ title: 'Own', text: method }],
    ladder: { counts: [4, 8] },
    precision,
  } as const;
  const opened = openStudy(document);
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  const { study } = opened;
  const grid = layGrid(study.problem.start, study.problem.end, { steps: 4 });
  return JSON.parse(notebookOf(document, study, { method: 0, grid }));
}

/** What the cells of code print, one after the other, with a matplotlib that only counts what it draws. */
function printed(cells: readonly Cell[]): readonly string[] {
  const folder = mkdtempSync(join(tmpdir(), 'schritt-notebook-'));
  try {
    mkdirSync(join(folder, 'matplotlib'));
    writeFileSync(join(folder, 'matplotlib/__init__.py'), '');
    const calls = ['plot', 'loglog', 'xlabel', 'ylabel', 'legend'].map(
      (name) => `def ${name}(*a, **k): pass`,
    );
    writeFileSync(join(folder, 'matplotlib/pyplot.py'), [...calls, 'def show(): print("shown")'].join('\n'));
    const code = cells.flatMap(({ cell_type, source }) => (cell_type === 'code' ? [source.join('')] : []));
    writeFileSync(join(folder, 'cells.py'), code.join('\n'));
    return execFileSync('python3', ['cells.py'], { cwd: folder, encoding: 'utf8' }).trim().split('\n');
  } finally {
    rmSync(folder, { recursive: true });
  }
}

test('a notebook states, tabulates and runs the method, and draws it', () => {
  const { cells, nbformat } = notebook(
    "y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)",
    'y[n+1] = y + h*f(t, y)',
  );
  expect(nbformat).toBe(4);
  expect(new Set(cells.map(({ id }) => id)).size).toBe(cells.length);
  expect(cells[0]?.source.join('')).toContain("y' &= -y");
  expect(cells[1]?.source.join('')).toContain('| 0.250000 | 4 | 0.051473 |');
  const lines = printed(cells);
  // (1 - 1/4)^n, in floating point exact
  expect(lines.slice(0, 5)).toEqual(
    [0, 1, 2, 3, 4].map(
      (n) =>
        `${n} ${n / 4 === 0 ? '0.0' : n / 4 === 1 ? '1.0' : n / 4} ${(3 / 4) ** n === 1 ? '1.0' : (3 / 4) ** n}`,
    ),
  );
  expect(lines[5]).toBe('shown');
  expect(Number(lines[6]?.split(' ')[1])).toBeCloseTo(Math.exp(-1) - (3 / 4) ** 4, 14);
  const errors = [6, 7].map((i) => Number(lines[i]?.split(' ')[1]));
  expect(Number(lines[7]?.split(' ')[2])).toBeCloseTo(Math.log2((errors[0] ?? 0) / (errors[1] ?? 1)), 5);
});

test('a notebook with decimal digits computes in the decimal module, its step sizes too', () => {
  const { cells } = notebook("y' = -y/3\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t/3)", 'y[n+1] = y + h*f(t, y)', {
    digits: 30,
  });
  const lines = printed(cells);
  // 1 - 0.25*0.333..., with 30 digits
  expect(lines[1]).toBe('1 0.25 0.916666666666666666666666666667');
  expect(Number(lines[7]?.split(' ')[2])).toBeCloseTo(1, 1);
});

test('systems and equations of second order are drawn by component; without an exact solution there is no order', () => {
  const pair = notebook("m' = -m + l\nl' = m - l\nm(0) = 1\nl(0) = 0\n0 <= t <= 1", 'y[n+1] = y + h*f(t, y)');
  expect(printed(pair.cells).filter((line) => line === 'shown')).toHaveLength(1);
  const sway = notebook(
    "x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1",
    'v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]',
  );
  expect(printed(sway.cells)[0]).toBe('0 0.0 1.0 0.0');
});
