/** @jest-environment jsdom */
import { openStudy, type StudyDocument } from '@schritt/core/document';
import { errorChoice, layLadder, runStudy } from '@schritt/core/study';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { memo, type ReactNode } from 'react';
import { createStudyState, type StudyState, StudyStateContext, useStudyState } from '../state/study-state.ts';
import type { KeyedResult } from '@schritt/plot';
import { FIRST_VIEW } from '../state/view.ts';
import { type WorkingStudy, workOn } from '../state/working-study.ts';
import { ComparisonPart } from '../sentences/comparison-part.tsx';
import { FindingsList } from '../sentences/findings-list.tsx';
import { StepRuler } from '../ruler/step-ruler.tsx';
import { stepsTyped } from '../step/step-head.tsx';
import { lineTex, stepTex } from '../step/worked-part.tsx';
import type { RowsWindow, SideRows } from '../worker/messages.ts';
import { RungTable } from './rung-table.tsx';
import { FullNumberText } from './full-number.tsx';
import { useFullNumber } from './use-full-number.ts';
import { columnIn, FormatContext, formatted, USUAL_FORMAT } from './number-format.tsx';
import { ColumnNumber } from '../math/number-column.tsx';
import { gridPointAt } from './rows-asked.ts';
import { copiedTable } from '../frame/copied-table.ts';
import { rowErrors } from './row-error.ts';
import { sideCells, stepsCells } from './rows-text.ts';
import { SideTable } from './side-table.tsx';
import { stepCells, StepsTable, USUAL_COLUMNS } from './steps-table.tsx';

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
  readonly studyState: StudyState;
  readonly edits: { about: string; made: WorkingStudy }[];
  readonly calls: Record<'choose' | 'steps' | 'window' | 'point' | 'view', jest.Mock>;
}

function stage(more: Partial<StudyState> = {}): Stage {
  const opened = openStudy(DOCUMENT);
  if (!opened.ok) throw new Error('a text of the test');
  const { problem } = opened.study;
  const study = workOn(DOCUMENT);
  const keys = study.methods.map(({ key }) => key);
  const value: KeyedResult = { result: runStudy(opened.study), keys };
  const computed = {
    part: null,
    why: null,
    elsewhere: null,
    cancel: () => undefined,
    continueInBackground: null,
  };
  const rungs = layLadder(DOCUMENT.ladder, 0, 0.8, 'fit');
  const edits: { about: string; made: WorkingStudy }[] = [];
  const calls = { view: jest.fn(), choose: jest.fn(), steps: jest.fn(), window: jest.fn(), point: jest.fn() };
  const [, second] = rungs;
  const grid = second?.ok === true ? second.grid : null;
  const studyState: StudyState = {
    shape: { size: problem.size, hasFamily: false, hasInvariants: false },
    study,
    edit: (about, make) => edits.push({ about, made: make(study) }),
    good: {
      problem: { now: { ok: true, value: problem }, good: { text: '', value: problem } },
      methods: [],
      document: DOCUMENT,
      keys,
      texts: [],
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
      choose: calls.choose,
      chooseRow: calls.choose,
      chooseSteps: calls.steps,
      addAsRung: null,
    },
    methods: {
      placeOf: (key) => keys.indexOf(key),
      titleOf: (key) => study.methods.find((m) => m.key === key)?.title ?? '',
      change: (key, about, make) => {
        const methods = study.methods.map((m) => (m.key === key ? make(m) : m));
        edits.push({ about, made: { ...study, methods } });
      },
      moveWindow: calls.window,
    },
    results: { ...computed, value },
    curves: { ...computed, value: null },
    view: FIRST_VIEW,
    setView: calls.view,
    played: null,
    setPlayed: () => undefined,
    component: { wanted: 0, choose: () => undefined },
    marked: null,
    setMarked: () => undefined,
    pointed: null,
    setPointed: calls.point,
    hidden: new Set(),
    toggle: () => undefined,
    table: { columns: ['error'], digits: 10 },
    setTable: () => undefined,
    proved: new Map(),
    limits: new Map(),
    parameters: {},
    setParameters: () => undefined,
    ...more,
  };
  return { studyState, edits, calls };
}

