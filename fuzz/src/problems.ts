import * as fc from 'fast-check';
import { formulaOver, numberText, primes, repeated } from './formulas.ts';

const interval = fc.oneof(
  { weight: 5, arbitrary: fc.constantFrom('0 <= t <= 1', '0 <= t <= 2', '0 <= t <= 10', '-1 <= t <= 1') },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      '0 <= t <= 1000',
      '1e6 <= t <= 1e6 + 1',
      '0 <= t <= 1e-9',
      '0 <= t <= sqrt(2)*pi',
    ),
  },
);

/** Systems of one to four unknowns of orders one to three, with or without exact solutions and invariants. */
const system = fc
  .record({
    orders: fc.oneof(
      { weight: 4, arbitrary: fc.constant([1]) },
      { weight: 2, arbitrary: fc.constantFrom([2], [1, 1], [2, 1], [3]) },
      { weight: 1, arbitrary: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 4 }) },
    ),
    interval,
    parameter: numberText,
    style: fc.constantFrom('plain', 'plain', 'plain', 'implicit', 'scaled'),
    typed: fc.boolean(),
    exact: fc.constantFrom('none', 'none', 'formula', 'decay'),
    invariant: fc.boolean(),
  })
  .chain((shape) => {
    const names = ['y', 'x', 'v', 'level'].slice(0, shape.orders.length);
    const lower = names.flatMap((name, i) =>
      Array.from({ length: shape.orders[i] ?? 1 }, (_, d) => name + primes(d)),
    );
    const rightHandSides = fc.tuple(...names.map(() => formulaOver([...lower, 't', 'k', 'pi'])));
    const values = fc.tuple(...lower.map(() => numberText));
    const solutions = fc.tuple(...names.map(() => formulaOver(['t', 'k', 't'], 3)));
    return fc
      .tuple(rightHandSides, values, solutions, formulaOver(lower, 3))
      .map(([rhs, value, solution, invariant]) => {
        const start = shape.interval.split(' ')[0] ?? '0';
        const equations = names.map((name, i) => {
          const highest = name + primes(shape.orders[i] ?? 1);
          if (shape.style === 'implicit') return `2*${highest} + ${rhs[i] ?? '0'} = t`;
          return shape.style === 'scaled'
            ? `3*(2*${highest} - 1) = ${rhs[i] ?? '0'}`
            : `${highest} = ${rhs[i] ?? '0'}`;
        });
        const exact = names.map((name, i) => {
          if (shape.exact === 'none') return '';
          return `${name}(t) = ${shape.exact === 'decay' ? 'exp(-t)' : (solution[i] ?? '0')}`;
        });
        return [
          `k = ${shape.parameter}`,
          ...equations,
          ...lower.map((name, i) => `${name}(${start}) = ${value[i] ?? '1'}`),
          ...(shape.typed ? [`y${primes(shape.orders[0] + 1)} = ${rhs[0]}`] : []),
          ...exact,
          shape.invariant ? `conserved E = ${invariant}` : '',
          shape.interval,
        ].join('\n');
      });
  });

/** Linear problems with right-hand sides from mild to far beyond what an explicit method takes. */
const stiff = fc
  .record({
    rhs: fc.constantFrom('-1', '-50', '-1000', '-1e6', '20', '1e4', '-1e-9'),
    forcing: fc.constantFrom('', ' + cos(t)', ' + t^3', ' - exp(-t)'),
    power: fc.constantFrom('y', 'y', 'y^3', 'y^2', 'sqrt(y)', 'abs(y)', 'sign(y)'),
    initial: numberText,
    interval,
  })
  .map(
    ({ rhs, forcing, power, initial, interval: over }) =>
      `y' = ${rhs}*${power}${forcing}\ny(${over.split(' ')[0] ?? '0'}) = ${initial}\n${over}`,
  );

/** Families of few or many elements. */
const family = fc
  .record({
    n: fc.constantFrom(1, 2, 5, 20, 40, 300, 1000),
    rhs: formulaOver(['u[i]', 'u[i-1]', 'u[i+1]', 'u[i]', 'i', 'k', 't', 'u[1]'], 3),
    edge: fc.constantFrom('u[0] = 0', 'u[0] = u[n]', 'u[0] = sin(t)', ''),
    otherEdge: fc.constantFrom('u[n+1] = 0', 'u[n+1] = u[n]', 'u[n+1] = u[1]', ''),
    initial: formulaOver(['i', 'n', 'k', 'pi'], 3),
    exact: fc.constantFrom('', '', 'u[i](t) = exp(-t)*i for i = 1..n'),
  })
  .map(({ n, rhs, edge, otherEdge, initial, exact }) =>
    [
      `n = ${n}`,
      'k = 0.3',
      `u[i]' = ${rhs} for i = 1..n`,
      edge,
      otherEdge,
      `u[i](0) = ${initial} for i = 1..n`,
      exact,
      '0 <= t <= 1',
    ].join('\n'),
  );

const END = 'y(0) = 1\n0 <= t <= 1';

/** Short texts that represent something large: chains, long sums and products, deep nesting. */
const growing = fc
  .record({
    count: fc.integer({ min: 1, max: 600 }),
    name: fc.constantFrom('sin', 'exp', 'sqrt', 'ln', 'tanh', 'abs'),
    by: fc.constantFrom(' + ', '*', '/', ' - ', '/1*', '^'),
    kind: fc.integer({ min: 0, max: 9 }),
  })
  .map(({ count, name, by, kind }): string => {
    switch (kind) {
      case 0:
        return `y' = ${`${name} `.repeat(count)}y\n${END}`;
      case 1:
        return `y' = ${`${name}(`.repeat(count)}y${')'.repeat(count)}\n${END}`;
      case 2:
        return `y' = ${repeated(count, () => 'y', by)}\n${END}`;
      case 3:
        return `y' = 0*y${repeated(count, (i) => `/${i + 1}*y`, '')}\n${END}`;
      case 4:
        return `${repeated(count % 40, (i) => `a${i} = a${i + 1}*a${i + 1}`, '\n')}\na${count % 40} = 1\ny' = a0*y\n${END}`;
      case 5:
        return `y' = -y\n${repeated(count % 29, (i) => `y${primes(i + 2)} = y${primes(i + 1)}*y + y'`, '\n')}\n${END}`;
      case 6:
        return `${repeated(count % 200, (i) => `z${i}' = -z${i}*z${(i * 7) % (count % 200)}`, '\n')}\n${repeated(count % 200, (i) => `z${i}(0) = 1`, '\n')}\n0 <= t <= 1`;
      case 7:
        return `x${primes(1 + (count % 30))} = -x\n${repeated(1 + (count % 30), (i) => `x${primes(i)}(0) = 1`, '\n')}\n0 <= t <= 1`;
      case 8:
        return `${'a'.repeat(count * 30)}' = -${'a'.repeat(count * 30)}\n${END}`;
      default:
        return `y' = ${'-'.repeat(count)}y\n${END}`;
    }
  });

/** Texts of problems. */
export const problemText: fc.Arbitrary<string> = fc.oneof(
  { weight: 8, arbitrary: system },
  { weight: 3, arbitrary: stiff },
  { weight: 2, arbitrary: family },
  { weight: 2, arbitrary: growing },
);
