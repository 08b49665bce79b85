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
      at once <AfterPaint>later</AfterPaint>
    </div>,
  );
  const text = (): string | null => screen.getByText(/at once/).textContent;
  expect(text()).toBe('at once ');
  next();
  expect(text()).toBe('at once ');
  next();
  expect(text()).toBe('at once later');
});

test('a page that is left before asks for no more frames', () => {
  const { next, waiting } = frames();
  const { unmount } = render(<AfterPaint>later</AfterPaint>);
  next();
  expect(waiting()).toBe(1);
  unmount();
  expect(waiting()).toBe(0);
});