function show(studyState: StudyState, children: ReactNode): void {
  const store = createStudyState(studyState);
  store.setState(studyState);
  render(<StudyStateContext value={store}>{children}</StudyStateContext>);
}

function cellsOf(row: HTMLElement): readonly string[] {
  return within(row)
    .getAllByRole('cell')
    .map((cell) => cell.textContent.trim());
}

const ERRORS = ['error', 'ratio', 'order'] as const;
const VALUE = { place: 0, name: 'm', digits: 10 };

describe('the table of rungs', () => {
  function table(more: Partial<StudyState> = {}): Stage {
    const made = stage(more);
    show(
      made.studyState,
      <RungTable
        value={VALUE}
        keyed={made.studyState.results.value!}
        columns={ERRORS}
        asParts={false}
        onClick={() => undefined}
      />,
    );
    return made;
  }

  test('has a row a rung, with what was taken where h does not divide', () => {
    const { studyState } = table();
    const [, , first, chosen] = screen.getAllByRole('row');
    expect(within(first!).getByRole('rowheader').textContent).toBe('0.266667 ≈');
    expect(within(first!).getByRole('rowheader').title).toContain('h = 0.3 does not divide the interval');
    expect(chosen!.getAttribute('aria-selected')).toBe('true');
    const own = studyState.results.value!.result.methods[0]!.rungs[1]!;
    expect(cellsOf(chosen!)).toContain(own.order!.toFixed(2));
    expect(chosen!.querySelector('td.first .power-number')?.getAttribute('title')).toBe(String(own.error));
  });

  test('a click chooses a rung; striking one out and moving a window do not', () => {
    const { calls, edits, studyState } = table();
    fireEvent.click(screen.getAllByRole('row')[4]!);
    expect(calls.choose).toHaveBeenCalledWith(2);
    fireEvent.click(screen.getByRole('button', { name: 'Exclude Euler at h = 0.05' }));
    expect(edits[0]?.made.methods[0]?.struck).toEqual([2]);
    fireEvent.click(screen.getByRole('button', { name: 'Include Heun at h = 0.1' }));
    expect(edits[1]?.made.methods[1]?.struck).toEqual([]);
    fireEvent.click(screen.getByRole('button', { name: 'Set the fit range of Heun to h = 0.025' }));
    expect(calls.window).toHaveBeenCalledWith(studyState.study.methods[1]!.key, 3);
    expect(calls.choose).toHaveBeenCalledTimes(1);
  });

  test('a rung is removed, with strikes of others moved along', () => {
    const { edits } = table();
    fireEvent.click(screen.getByRole('button', { name: 'Remove h = 0.266667' }));
    expect(edits[0]?.made.ladder).toEqual({ sizes: [0.1, 0.05, 0.025] });
    expect(edits[0]?.made.methods[1]?.struck).toEqual([0]);
  });

  test('what a finding speaks of is marked in the column of its method alone', () => {
    const { studyState } = stage();
    const key = studyState.study.methods[0]!.key;
    table({ study: studyState.study, pointed: { key: 'no such', rows: [0] } });
    expect(document.querySelectorAll('td.pointed')).toHaveLength(0);
    document.body.innerHTML = '';
    const made = stage();
    const own = { ...made.studyState, pointed: { key: made.studyState.results.value!.keys[0]!, rows: [2] } };
    show(
      own,
      <RungTable
        value={VALUE}
        keyed={own.results.value!}
        columns={ERRORS}
        asParts={false}
        onClick={() => undefined}
      />,
    );
    expect(document.querySelectorAll('td.pointed')).toHaveLength(3);
    expect(key).not.toBe('');
  });

  test('values at the end are shown to the digits that are asked for', () => {
    const { studyState } = stage();
    const keyed = studyState.results.value!;
    const own = keyed.result.methods[0]!.rungs.map(({ values }) => values[0]!);
    for (const [digits, text] of [
      [4, (value: number) => String(Number(value.toPrecision(4)))],
      [null, String],
    ] as const) {
      document.body.innerHTML = '';
      show(
        studyState,
        <RungTable
          value={{ ...VALUE, digits }}
          keyed={keyed}
          columns={['value']}
          asParts={false}
          onClick={() => undefined}
        />,
      );
      expect(screen.getAllByRole('columnheader').map((header) => header.textContent)).toContain('m[N]');
      const rows = screen.getAllByRole('row').slice(2);
      expect(rows.slice(0, 4).map((row) => cellsOf(row)[1])).toEqual(own.map(text));
    }
  });

  test('costs and values without an exact solution are other columns of the same rungs', () => {
    const { studyState } = stage();
    const columns = ['evaluations', 'per step'] as const;
    show(
      studyState,
      <RungTable
        value={VALUE}
        keyed={studyState.results.value!}
        columns={columns}
        asParts
        onClick={() => undefined}
      />,
    );
    expect(screen.getAllByRole('rowheader').map((header) => header.textContent)).toEqual([
      '0.266667 ≈',
      '0.8/8',
      '0.8/16',
      '0.8/32',
    ]);
    expect(cellsOf(screen.getAllByRole('row')[3]!).slice(1, 2)).toEqual(['8']);
    expect(screen.getAllByRole('columnheader', { name: 'evaluations' })).toHaveLength(2);
  });
});

