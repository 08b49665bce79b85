/** @jest-environment jsdom */
import { act, render, screen } from '@testing-library/react';
import { AfterPaint } from './after-paint.tsx';

/** Frames of a page that come when the test says so. */
function frames(): { readonly next: () => void; readonly waiting: () => number } {
  const asked = new Map<number, FrameRequestCallback>();
  let last = 0;
  jest.spyOn(window, 'requestAnimationFrame').mockImplementation((draw) => {
    last += 1;
    asked.set(last, draw);
    return last;
  });
  jest.spyOn(window, 'cancelAnimationFrame').mockImplementation((id) => void asked.delete(id));
  return {
    next: () =>
      act(() => {
        const now = [...asked.values()];
        asked.clear();
        for (const draw of now) draw(0);
      }),
    waiting: () => asked.size,
  };
}

afterEach(() => jest.restoreAllMocks());

test('what comes after is made in the frame after the one that paints what is around it', () => {
  const { next } = frames();
  render(
    <div>
      at once <AfterPaint>{() => 'later'}</AfterPaint>
    </div>,
  );
  const text = (): string | null => screen.getByText(/at once/).textContent;
  expect(text()).toBe('at once ');
  next();
  expect(text()).toBe('at once ');
  next();
  expect(text()).toBe('at once later');
});

test('of several parts, each is made in a frame of its own', () => {
  const { next, waiting } = frames();
  render(
    <div>
      at once
      <AfterPaint parts={3}>{(parts) => ` and ${parts} more`}</AfterPaint>
    </div>,
  );
  const text = (): string | null => screen.getByText(/at once/).textContent;
  for (const parts of [1, 2, 3]) {
    next();
    expect(text()).not.toContain(String(parts));
    next();
    expect(text()).toBe(`at once and ${parts} more`);
  }
  // no frame is asked for when all are there
  expect(waiting()).toBe(0);
});

test('a page that is left before asks for no more frames', () => {
  const { next, waiting } = frames();
  const { unmount } = render(<AfterPaint>{() => 'later'}</AfterPaint>);
  next();
  expect(waiting()).toBe(1);
  unmount();
  expect(waiting()).toBe(0);
});
