import { FairOrder } from './fair-order.ts';

interface Waiting {
  readonly owner: string;
  readonly place: number;
}

/** Does all tasks one after another by their places, those of the same place as they came; answers whose they were. */
function served(order: FairOrder, waiting: readonly Waiting[], count = waiting.length): readonly string[] {
  return [...waiting]
    .sort((a, b) => a.place - b.place)
    .slice(0, count)
    .map(({ owner, place }) => {
      order.begun(place);
      return owner;
    });
}

function tasksOf(order: FairOrder, owner: string, count: number, seconds = 0.5): readonly Waiting[] {
  return order.places(owner, Array<number>(count).fill(seconds)).map((place) => ({ owner, place }));
}

test('of two users each has half of the time, however many studies one of them has', () => {
  const order = new FairOrder();
  const many = [...tasksOf(order, 'Anna', 40), ...tasksOf(order, 'Anna', 40), ...tasksOf(order, 'Anna', 40)];
  const few = tasksOf(order, 'Ben', 10);
  const first = served(order, [...many, ...few], 20);
  expect(first.filter((owner) => owner === 'Ben')).toHaveLength(10);
});

test('who comes later does not wait for those who were first, nor overtakes what was placed while they worked', () => {
  const order = new FairOrder();
  const early = tasksOf(order, 'Anna', 20);
  served(order, early, 12);
  const late = tasksOf(order, 'Ben', 4);
  const next = served(order, [...early.slice(12), ...late], 8);
  expect(next.filter((owner) => owner === 'Ben')).toHaveLength(4);
  // the first of all is not Ben's alone: he begins where the queue is
  expect(next.slice(0, 2)).toContain('Anna');
});

test('shares are of time, not of tasks', () => {
  const order = new FairOrder();
  const long = tasksOf(order, 'Anna', 10, 4);
  const short = tasksOf(order, 'Ben', 40, 1);
  const first = served(order, [...long, ...short], 10);
  // eight seconds of each: two long tasks beside eight short ones
  expect(first.filter((owner) => owner === 'Anna')).toHaveLength(2);
});

test('a user who has nothing waiting saves up no time for later', () => {
  const order = new FairOrder();
  served(order, tasksOf(order, 'Anna', 30));
  const [anna] = tasksOf(order, 'Anna', 1);
  const [ben] = tasksOf(order, 'Ben', 1);
  expect(ben!.place).toBeGreaterThan(0);
  expect(anna!.place - ben!.place).toBeLessThanOrEqual(5);
});

test('places stay within what the queue takes, and begin anew when nothing is left', () => {
  const order = new FairOrder(100);
  expect(Math.max(...order.places('Anna', Array<number>(50).fill(1)))).toBe(100);
  order.reset();
  expect(order.places('Anna', [1])).toEqual([0]);
});