const WINDOW: RowsWindow = {
  components: ['m'],
  slopes: ['f'],
  stages: ['k1'],
  conserved: [],
  truths: ['exact'],
  rows: [
    {
      ...{ n: 40, t: 0.25, values: [4 / 3], slopes: [-1e-9], stages: [[1.5]], conserved: [], exact: [1.25] },
      digits: null,
    },
    {
      ...{ n: 41, t: 0.5, values: [2], slopes: [4], stages: null, conserved: [], exact: [2] },
      digits: null,
    },
  ],
  localErrors: [],
  steps: 100,
  stopped: 'step 42, k1: 1 is divided by 0',
};

describe('the table of steps', () => {
  test('names the independent variable as the problem does, with the slope at every row', () => {
    const onMark = jest.fn();
    render(
      <StepsTable
        window={WINDOW}
        errors={rowErrors('absolute')}
        columns={USUAL_COLUMNS}
        independent="x"
        onMark={onMark}
        onClick={() => undefined}
      />,
    );
    const headers = screen.getAllByRole('columnheader').map((header) => header.textContent);
    expect(headers).toEqual(['n', 'x', 'm', 'f', 'k1', 'error m']);
    const [, first, second] = screen.getAllByRole('row');
    expect(cellsOf(first!).slice(0, 4)).toEqual(['0.25', '1.3333333', '−1.0000000×10−9', '1.5']);
    expect(cellsOf(second!)[3]).toBe('');
    fireEvent.mouseEnter(second!);
    expect(onMark).toHaveBeenCalledWith(0.5);
    expect(screen.getByText('Stopped in step 42, k1: 1 is divided by 0.')).toBeTruthy();
  });
});

const SIDE: SideRows = {
  components: ['m'],
  truths: ['exact'],
  stages: [[], []],
  rows: [
    {
      ...{ n: 0, t: 0, exact: [1], values: [[1], [1]], stages: [[], []], conserved: [null, null] },
      digits: [null, null],
    },
    {
      ...{ n: 4, t: 0.25, exact: [1.25], values: [[1.5], []], stages: [[], []], conserved: [null, null] },
      digits: [null, null],
    },
  ],
  steps: 8,
  stopped: [null, 'step 2, k1: 1 is divided by 0'],
};

