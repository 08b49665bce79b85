/** @jest-environment jsdom */
import { openStudy, type StudyDocument } from '@schritt/core/document';
import { errorChoice, layLadder, runStudy } from '@schritt/core/study';
import { fireEvent, render, screen, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { type Desk, DeskContext } from '../desk/desk.ts';
import type { KeyedResult } from '../desk/use-results.ts';
import { type WorkingStudy, workOn } from '../desk/working-study.ts';
import { ComparisonPart } from '../sentences/comparison-part.tsx';
import { FindingsList } from '../sentences/findings-list.tsx';
import { StepRuler } from '../ruler/step-ruler.tsx';
import type { RowsWindow } from '../worker/messages.ts';
import { RungTable } from './rung-table.tsx';
import { StepsTable } from './steps-table.tsx';

const DOCUMENT: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Probe',
  problem: { title: 'Probe', text: "m' = m^2\nm(0) = 1\n0 <= x <= 0.8\nm(x) = 1/(1 - x)" },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'Heun', text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)', struck: [1] },
  ],
  ladder: { sizes: [0.3, 0.1, 0.05, 0.025] },
};

class NoObserver {
  observe(): void {
    // nothing is laid out here
  }
  disconnect(): void {
    // nor taken away
  }
}

beforeAll(() => {
  Object.assign(globalThis, { ResizeObserver: NoObserver });
});

interface Stage {
  readonly desk: Desk;
  readonly edits: { about: string; made: WorkingStudy }[];
  readonly told: Record<'choose' | 'steps' | 'window' | 'point', jest.Mock>;
}

function stage(more: Partial<Desk> = {}): Stage {
  const opened = openStudy(DOCUMENT);
  if (!opened.ok) throw new Error('a text of the test');
  const { problem } = opened.study;
  const study = workOn(DOCUMENT);
  const keys = study.methods.map(({ key }) => key);
  const value: KeyedResult = { result: runStudy(opened.study), keys };
  const computed = { part: null, why: null, elsewhere: false, cancel: () => undefined, goOn: null };
  const rungs = layLadder(DOCUMENT.ladder, 0, 0.8, 'fit');
  const edits: { about: string; made: WorkingStudy }[] = [];
  const told = { choose: jest.fn(), steps: jest.fn(), window: jest.fn(), point: jest.fn() };
  const [, second] = rungs;
  const grid = second?.ok === true ? second.grid : null;
  const desk: Desk = {
    study,
    edit: (about, make) => edits.push({ about, made: make(study) }),
    good: {
      problem: { now: { ok: true, value: problem }, good: { text: '', value: problem } },
      methods: [],
      document: DOCUMENT,
      keys,
    },
    problem,
    independent: 'x',
    error: errorChoice(undefined),
    caption: '',
    chosen: {
      rungs,
      rows: [0, 1, 2, 3],
      rung: 1,
      grid,
      now: grid && { h: grid.h, steps: grid.steps, rung: 1 },
      choose: told.choose,
      chooseRow: told.choose,
      chooseSteps: told.steps,
      addAsRung: null,
    },
    methods: {
      placeOf: (key) => keys.indexOf(key),
      titleOf: (key) => study.methods.find((m) => m.key === key)?.title ?? '',
      change: (key, about, make) => {
        const methods = study.methods.map((m) => (m.key === key ? make(m) : m));
        edits.push({ about, made: { ...study, methods } });
      },
      moveWindow: told.window,
    },
    results: { ...computed, value },
    curves: { ...computed, value: null },
    component: { wanted: 0, choose: () => undefined },
    marked: null,
    setMarked: () => undefined,
    pointed: null,
    setPointed: told.point,
    over: 'h',
    setOver: () => undefined,
    ...more,
  };
  return { desk, edits, told };
}

function show(desk: Desk, children: ReactNode): void {
  render(<DeskContext value={desk}>{children}</DeskContext>);
}

function cellsOf(row: HTMLElement): readonly string[] {
  return within(row)
    .getAllByRole('cell')
    .map((cell) => cell.textContent.trim());
}

