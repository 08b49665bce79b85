/** @jest-environment jsdom */
import type { StudyDocument } from '@schritt/core/document';
import { act, renderHook } from '@testing-library/react';
import { useCallback, useState } from 'react';
import { useChosenStep } from './use-chosen-step.ts';
import { useGoodStudy } from './use-good-study.ts';
import { useHistory } from './use-history.ts';
import { FIRST_VIEW, type View } from './view.ts';
import { type WorkingStudy, workOn } from './working-study.ts';

const DECAY = "y' = -2*y\ny(0) = 1\n0 <= t <= 2";
const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Probe',
  problem: { title: 'Probe', text: DECAY },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'Twice', text: 'y[n+1] = y + 2*h*f(t, y)' },
  ],
  ladder: { first: 0.5, factor: 2, rungs: 4 },
};

function withText(study: WorkingStudy, text: string): WorkingStudy {
  return { ...study, problem: { ...study.problem, text } };
}

function withMethod(study: WorkingStudy, place: number, text: string): WorkingStudy {
  return { ...study, methods: study.methods.map((m, i) => (i === place ? { ...m, text } : m)) };
}

describe('the last good reading of every text', () => {
  const first = workOn(STUDY);
  const good = (study: WorkingStudy) =>
    renderHook(({ value }) => useGoodStudy(value), { initialProps: { value: study } });

  test('stands in while a text has errors, and the document holds good texts alone', () => {
    const hook = good(first);
    hook.rerender({ value: withText(first, "y' = ") });
    const { problem, document } = hook.result.current;
    expect(problem.now.ok).toBe(false);
    expect(problem.good?.text).toBe(DECAY);
    expect(document?.problem.text).toBe(DECAY);
    hook.rerender({ value: withText(first, DECAY.replace('2*y', '3*y')) });
    expect(hook.result.current.document?.problem.text).toContain('3*y');
  });

  test('a method that was never good is left out, and keys say which are there', () => {
    const hook = good(withMethod(first, 0, 'y = 1'));
    expect(hook.result.current.document?.methods.map(({ title }) => title)).toEqual(['Twice']);
    expect(hook.result.current.keys).toEqual([first.methods[1]?.key]);
    hook.rerender({ value: first });
    expect(hook.result.current.keys).toHaveLength(2);
  });

  test('a problem that was never good leaves nothing to compute', () => {
    expect(good(withText(first, '')).result.current.document).toBeNull();
  });

  test('the same texts give the same document, so that nothing is computed again', () => {
    const hook = good(first);
    const { document } = hook.result.current;
    hook.rerender({ value: first });
    expect(hook.result.current.document).toBe(document);
    hook.rerender({ value: { ...first, note: 'for Monday' } });
    expect(hook.result.current.document).toBe(document);
    hook.rerender({ value: { ...first, title: 'Another' } });
    expect(hook.result.current.document).toEqual({ ...document, title: 'Another' });
  });

  test('a text that changes leaves the readings of the others as they are', () => {
    const hook = good(first);
    const before = hook.result.current;
    hook.rerender({ value: withText(first, DECAY.replace('2*y', '3*y')) });
    expect(hook.result.current.problem).not.toBe(before.problem);
    for (const [i, method] of hook.result.current.methods.entries()) expect(method).toBe(before.methods[i]);
    hook.rerender({ value: withMethod(first, 0, 'y[n+1] = ') });
    const [euler, twice] = hook.result.current.methods;
    expect([euler?.now.ok, euler?.good?.text]).toEqual([false, STUDY.methods[0]?.text]);
    expect(twice).toBe(before.methods[1]);
  });
});