describe('errors of rows', () => {
  test.each([
    ['absolute', 'error', 0.75],
    ['relative', 'relative error', 0.25],
    ['digits', 'digits', -Math.log10(0.25)],
    // 0.75 is more than half a unit of the first place
    ['places', 'places', 0],
  ] as const)('%s: %s', (scale, heading, error) => {
    const errors = rowErrors(scale);
    expect(errors.heading).toBe(heading);
    // a value below the exact one has an error without sign, too
    expect(errors.of(2.25, 3)).toBeCloseTo(error, 12);
    expect(errors.of(3.75, 3)).toBeCloseTo(error, 12);
    expect(errors.of(null, 3)).toBeNull();
    expect(errors.of(3, null)).toBeNull();
  });

  test('of an exact zero there is no relative one, and places end where doubles do', () => {
    expect(rowErrors('relative').of(1, 0)).toBeNull();
    expect(rowErrors('digits').of(1, 0)).toBeNull();
    expect(rowErrors('places').of(1.0004, 1)).toBe(3);
    expect(rowErrors('places').of(1, 1)).toBe(15);
  });

  test('have as many digits as were chosen', () => {
    render(
      <FormatContext value={{ kind: 'digits', count: 6 }}>
        <StepsTable
          window={{ ...WINDOW, truths: ['reference'] }}
          errors={rowErrors('relative')}
          columns={['exact', 'error']}
          independent="x"
          onMark={() => undefined}
          onClick={() => undefined}
        />
      </FormatContext>,
    );
    const headers = screen.getAllByRole('columnheader').map((header) => header.textContent);
    expect(headers).toEqual(['n', 'x', 'reference m', 'relative error m']);
    expect(cellsOf(screen.getAllByRole('row')[1]!)).toEqual(['0.25', '1.25', '0.0666667']);
  });
});

describe('rows side by side', () => {
  const methods = [
    { key: 'a', title: 'Euler', place: 0 },
    { key: 'b', title: '=Heun', place: 1 },
  ];

  test('have the exact value, and value and error of every method; a click goes to the step', () => {
    const onStep = jest.fn();
    render(
      <SideTable
        side={SIDE}
        errors={rowErrors('absolute')}
        independent="x"
        methods={methods}
        chosen={4}
        onStep={onStep}
        onMark={() => undefined}
        onClick={() => undefined}
      />,
    );
    const row = screen.getByRole('row', { selected: true });
    expect(cellsOf(row)).toEqual(['0.25', '1.25', '1.5', '0.250', '', '']);
    fireEvent.click(within(row).getAllByRole('cell')[2]!);
    expect(onStep).toHaveBeenCalledWith(4, 0);
  });

  test('are copied in full, and no title becomes a formula of a spreadsheet', () => {
    expect(
      copiedTable(
        sideCells(SIDE, 'x', { titles: ['Euler', '=Heun'], errors: rowErrors('absolute') }, { kind: 'full' }),
      ).text,
    ).toBe(
      [
        "n\tx\texact m\tEuler: m\tEuler: error\t'=Heun: m\t'=Heun: error",
        '0\t0\t1\t1\t0\t1\t0',
        '4\t0.25\t1.25\t1.5\t0.25\t\t',
      ].join('\n'),
    );
  });

  test('have several components, and the stages of every method, each under its heading', () => {
    const side: SideRows = {
      ...SIDE,
      components: ['m', 'l'],
      truths: ['exact', null],
      stages: [['k1[m]', 'k1[l]'], ['k2[m]']],
      rows: [
        {
          n: 0,
          t: 0,
          exact: [1, null],
          values: [
            [2, 3],
            [4, 5],
          ],
          stages: [[6, 7], [8]],
          conserved: [null, null],
          digits: [null, null],
        },
      ],
    };
    const cells = sideCells(
      side,
      'x',
      { titles: ['A', 'B'], errors: rowErrors('absolute') },
      { kind: 'full' },
    );
    expect(cells).toEqual([
      'n x exact_m A:_m A:_error_m A:_l A:_k1[m] A:_k1[l] B:_m B:_error_m B:_l B:_k2[m]'
        .split(' ')
        .map((heading) => heading.replaceAll('_', ' ')),
      ['0', '0', '1', '2', '1', '3', '6', '7', '4', '3', '5', '8'],
    ]);
  });

  test('are copied to the places that were chosen, with the columns that are shown', () => {
    const cells = stepCells(WINDOW, ['values', 'exact'], rowErrors('absolute'));
    expect(copiedTable(stepsCells(WINDOW, cells, 'x', { kind: 'places', count: 3 })).text).toBe(
      ['n\tx\tm\texact m', '40\t0.250\t1.333\t1.250', '41\t0.500\t2.000\t2.000'].join('\n'),
    );
  });

  test.each([
    [1 / 3, { kind: 'digits', count: 4 }, '0.3333'],
    [1 / 3, { kind: 'places', count: 2 }, '0.33'],
    [-4e-7, { kind: 'places', count: 2 }, '0.00'],
    [4e-7 / 3, { kind: 'digits', count: 4 }, '1.333e-7'],
    [0.0012, { kind: 'digits', count: 4 }, '0.0012'],
    [1e6, { kind: 'digits', count: 4 }, '1.000e+6'],
    [1 / 3, { kind: 'full' }, '0.3333333333333333'],
    [NaN, { kind: 'places', count: 2 }, 'NaN'],
  ] as const)('%d as %j is %s', (value, format, text) => {
    expect(formatted(value, format)).toBe(text);
  });

  test('a click on a number tells the whole double', () => {
    function Probe(): ReactNode {
      const { full, onClick } = useFullNumber();
      return (
        <>
          <FullNumberText full={full} />
          <table onClick={onClick}>
            <tbody>
              <tr>
                <td>
                  <ColumnNumber value={2 / 3} column={columnIn(USUAL_FORMAT, [2 / 3])} />
                </td>
                <td>no number</td>
              </tr>
            </tbody>
          </table>
        </>
      );
    }
    const { container } = render(<Probe />);
    fireEvent.click(container.querySelector('[data-full]')!);
    expect(screen.getByRole('status').textContent).toBe('0.6666666666666666');
    fireEvent.click(screen.getByText('no number'));
    expect(screen.queryByRole('status')).toBeNull();
  });

  test.each([
    ['12', 12],
    ['n = 3', 3],
    ['t = 0.5', 5],
    ['0.4', 0],
    ['t = 9', null],
    ['x = 1', null],
    ['soon', null],
    ['', null],
  ])('to go to "%s" is grid point %s', (text, expected) => {
    expect(gridPointAt(text, 't', { start: 0, h: 0.1, steps: 40 })).toBe(expected);
  });
});

