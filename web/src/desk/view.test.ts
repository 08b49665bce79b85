import { FIRST_VIEW, readView, type View, writeView } from './view.ts';

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
    n: 9,
    method: 1,
    component: 3,
    inClass: true,
  };
  expect(readView(writeView(view))).toEqual(view);
  expect(writeView(view).toString()).toBe(
    'depth=step&large=slopes&beside=error&N=13&n=9&method=1&component=3&view=class',
  );
});

test('what an address says that there is none of is passed over', () => {
  const odd = new URLSearchParams('depth=deep&large=bench&rung=-1&N=0&n=1e9&method=x&component=99999999999');
  expect(readView(odd)).toEqual(FIRST_VIEW);
});
