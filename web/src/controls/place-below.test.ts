import { placeBelow } from './place-below.ts';

const WINDOW = { width: 1280, height: 800 };

test.each([
  ['below its button', { left: 300, bottom: 100 }, { width: 200, height: 150 }, { left: 300, top: 104 }],
  ['left of the edge', { left: 1200, bottom: 40 }, { width: 400, height: 90 }, { left: 876, top: 44 }],
  ['above the lower edge', { left: 300, bottom: 700 }, { width: 200, height: 210 }, { left: 300, top: 586 }],
  [
    'at the corner where it is too large',
    { left: 9, bottom: 9 },
    { width: 2000, height: 900 },
    { left: 4, top: 4 },
  ],
])('what a button opens stands %s', (_where, button, panel, place) => {
  expect(placeBelow(button, panel, WINDOW)).toEqual(place);
});