describe('the chosen step size', () => {
  const study = workOn(STUDY);
  const problem = { start: 0, end: 2 };
  const chosen = () => {
    const edits: ((now: WorkingStudy) => WorkingStudy)[] = [];
    const full = renderHook(() => useGoodStudy(study)).result.current.problem.good!.value;
    const hook = renderHook(
      ({ value }) => {
        const [view, setView] = useState(FIRST_VIEW);
        const change = useCallback((more: Partial<View>) => setView((now) => ({ ...now, ...more })), []);
        return useChosenStep(value, full, (_, make) => edits.push(make), [view, change]);
      },
      { initialProps: { value: study } },
    );
    return { hook, edits };
  };

  test('is a rung of the ladder, and stays on it', () => {
    const { hook } = chosen();
    expect(hook.result.current).toMatchObject({
      rung: 2,
      rows: [0, 1, 2, 3],
      now: { h: 0.125, steps: 16, rung: 2 },
    });
    act(() => hook.result.current.chooseRow(0));
    expect(hook.result.current.now).toEqual({ h: 0.5, steps: 4, rung: 0 });
    expect(hook.result.current.addAsRung).toBeNull();
  });

  test('may lie between the rungs, and become one', () => {
    const { hook, edits } = chosen();
    act(() => hook.result.current.chooseSteps(6));
    expect(hook.result.current).toMatchObject({ rung: -1, now: { steps: 6, rung: null } });
    expect(hook.result.current.grid?.h).toBe(problem.end / 6);
    act(() => hook.result.current.addAsRung?.());
    const made = edits[0]!(study);
    expect(made.ladder).toEqual({ sizes: [0.5, 2 / 6, 0.25, 0.125, 0.0625] });
    hook.rerender({ value: made });
    expect(hook.result.current).toMatchObject({ rung: 1, now: { steps: 6 } });
  });

  test('falls on the rung before when its own is gone', () => {
    const { hook } = chosen();
    act(() => hook.result.current.choose(3));
    hook.rerender({ value: { ...study, ladder: { first: 0.5, factor: 2, rungs: 2 } } });
    expect(hook.result.current.rung).toBe(1);
  });

  test('passes over a rung that cannot be laid', () => {
    const { hook } = chosen();
    hook.rerender({ value: { ...study, ladder: { sizes: [0.5, 1e-12, 0.25] } } });
    expect(hook.result.current).toMatchObject({ rows: [0, 2], rung: 2 });
  });
});

test('changes are undone with keys, but not while one types', () => {
  const hook = renderHook(() => useHistory(1));
  const press = (key: string, shiftKey = false, target: EventTarget = document.body): void =>
    act(() => {
      target.dispatchEvent(new KeyboardEvent('keydown', { key, ctrlKey: true, shiftKey, bubbles: true }));
    });
  act(() => hook.result.current.edit('a', (n) => n + 1));
  act(() => hook.result.current.edit('b', (n) => n * 10));
  expect(hook.result.current.value).toBe(20);
  press('z');
  expect(hook.result.current.value).toBe(2);
  press('Z', true);
  expect(hook.result.current.value).toBe(20);
  press('z');
  press('y');
  expect(hook.result.current.value).toBe(20);
  const field = document.body.appendChild(document.createElement('input'));
  press('z', false, field);
  expect(hook.result.current.value).toBe(20);
  press('x');
  expect(hook.result.current.redo).toBeNull();
});

test('a change is reported before anything is rendered from it, also one that makes rendering fail', () => {
  const told: number[] = [];
  const rendered: number[] = [];
  const hook = renderHook(() => {
    const history = useHistory(1, (value) => told.push(value));
    rendered.push(history.value);
    if (history.value === 13) throw new Error('this cannot be shown');
    return history;
  });
  act(() => {
    hook.result.current.edit('a', (n) => n + 1);
    expect(told).toEqual([2]);
    expect(rendered).not.toContain(2);
  });
  act(() => hook.result.current.undo?.());
  expect(told).toEqual([2, 1]);
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  expect(() => act(() => hook.result.current.edit('b', () => 13))).toThrow('this cannot be shown');
  quiet.mockRestore();
  expect(told).toEqual([2, 1, 13]);
});