describe('the table of rungs', () => {
  function table(more: Partial<Desk> = {}): Stage {
    const made = stage(more);
    show(made.desk, <RungTable keyed={made.desk.results.value!} view="errors" />);
    return made;
  }

  test('has a row a rung, with what was taken where h does not divide', () => {
    const { desk } = table();
    const [, , first, chosen] = screen.getAllByRole('row');
    expect(within(first!).getByRole('rowheader').textContent).toBe('0.266667 ≈');
    expect(within(first!).getByRole('rowheader').title).toContain('h = 0.3 does not divide the interval');
    expect(chosen!.getAttribute('aria-selected')).toBe('true');
    const own = desk.results.value!.result.methods[0]!.rungs[1]!;
    expect(cellsOf(chosen!)).toContain(own.order!.toFixed(2));
    expect(chosen!.querySelector('.power-number')?.getAttribute('title')).toBe(String(own.error));
  });

  test('a click chooses a rung; striking one out and moving a window do not', () => {
    const { told, edits, desk } = table();
    fireEvent.click(screen.getAllByRole('row')[4]!);
    expect(told.choose).toHaveBeenCalledWith(2);
    fireEvent.click(screen.getByRole('button', { name: 'Strike out Euler at h = 0.05' }));
    expect(edits[0]?.made.methods[0]?.struck).toEqual([2]);
    fireEvent.click(screen.getByRole('button', { name: 'Count Heun at h = 0.1' }));
    expect(edits[1]?.made.methods[1]?.struck).toEqual([]);
    fireEvent.click(screen.getByRole('button', { name: 'Move the window of Heun to h = 0.025' }));
    expect(told.window).toHaveBeenCalledWith(desk.study.methods[1]!.key, 3);
    expect(told.choose).toHaveBeenCalledTimes(1);
  });

  test('a rung is removed, with strikes of others moved along', () => {
    const { edits } = table();
    fireEvent.click(screen.getByRole('button', { name: 'Remove the rung h = 0.266667' }));
    expect(edits[0]?.made.ladder).toEqual({ sizes: [0.1, 0.05, 0.025] });
    expect(edits[0]?.made.methods[1]?.struck).toEqual([0]);
  });

  test('what a finding speaks of is marked in the column of its method alone', () => {
    const { desk } = stage();
    const key = desk.study.methods[0]!.key;
    table({ study: desk.study, pointed: { key: 'no such', rows: [0] } });
    expect(document.querySelectorAll('td.pointed')).toHaveLength(0);
    document.body.innerHTML = '';
    const made = stage();
    const own = { ...made.desk, pointed: { key: made.desk.results.value!.keys[0]!, rows: [2] } };
    show(own, <RungTable keyed={own.results.value!} view="errors" />);
    expect(document.querySelectorAll('td.pointed')).toHaveLength(3);
    expect(key).not.toBe('');
  });

  test('costs and values without an exact solution are other columns of the same rungs', () => {
    const { desk } = stage();
    show(desk, <RungTable keyed={desk.results.value!} view="cost" />);
    expect(cellsOf(screen.getAllByRole('row')[3]!).slice(1, 2)).toEqual(['8']);
    expect(screen.getAllByRole('columnheader', { name: 'evaluations' })).toHaveLength(2);
  });
});

const WINDOW: RowsWindow = {
  components: ['m'],
  slopes: ['f'],
  stages: ['k1'],
  conserved: [],
  rows: [
    { n: 40, t: 0.25, values: [4 / 3], slopes: [-1e-9], stages: [[1.5]], conserved: [], exact: [1.25] },
    { n: 41, t: 0.5, values: [2], slopes: [4], stages: null, conserved: [], exact: [2] },
  ],
  steps: 100,
  stopped: 'step 42, k1: 1 is divided by 0',
};

