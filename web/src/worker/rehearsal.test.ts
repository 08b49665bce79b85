import { Rehearsal } from './rehearsal.ts';

beforeEach(() => {
  jest.useFakeTimers();
});

afterEach(() => {
  jest.useRealTimers();
});

test('work is done a few times while nothing is asked, and then no more', () => {
  const turns: number[] = [];
  const rehearsal = new Rehearsal();
  rehearsal.begin((turn) => turns.push(turn));
  expect(turns).toEqual([]);
  jest.advanceTimersByTime(10_000);
  expect(turns.length).toBeGreaterThan(4);
  expect(turns).toEqual(turns.map((_, i) => i + 1));
  expect(jest.getTimerCount()).toBe(0);
  rehearsal.rest();
  expect(jest.getTimerCount()).toBe(0);
});

test('what is asked puts it off, and nothing is done twice for another piece of work', () => {
  const turns: string[] = [];
  const rehearsal = new Rehearsal();
  rehearsal.begin((turn) => turns.push(`first ${turn}`));
  rehearsal.begin((turn) => turns.push(`second ${turn}`));
  for (let i = 0; i < 100; i += 1) {
    jest.advanceTimersByTime(300);
    rehearsal.rest();
  }
  expect(turns).toEqual([]);
  jest.advanceTimersByTime(799);
  expect(turns).toEqual([]);
  jest.advanceTimersByTime(1);
  expect(turns).toEqual(['first 1']);
  for (let i = 0; i < 100; i += 1) {
    jest.advanceTimersByTime(30);
    rehearsal.rest();
  }
  jest.advanceTimersByTime(70);
  expect(turns).toEqual(['first 1', 'first 2']);
});

test('work that fails is not done again', () => {
  let turns = 0;
  new Rehearsal().begin(() => {
    turns += 1;
    throw new Error('too long by a character');
  });
  jest.advanceTimersByTime(10_000);
  expect(turns).toBe(1);
});
