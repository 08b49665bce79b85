// What browsers have and the pages of unit tests lack: elements there have no size, so nothing is observed.
if (typeof window !== 'undefined') {
  window.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  window.matchMedia ??= (media) => ({
    media,
    matches: false,
    addEventListener() {},
    removeEventListener() {},
  });
  const { getComputedStyle } = window;
  // styles of pseudo-elements are asked for to measure scroll bars
  window.getComputedStyle = (element) => getComputedStyle(element);
}
