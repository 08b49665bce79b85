import { changedView, FIRST_VIEW, readView, type View, writeView } from './view.ts';

test('an address without anything is the first view, and that view has no address', () => {
  expect(readView(new URLSearchParams())).toEqual(FIRST_VIEW);
  expect(writeView(FIRST_VIEW).toString()).toBe('');
});

test('a view comes back from its address', () => {
  const view: View = {
    depth: 'step',
    large: 'slopes',
    beside: 'error',
    rung: 2,
    steps: 13,
    ticked: [0, 4],
    n: 9,
    method: 1,
    component: 3,
    together: true,
    drawn: 'both',
    stability: 'order star',
    zooms: { large: { x: [0, 0.5], y: [-1.25, 1e-7] }, beside: null },
    folded: true,
    inClass: true,
    panels: ['beside', 'words'],
  };
  expect(readView(writeView(view))).toEqual(view);
  expect(writeView(view).toString()).toBe(
    'depth=step&large=slopes&beside=error&N=13&rungs=0+4&n=9&method=1&component=3&components=all&drawn=both' +
      '&stability=order+star' +
      '&zoom=0+0.5+-1.25+1e-7&statement=folded&view=class&panels=beside+words',
  );
});

test('what an address says that there is none of is passed over', () => {
  const odd = new URLSearchParams(
    'depth=deep&large=bench&rung=-1&N=0&n=1e9&method=x&component=99999999999&rungs=a+-1&zoom=1+1+2+2',
  );
  expect(readView(odd)).toEqual(FIRST_VIEW);
});

test('a plot that shows something else is not zoomed, and neither is one of another depth', () => {
  const zoom = { x: [0, 1], y: [0, 1] } as const;
  const view: View = { ...FIRST_VIEW, zooms: { large: zoom, beside: zoom } };
  expect(changedView(view, { large: 'error' }).zooms).toEqual({ large: null, beside: zoom });
  expect(changedView(view, { depth: 'run' }).zooms).toEqual({ large: null, beside: null });
  expect(changedView(view, { rung: 4 }).zooms).toEqual(view.zooms);
});