describe('a step size that is typed', () => {
  test.each([
    ['0.5', 16],
    ['h = 0.3', 27],
    ['N = 40', 40],
    ['pi/4', 10],
    ['20', 1],
  ])('%s on an interval of 8 is %s steps', (text, steps) => {
    expect(stepsTyped(text, 8)).toEqual({ ok: true, steps });
  });

  test.each([
    ['N = 2.5', 'N must be a positive integer, not 2.5'],
    ['-1', 'h must be a positive number, not -1'],
    ['0', 'h must be a positive number, not 0'],
    ['soon', 'a step size may contain only numbers, pi and e'],
    ['1e-12', 'a run has at most 100,000,000 steps'],
    ['', 'enter h = 0.1 or N = 40'],
  ])('%s is none: %s', (text, why) => {
    expect(stepsTyped(text, 8)).toEqual({ ok: false, why });
  });
});

test('a worked line is one equation, a step an aligned block', () => {
  const line = { gives: 'k1', tex: ['k_{1}', 'f(t, y)', '-2'], value: -2, solved: false, residual: 0 };
  expect(lineTex(line)).toBe('k_{1} = f(t, y) = -2');
  expect(stepTex([line, line])).toBe(
    '\\begin{aligned}\nk_{1} &= f(t, y) = -2 \\\\\nk_{1} &= f(t, y) = -2\n\\end{aligned}',
  );
});