describe('the table of steps', () => {
  test('names the independent variable as the problem does, with the slope at every row', () => {
    const onMark = jest.fn();
    render(<StepsTable window={WINDOW} independent="x" from={40} onFrom={() => undefined} onMark={onMark} />);
    const headers = screen.getAllByRole('columnheader').map((header) => header.textContent);
    expect(headers).toEqual(['n', 'x', 'm', 'f', 'k1', 'error m']);
    const [, first, second] = screen.getAllByRole('row');
    expect(cellsOf(first!).slice(0, 4)).toEqual(['0.25', '1.3333333', '−1.000000e−9', '1.5']);
    expect(cellsOf(second!)[3]).toBe('');
    fireEvent.mouseEnter(second!);
    expect(onMark).toHaveBeenCalledWith(0.5);
    expect(screen.getByText('Left the numbers in step 42, k1: 1 is divided by 0.')).toBeTruthy();
  });

  test('is leafed through, and says where it is', () => {
    const onFrom = jest.fn();
    render(<StepsTable window={WINDOW} independent="x" from={40} onFrom={onFrom} onMark={() => undefined} />);
    for (const name of ['first', 'before', 'next', 'last'])
      fireEvent.click(screen.getByRole('button', { name }));
    expect(onFrom.mock.calls.flat()).toEqual([0, 0, 61, 61]);
    expect(screen.getByText(/n = 40 to 79/)).toBeTruthy();
  });
});

describe('findings', () => {
  test('stand under their method, point at their rungs, and those of the study behind them', () => {
    const { desk, told } = stage();
    show(desk, <FindingsList />);
    const own = screen.getByRole('region', { name: 'Findings on Heun' });
    expect(own.textContent).toContain('struck out by hand: h = 0.1');
    const whole = screen.getByRole('region', { name: 'Findings on the study' });
    expect(whole.textContent).toContain('h = 0.3 does not divide the interval');
    fireEvent.mouseEnter(within(own).getByText(/struck out by hand/));
    expect(told.point).toHaveBeenLastCalledWith({ key: desk.study.methods[1]!.key, rows: [1] });
    fireEvent.mouseLeave(within(own).getByText(/struck out by hand/));
    expect(told.point).toHaveBeenLastCalledWith(null);
  });

  test('a wished error is taken when it is one, and taken back when it is nothing', () => {
    const { desk, edits } = stage();
    show(desk, <ComparisonPart />);
    const field = screen.getByRole('textbox');
    fireEvent.change(field, { target: { value: '0.02' } });
    fireEvent.blur(field);
    expect(edits.at(-1)?.made.wished).toBe(0.02);
    fireEvent.change(field, { target: { value: '' } });
    fireEvent.blur(field);
    expect(edits.at(-1)?.made.wished).toBeUndefined();
  });

  test('before there are results nothing is said', () => {
    const { desk } = stage();
    show({ ...desk, results: { ...desk.results, value: null } }, <FindingsList />);
    expect(screen.queryByRole('region')).toBeNull();
  });
});

describe('the step ruler', () => {
  test('is moved from rung to rung, to the ends, and by one step', () => {
    const { desk, told } = stage();
    show(desk, <StepRuler />);
    const ruler = screen.getByRole('slider', { name: 'Step size' });
    expect(ruler.getAttribute('aria-valuetext')).toBe('h = 0.1, 8 steps');
    const press = (key: string, shiftKey = false): void => {
      fireEvent.keyDown(ruler, { key, shiftKey });
    };
    press('ArrowRight');
    press('ArrowLeft');
    press('Home');
    press('End');
    expect(told.choose.mock.calls.flat()).toEqual([2, 0, 0, 3]);
    press('ArrowRight', true);
    press('ArrowLeft', true);
    expect(told.steps.mock.calls.flat()).toEqual([9, 7]);
    press('x');
    expect(told.choose).toHaveBeenCalledTimes(4);
  });

  test('without rungs it says so', () => {
    const { desk } = stage();
    show({ ...desk, chosen: { ...desk.chosen, rungs: [], rows: [], grid: null, now: null } }, <StepRuler />);
    expect(screen.getByText('No step sizes yet: add one at the left.')).toBeTruthy();
  });
});

test('a part of the page that stands on no desk is a fault', () => {
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  expect(() => render(<FindingsList />)).toThrow('this part of the page stands on no desk');
  quiet.mockRestore();
});
