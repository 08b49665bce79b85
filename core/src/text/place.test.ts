import { Complaints, lineStarts, LONGEST_TEXT, PlaceError, placeOf, spanning, tooLong } from './place.ts';
import { attempt, Refusal } from './refusal.ts';

const TEXT = 'level = 4\nk = 0,35\n\nend';

test.each([
  [0, 1, 1],
  [8, 1, 9],
  [9, 1, 10],
  [10, 2, 1],
  [18, 2, 9],
  [19, 3, 1],
  [20, 4, 1],
  [23, 4, 4],
])('offset %d is line %d, column %d', (offset, line, column) => {
  expect(placeOf(lineStarts(TEXT), offset)).toEqual({ line, column });
});

test('complaints come in the order of the text, each once, within their line', () => {
  const complaints = new Complaints(TEXT);
  expect(complaints.any).toBe(false);
  complaints.add({ from: 14, to: 40 }, 'a comma');
  complaints.add({ from: 0, to: 5 }, 'a name');
  complaints.add({ from: 14, to: 15 }, 'a comma');
  expect(complaints.any).toBe(true);
  expect(complaints.list()).toEqual([
    { line: 1, column: 1, length: 5, message: 'a name' },
    { line: 2, column: 5, length: 4, message: 'a comma' },
  ]);
});

test('a place beyond the text is its end, and has a length', () => {
  const complaints = new Complaints('y');
  complaints.add({ from: 10, to: 12 }, 'something is missing');
  expect(complaints.list()).toEqual([{ line: 1, column: 2, length: 1, message: 'something is missing' }]);
});

test('an attempt turns a place error into a complaint, and no other error', () => {
  const complaints = new Complaints(TEXT);
  expect(complaints.attempt(() => 3)).toBe(3);
  const refused = complaints.attempt(() => {
    throw new PlaceError({ from: 10, to: 11 }, 'not so');
  });
  expect(refused).toBeNull();
  expect(complaints.list()[0]).toMatchObject({ line: 2, column: 1, message: 'not so' });
  expect(() =>
    complaints.attempt(() => {
      throw new TypeError('a fault');
    }),
  ).toThrow(TypeError);
});

test('a place error is a refusal with its place', () => {
  const error = new PlaceError(spanning({ from: 2, to: 3 }, { from: 7, to: 9 }), 'not so');
  expect(error).toBeInstanceOf(Refusal);
  expect([error.code, error.place, error.message]).toEqual(['text', { from: 2, to: 9 }, 'not so']);
});

test('a refusal becomes an answer; a fault goes on', () => {
  expect(attempt(() => 'done')).toEqual({ ok: true, value: 'done' });
  const refusal = new Refusal('grid', 'too many steps');
  expect(
    attempt(() => {
      throw refusal;
    }),
  ).toEqual({ ok: false, refusal });
  expect(refusal.place).toBeNull();
  expect(() => attempt(() => [].reduce((a) => a))).toThrow(TypeError);
});

test('a text is read up to its longest, and not beyond', () => {
  expect(tooLong('y'.repeat(LONGEST_TEXT))).toBeNull();
  expect(tooLong('y'.repeat(LONGEST_TEXT + 1))?.map(({ message }) => message)).toEqual([
    'this text has 20,001 characters; at most 20,000 are read',
  ]);
});