describe('findings', () => {
  test('stand under their method, point at their rungs, and those of the study behind them', () => {
    const { studyState, calls } = stage();
    show(studyState, <FindingsList />);
    const own = screen.getByRole('region', { name: 'Findings on Heun' });
    const whole = screen.getByRole('region', { name: 'Findings on the study' });
    // two lines are in sight; the rest is behind Details
    expect(whole.textContent).not.toContain('h = 0.3 does not divide the interval');
    fireEvent.click(within(whole).getByRole('button', { name: 'Details (1)' }));
    expect(whole.textContent).toContain('h = 0.3 does not divide the interval');
    const excluded = within(whole).getByText(/Excluded manually: Heun at h = 0.1\./);
    fireEvent.mouseEnter(excluded);
    expect(calls.point).toHaveBeenLastCalledWith({ key: null, rows: [1] });
    fireEvent.mouseLeave(excluded);
    expect(calls.point).toHaveBeenLastCalledWith(null);
    const lines = within(own).getAllByRole('listitem');
    expect(lines.length).toBeLessThanOrEqual(3);
    fireEvent.mouseEnter(lines[0]!);
    expect(calls.point.mock.lastCall?.[0]).toMatchObject({ key: studyState.study.methods[1]!.key });
  });

  test('a target error is set when valid, and cleared when empty', () => {
    const { studyState, edits } = stage();
    show(studyState, <ComparisonPart />);
    const field = screen.getByRole('textbox');
    fireEvent.change(field, { target: { value: '0.02' } });
    fireEvent.blur(field);
    expect(edits.at(-1)?.made.wished).toBe(0.02);
    fireEvent.change(field, { target: { value: '' } });
    fireEvent.blur(field);
    expect(edits.at(-1)?.made.wished).toBeUndefined();
  });

  test('before there are results nothing is reported', () => {
    const { studyState } = stage();
    show({ ...studyState, results: { ...studyState.results, value: null } }, <FindingsList />);
    expect(screen.queryByRole('region')).toBeNull();
  });
});

describe('the step ruler', () => {
  test('is moved from one step size to the next, to the ends, and by one step', () => {
    const { studyState, calls } = stage();
    show(studyState, <StepRuler />);
    const ruler = screen.getByRole('slider', { name: 'Step size' });
    expect(ruler.getAttribute('aria-valuetext')).toBe('h = 0.1, 8 steps');
    const press = (key: string, shiftKey = false): void => {
      fireEvent.keyDown(ruler, { key, shiftKey });
    };
    press('ArrowRight');
    press('ArrowLeft');
    press('Home');
    press('End');
    // h grows to the right: the coarser rung, the finer one, the finest, the coarsest
    expect(calls.choose.mock.calls.flat()).toEqual([0, 2, 3, 0]);
    press('ArrowRight', true);
    press('ArrowLeft', true);
    expect(calls.steps.mock.calls.flat()).toEqual([7, 9]);
    press('x');
    expect(calls.choose).toHaveBeenCalledTimes(4);
  });

  test('without rungs it says so', () => {
    const { studyState } = stage();
    show(
      { ...studyState, chosen: { ...studyState.chosen, rungs: [], rows: [], grid: null, now: null } },
      <StepRuler />,
    );
    expect(screen.getByText('No step sizes yet. Add one on the left.')).toBeTruthy();
  });
});

test('a part of the page without a study state is a fault', () => {
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  expect(() => render(<FindingsList />)).toThrow('this part of the page has no study state');
  quiet.mockRestore();
});

test('what is pointed at renders the parts again that show it, and no others', () => {
  const store = createStudyState(stage().studyState);
  const renders = { pointing: 0, results: 0 };
  const Pointing = memo(() => {
    renders.pointing += 1;
    return useStudyState('pointed').pointed?.rows.join() ?? 'none';
  });
  const Results = memo(() => {
    renders.results += 1;
    return useStudyState('results', 'view').view.depth;
  });
  render(
    <StudyStateContext value={store}>
      <Pointing />
      <Results />
    </StudyStateContext>,
  );
  act(() => store.getState().setPointed({ key: null, rows: [2, 3] }));
  expect(screen.getByText(/2,3/)).toBeTruthy();
  expect(renders).toEqual({ pointing: 2, results: 1 });
});
