/** @jest-environment jsdom */
import type { MethodDocument } from '@schritt/core/document';
import { act, renderHook, type RenderHookResult } from '@testing-library/react';
import { ApiFailure, createEntry, type Entry, replaceEntry } from '../api/client.ts';
import { dropUnsaved, keepUnsaved } from './unsaved.ts';
import { type Autosave, useAutosave } from './use-autosave.ts';

jest.mock('../api/client.ts', () => ({
  ...jest.requireActual<object>('../api/client.ts'),
  replaceEntry: jest.fn(),
  createEntry: jest.fn(),
}));
jest.mock('./unsaved.ts', () => ({ keepUnsaved: jest.fn(), dropUnsaved: jest.fn() }));
jest.mock('openapi-fetch', () => ({ __esModule: true, default: () => ({}) }));

const replace = jest.mocked(replaceEntry);

function text(content: string): MethodDocument {
  return { schritt: 1, kind: 'method', title: 'Heun', text: content };
}

function entryOf(document: MethodDocument, version: number): Entry<MethodDocument> {
  return { id: 'a', version, updatedAt: '', shownAt: null, document };
}

/** The server takes what is sent and counts its versions. */
function takes(): void {
  replace.mockImplementation((_kind, _id, version, document) =>
    Promise.resolve({ id: 'a', version: version + 1, updatedAt: '', shownAt: null, document }),
  );
}

function conflict(current: unknown): void {
  replace.mockRejectedValueOnce(new ApiFailure('stale-version', 'this was changed elsewhere', current));
}

const FIRST = text('one');
const ENTRY = entryOf(FIRST, 1);

function page(): RenderHookResult<Autosave<MethodDocument>, { readonly document: MethodDocument }> {
  return renderHook(({ document }) => useAutosave('method', ENTRY, document), {
    initialProps: { document: FIRST },
  });
}

async function wait(milliseconds = 600): Promise<void> {
  await act(() => jest.advanceTimersByTimeAsync(milliseconds));
}

beforeEach(() => {
  jest.useFakeTimers();
  replace.mockReset();
  jest.mocked(keepUnsaved).mockReset().mockResolvedValue(true);
  jest.mocked(dropUnsaved).mockReset();
  takes();
});
afterEach(() => {
  jest.useRealTimers();
});

test('what was opened is saved; a change is saved a moment after the last keystroke, once', async () => {
  const hook = page();
  await wait(5_000);
  expect(replace).not.toHaveBeenCalled();
  hook.rerender({ document: text('on') });
  await wait(400);
  hook.rerender({ document: text('two') });
  expect(hook.result.current.state.kind).toBe('saving');
  await wait(599);
  expect(replace).not.toHaveBeenCalled();
  await wait(1);
  expect(
    replace.mock.calls.map(([, , version, document]) => [version, 'text' in document && document.text]),
  ).toEqual([[1, 'two']]);
  expect(hook.result.current.state.kind).toBe('saved');
});

test('versions follow one another, and one request goes at a time', async () => {
  const hook = page();
  let answer: (() => void) | null = null;
  replace.mockImplementationOnce(
    (_kind, _id, version, document) =>
      new Promise((done) => {
        answer = () => done({ id: 'a', version: version + 1, updatedAt: '', shownAt: null, document });
      }),
  );
  hook.rerender({ document: text('two') });
  await wait();
  hook.rerender({ document: text('three') });
  await wait();
  expect(replace).toHaveBeenCalledTimes(1);
  await act(async () => answer?.());
  await wait(0);
  expect(
    replace.mock.calls.map(([, , version, document]) => [version, 'text' in document && document.text]),
  ).toEqual([
    [1, 'two'],
    [2, 'three'],
  ]);
});

test('a failure is reported and tried again by hand or by the next change', async () => {
  const hook = page();
  replace.mockRejectedValueOnce(new ApiFailure('unreachable', 'the server does not respond'));
  hook.rerender({ document: text('two') });
  await wait();
  expect(hook.result.current.state).toEqual({
    kind: 'failed',
    why: 'the server does not respond',
    isKept: true,
  });
  await act(async () => hook.result.current.retry());
  expect(hook.result.current.state.kind).toBe('saved');
  expect(replace).toHaveBeenCalledTimes(2);
});

test('in a conflict nothing is saved until a person has chosen; then that is saved over the other version', async () => {
  const hook = page();
  conflict(entryOf(text('theirs'), 7));
  hook.rerender({ document: text('mine') });
  await wait();
  expect(hook.result.current.state).toMatchObject({
    kind: 'conflict',
    version: 7,
    theirs: { text: 'theirs' },
    base: { text: 'one' },
  });
  hook.rerender({ document: text('mine again') });
  await wait(5_000);
  expect(replace).toHaveBeenCalledTimes(1);
  await act(async () => {
    hook.result.current.settle(7, text('theirs'));
    hook.rerender({ document: text('chosen of both') });
  });
  await wait();
  expect(replace.mock.calls.slice(1).map((call) => call.slice(2))).toEqual([[7, text('chosen of both')]]);
  expect(hook.result.current.state.kind).toBe('saved');
});

