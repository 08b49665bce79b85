import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStudy } from '../document/open-study.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { layGrid } from '../run/grid.ts';
import type { Study } from '../study/runs/study.ts';
import { formulasTex } from './formulas-tex.ts';

function study(text: string, methods: readonly string[]): Study {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Gondola',
    problem: { title: 'Gondola', text },
    methods: methods.map((title) => ({ title, text: findInLibrary(title)!.text })),
    ladder: { counts: [4] },
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

const DECAY = study("y' = -k*y\nk = 0.5\ny(0) = 8\n0 <= t <= 4\ny(t) = 8*exp(-k*t)", ['Euler', 'RK4']);
const SWAY = study(
  "x'' = -w^2*x\nw = 1.5\nx(0) = 1\nx'(0) = 0\n0 <= t <= 2\nconserved E = x'^2/2 + w^2*x^2/2",
  ['Velocity Verlet', 'Adams-Bashforth 2', 'Implicit midpoint'],
);
const GRID = layGrid(0, 4, { steps: 4 });

test('the problem, its methods and what is known of it stand in the document', () => {
  const tex = formulasTex('A & B', DECAY, null, false);
  expect(tex).toContain('\\section*{A \\& B}');
  expect(tex).toContain("y' &= -k y");
  expect(tex).toContain('\\textbf{RK4}');
  expect(tex).toContain('\\frac{h}{6}');
  expect(tex).toContain('exact solution');
  expect(tex).not.toContain('as a first-order system');
  const part = formulasTex('A', SWAY, null, true);
  expect(part).toContain('as a first-order system');
  expect(part).toContain('conserved quantity');
  expect(part).not.toContain('\\documentclass');
});

test('a step is worked out with its numbers', () => {
  const tex = formulasTex('Decay', DECAY, { method: 0, grid: GRID, n: 1 }, true);
  // Euler with h = 1: 4 - 0.5*4 = 2
  expect(tex).toMatch(/y_\{2\} &= y \+ h f\(t, y\).*&= 2 /s);
  const both = formulasTex('Sway', SWAY, { method: 2, grid: layGrid(0, 2, { steps: 4 }), n: 0 }, true);
  expect(both.match(/\\begin\{align\*\}/g)).toHaveLength(2);
  const first = formulasTex('Sway', SWAY, { method: 1, grid: layGrid(0, 2, { steps: 4 }), n: 0 }, true);
  expect(first).toContain('taken by the starting method');
});

test('a step that there is not, and a method that there is not, are refused', () => {
  expect(() => formulasTex('D', DECAY, { method: 0, grid: GRID, n: 4 }, true)).toThrow('no step from 4 to 5');
  expect(() => formulasTex('D', DECAY, { method: 7, grid: GRID, n: 0 }, true)).toThrow('no method 7');
});

test('pdflatex sets the documents as they stand', () => {
  const folder = mkdtempSync(join(tmpdir(), 'schritt-formulas-'));
  try {
    const grid = layGrid(0, 2, { steps: 4 });
    const documents = [
      formulasTex('A & B <b> 50 % $x$ \\input{/etc/passwd}', DECAY, { method: 1, grid: GRID, n: 2 }, false),
      ...[0, 1, 2].map((method) => formulasTex('Sway', SWAY, { method, grid, n: 1 }, false)),
    ];
    documents.forEach((text, i) => {
      writeFileSync(join(folder, `d${i}.tex`), text);
      const log = execFileSync(
        'pdflatex',
        ['-interaction=nonstopmode', '-halt-on-error', '-no-shell-escape', `d${i}.tex`],
        { cwd: folder, encoding: 'utf8' },
      );
      expect(log).toContain('Output written on');
    });
  } finally {
    rmSync(folder, { recursive: true });
  }
}, 60_000);
