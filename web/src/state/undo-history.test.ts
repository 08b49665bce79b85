import { change, redo, startHistory, undo } from './undo-history.ts';

test('changes about one thing soon after one another are undone at once; others one by one', () => {
  let history = startHistory('');
  history = change(history, 'a', 'text', 0);
  history = change(history, 'ab', 'text', 400);
  history = change(history, 'ab!', 'title', 600);
  history = change(history, 'abc!', 'text', 700);
  history = change(history, 'abcd!', 'text', 9_000);
  const seen: string[] = [];
  for (; history.past.length > 0; history = undo(history)) seen.push(history.present);
  expect([...seen, history.present]).toEqual(['abcd!', 'abc!', 'ab!', 'ab', '']);
  history = redo(redo(history));
  expect([history.present, history.past.length, history.future.length]).toEqual(['ab!', 2, 2]);
  expect(change(history, 'new', 'text', 10_000).future).toEqual([]);
});

test('the ends are safe, a change to the same value is none, and the past is bounded', () => {
  const history = startHistory('x');
  expect([undo(history), redo(history), change(history, 'x', 'text', 0)]).toEqual([
    history,
    history,
    history,
  ]);
  let long = startHistory(0);
  for (let i = 1; i <= 500; i += 1) long = change(long, i, `about ${i}`, i);
  expect(long.past).toHaveLength(200);
});