test('a conflict whose other copy cannot be read holds nothing back for good', async () => {
  const hook = page();
  conflict({ nonsense: true });
  hook.rerender({ document: text('two') });
  await wait();
  expect(hook.result.current.state).toEqual({
    kind: 'failed',
    why: 'it was changed elsewhere, and the other copy cannot be read',
    isKept: true,
  });
  hook.rerender({ document: text('three') });
  await wait();
  expect(replace).toHaveBeenCalledTimes(2);
  expect(hook.result.current.state.kind).toBe('saved');
});

test('a page that goes away sends what is not saved yet', async () => {
  const hook = page();
  hook.rerender({ document: text('last words') });
  hook.unmount();
  await wait(0);
  expect(replace.mock.calls.map(([, , , document]) => 'text' in document && document.text)).toEqual([
    'last words',
  ]);
});

describe('until the server has it', () => {
  test('every change is kept in the browser at once, and put away when it is saved', async () => {
    const hook = page();
    hook.rerender({ document: text('two') });
    expect(
      jest.mocked(keepUnsaved).mock.calls.map(([, id, { version, document }]) => [id, version, document]),
    ).toEqual([['a', 1, text('two')]]);
    expect(dropUnsaved).not.toHaveBeenCalled();
    await wait();
    expect(dropUnsaved).toHaveBeenCalledWith('method', 'a');
  });

  test('it is tried again by itself, with growing pauses, and at once when the network is back', async () => {
    const hook = page();
    replace.mockRejectedValue(new ApiFailure('unreachable', 'the server does not respond'));
    hook.rerender({ document: text('two') });
    await wait();
    expect(replace).toHaveBeenCalledTimes(1);
    await wait(1_999);
    expect(replace).toHaveBeenCalledTimes(1);
    await wait(1);
    expect(replace).toHaveBeenCalledTimes(2);
    await wait(3_999);
    expect(replace).toHaveBeenCalledTimes(2);
    await wait(1);
    expect(replace).toHaveBeenCalledTimes(3);
    takes();
    await act(async () => {
      window.dispatchEvent(new Event('online'));
    });
    expect(hook.result.current.state.kind).toBe('saved');
  });

  test.each([true, false])(
    'a save that failed is said to be kept in this browser only where it is: %p',
    async (isKept) => {
      jest.mocked(keepUnsaved).mockResolvedValue(isKept);
      const hook = page();
      replace.mockRejectedValueOnce(new ApiFailure('unreachable', 'the server does not respond'));
      hook.rerender({ document: text('two') });
      await wait();
      expect(hook.result.current.state).toEqual({
        kind: 'failed',
        why: 'the server does not respond',
        isKept,
      });
    },
  );

  test('leaving the page asks first', async () => {
    const asks = (): boolean => {
      const event = new Event('beforeunload', { cancelable: true });
      window.dispatchEvent(event);
      return event.defaultPrevented;
    };
    const hook = page();
    expect(asks()).toBe(false);
    hook.rerender({ document: text('two') });
    expect(asks()).toBe(true);
    await wait();
    expect(asks()).toBe(false);
  });

  test('what was deleted elsewhere is not saved again and again, and can be stored as a new one', async () => {
    const hook = page();
    replace.mockRejectedValueOnce(new ApiFailure('not-found', 'there is no method with this id'));
    hook.rerender({ document: text('two') });
    await wait();
    expect(hook.result.current.state).toEqual({ kind: 'gone' });
    hook.rerender({ document: text('three') });
    await wait(90_000);
    expect(replace).toHaveBeenCalledTimes(1);
    jest.mocked(createEntry).mockResolvedValueOnce({ ...entryOf(text('three'), 1), id: 'b' });
    await expect(hook.result.current.saveAsNew()).resolves.toBe('b');
    expect(createEntry).toHaveBeenCalledWith('method', text('three'));
    expect(dropUnsaved).toHaveBeenCalledWith('method', 'a');
  });

  test('a page that is only shown keeps and sends nothing', async () => {
    const hook = renderHook(({ document }) => useAutosave('method', null, document), {
      initialProps: { document: FIRST },
    });
    hook.rerender({ document: text('two') });
    await wait(5_000);
    hook.unmount();
    await wait(0);
    expect(hook.result.current.state).toEqual({ kind: 'shown' });
    expect(replace).not.toHaveBeenCalled();
    expect(keepUnsaved).not.toHaveBeenCalled();
  });
});
