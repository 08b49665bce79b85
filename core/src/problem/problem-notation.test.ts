import fc from 'fast-check';
import { plainText } from '../formula/plain-text.ts';
import { parseMethod } from '../method/parse-method.ts';
import { LIBRARY } from '../method/library/library.ts';
import { compileRun } from '../compile/compile.ts';
import { layGrid } from '../run/grid.ts';
import { integrate } from '../run/integrate.ts';
import { checkExact, exactCheckSentence } from './check-exact.ts';
import { manufacture } from './manufacture.ts';
import { parseProblem } from './parse-problem.ts';
import { isSecondOrder, type Problem } from './problem.ts';

function problem(text: string): Problem {
  const reading = parseProblem(text);
  if (!reading.ok)
    throw new Error(reading.errors.map((e) => `${e.line}:${e.column} ${e.message}`).join('\n'));
  return reading.value;
}

const messages = (text: string): readonly string[] => {
  const reading = parseProblem(text);
  return reading.ok ? [] : reading.errors.map((e) => e.message);
};

function rightHandSides(text: string): readonly string[] {
  return problem(text).blocks.map((block) => `${block.name}' = ${plainText(block.rhs)}`);
}

describe('equations in any form', () => {
  test.each([
    ["2*y' + 3*y = cos(5 t)\ny(0) = 1\n0 <= t <= 1", ["y' = (cos(5*t) - 3*y)/2"]],
    ["y' = y' /2 + t\ny(0) = 1\n0 <= t <= 1", ["y' = t/(1 - 1/2)"]],
    [
      "L*q'' + R*q' + q/C = 0\nL = 2\nR = 1\nC = 3\nq(0) = 1\nq'(0) = 0\n0 <= t <= 1",
      ["q' = q'", "q'' = -(R*q' + q/C)/L"],
    ],
    ["x' = v\nv' = -x\nx(0) = 1\nv(0) = 0\n0 <= t <= 1", ["x' = v", "v' = -x"]],
    ["a' = t\nb' + a' = b\na(0) = 0\nb(0) = 0\n0 <= t <= 1", ["a' = t", "b' = b - t"]],
    ["x'' = -y\ny' = x'\nx(0) = 1\nx'(0) = 0\ny(0) = 2\n0 <= t <= 1", ["x' = x'", "x'' = -y", "y' = x'"]],
  ])('case %#', (text, expected) => {
    expect(rightHandSides(text)).toEqual(expected);
  });

  test.each([
    [
      "y'^2 = y\ny(0) = 1\n0 <= t <= 1",
      "this equation is not linear in y', so it cannot be solved for it; write it as y' = ...",
    ],
    [
      "y' + t = y' + y\ny(0) = 1\n0 <= t <= 1",
      "y' cancels out of this equation, so the equation does not determine it",
    ],
    [
      "a' = b'\nb' = a'\na(0) = 1\nb(0) = 1\n0 <= t <= 1",
      'the equations for a and b are coupled in their highest derivatives; solve them for these by hand',
    ],
    ["x'' = -x\nx(0) = 1\n0 <= t <= 1", "the initial value of x' is missing; add a line x'(0) = ..."],
  ])('what cannot be solved says why, case %#', (text, expected) => {
    expect(messages(text)).toContain(expected);
  });

  test('a rearranged equation has the same values as the right-hand side solved by hand', () => {
    const p = problem(
      "L*q'' + R*q' + q/C = sin(t)\nL = 2\nR = 0.5\nC = 0.25\nq(0) = 1\nq'(0) = 0\n0 <= t <= 2",
    );
    const byHand = problem(
      "q'' = (sin(t) - (R*q' + q/C))/L\nL = 2\nR = 0.5\nC = 0.25\nq(0) = 1\nq'(0) = 0\n0 <= t <= 2",
    );
    const method = parseMethod(LIBRARY[4]!.text);
    if (!method.ok) throw new Error();
    const end = (of: Problem): number[] =>
      Array.from(integrate(compileRun(of, method.value), layGrid(0, 2, { steps: 50 })).values);
    expect(end(p)).toEqual(end(byHand));
  });

  test('second-order form is recognised', () => {
    expect(isSecondOrder(problem("x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1"))).toBe(true);
    expect(isSecondOrder(problem("x'' = -y\ny' = x'\nx(0) = 1\nx'(0) = 0\ny(0) = 2\n0 <= t <= 1"))).toBe(
      false,
    );
  });
});

describe('the exact solution is put into the equation', () => {
  const sway = (exact: string): string =>
    `x'' = -c*x' - w^2*x\nc = 0.4\nw = 2\nx(0) = 1\nx'(0) = -0.2\n0 <= t <= 6\nx(t) = ${exact}`;

  test('a right one satisfies it to rounding, and gives x’ too', () => {
    const p = problem(sway('exp(-c*t/2)*cos(sqrt(w^2 - c^2/4)*t)'));
    const check = checkExact(p)!;
    expect(check.satisfied).toBe(true);
    expect(check.residual).toBeLessThan(1e-14);
    expect(exactCheckSentence({ ...p, equations: p.unknowns.length }, check)).toMatch(
      /^exact solution satisfies the equation \(largest residual \d\.\de-1[5-7]\) and the initial values$/,
    );
    expect(p.blocks[1]!.exact).not.toBeNull();
  });

  test('one that is wrong in the eighth digit does not', () => {
    const check = checkExact(problem(sway('exp(-c*t/2)*cos(1.98997488*t)')))!;
    expect(check.satisfied).toBe(false);
    expect(check.residual).toBeGreaterThan(1e-10);
  });

  test('wrong initial values are distinguished from a wrong equation', () => {
    const p = problem("y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = 2*exp(-t)");
    const check = checkExact(p)!;
    expect(check).toMatchObject({ satisfied: false, initial: [{ component: 'y', exact: 2, given: 1 }] });
    expect(check.residual).toBeLessThan(1e-15);
  });

  test('a family against its own closed form, edges included', () => {
    const text = (rhs: string): string =>
      `u[i]' = k*(n+1)^2*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..n\nk = 0.1\nn = 12\nu[0] = 0\nu[n+1] = 0\nu[i](0) = sin(pi*i/(n+1)) for i = 1..n\n0 <= t <= 1\nu[i](t) = sin(pi*i/(n+1))*exp(-${rhs}*k*(n+1)^2*sin(pi/(2*(n+1)))^2*t) for i = 1..n`;
    expect(checkExact(problem(text('4')))).toMatchObject({ satisfied: true, unchecked: [] });
    expect(checkExact(problem(text('3.999')))!.satisfied).toBe(false);
  });

  test('what cannot be checked is reported', () => {
    const check = checkExact(
      problem("a' = b\nb' = -b\na(0) = 0\nb(0) = 1\n0 <= t <= 1\na(t) = 1 - exp(-t)"),
    )!;
    expect(check.unchecked).toEqual(["a'", "b'"]);
  });
});

describe('families', () => {
  const heat = (n: number): string =>
    `u[i]' = k*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..n\nk = 0.3\nn = ${n}\nu[0] = sin(t)\nu[n+1] = 0\nu[i](0) = i/n for i = 1..n\n0 <= t <= 1`;

  test.each([5, 40])('%i layers give the bits of the loop written by hand', (n) => {
    const run = compileRun(problem(heat(n)), parsed('Heun'));
    const f = (t: number, u: number[]): number[] =>
      u.map((x, i) => 0.3 * ((i === 0 ? Math.sin(t) : u[i - 1]!) - 2 * x + (i === n - 1 ? 0 : u[i + 1]!)));
    const h = 1 / 20;
    let u = Array.from({ length: n }, (_, i) => (i + 1) / n);
    for (let step = 0; step < 20; step += 1) {
      const t = 0 + step * h;
      const k1 = f(t, u);
      const k2 = f(
        t + h,
        u.map((x, i) => x + h * k1[i]!),
      );
      u = u.map((x, i) => x + (h / 2) * (k1[i]! + k2[i]!));
    }
    expect(Array.from(integrate(run, layGrid(0, 1, { steps: 20 })).values)).toEqual(u);
  });

  test('several families with different offsets, one beside a single unknown', () => {
    const p = problem(
      "a[i]' = b[i+1] - a[i]*s for i = 1..30\nb[j]' = a[j-2] + j for j = 2..31\ns' = a[3]\na[0] = 7\nb[32] = 0\ns(0) = 1\na[i](0) = i for i = 1..30\nb[j](0) = 2*j for j = 2..31\n0 <= t <= 1",
    );
    const { values } = integrate(compileRun(p, parsed('Euler')), layGrid(0, 1, { steps: 1 }));
    expect(values[0]).toBe(1 + 1 * (2 * 2 - 1 * 1));
    expect(values[29]).toBe(30 + 1 * (2 * 31 - 30 * 1));
    expect(values[30]).toBe(4 + 1 * (7 + 2));
    expect(values[59]).toBe(62 + 1 * (29 + 31));
    expect(values[60]).toBe(1 + 1 * 3);
  });

  test.each([
    [
      heat(5).replace('u[0] = sin(t)\n', ''),
      'u[0] lies outside the family and has no value; add a line u[0] = ...',
    ],
    [heat(5).replace('u[i-1]', 'u'), 'u is a family: write u[i]'],
    [
      heat(5).replace('u[i-1]', 'u[2*i]'),
      'an index must be an integer, or the running index plus or minus one',
    ],
    [heat(5).replace('n = 5', 'n = 20001'), 'this problem has 20,001 components; at most 20,000 are allowed'],
    [heat(5).replace('n = 5', 'n = 2.5'), 'a range needs integers, and this is 2.5'],
  ])('a family in error, case %#', (text, expected) => {
    expect(messages(text)).toContain(expected);
  });

  function parsed(title: string): Parameters<typeof compileRun>[1] {
    const method = parseMethod(LIBRARY.find((m) => m.title === title)!.text);
    if (!method.ok) throw new Error();
    return method.value;
  }
});

describe('manufactured problems', () => {
  test.each([
    ["y' = -y^3 + t*y\ny(0) = 9\n0 <= t <= 2", [{ unknown: 'y', solution: '2 + sin(t)' }]],
    [
      "x'' = -a*x'*abs(x')\na = 0.3\nx(0) = 0\nx'(0) = 9\n0 <= t <= 2",
      [{ unknown: 'x', solution: 'exp(-a*t) + t^2' }],
    ],
    [
      "m' = m*(1 - l)\nl' = l*(m - 1)\nm(0) = 1\nl(0) = 9\n0 <= t <= 2",
      [
        { unknown: 'm', solution: '2 + cos(t)' },
        { unknown: 'l', solution: '1 + t' },
      ],
    ],
  ])('the wished solution is exact, case %#', (text, wishes) => {
    const made = manufacture(problem(text), wishes);
    if (!made.ok) throw new Error(made.errors[0]!.message);
    expect(checkExact(problem(made.value))).toMatchObject({ satisfied: true, unchecked: [] });
  });

  test('a solution that contains an unknown is refused with its place', () => {
    expect(
      manufacture(problem("y' = y\ny(0) = 1\n0 <= t <= 1"), [{ unknown: 'y', solution: '1 + y' }]),
    ).toMatchObject({
      ok: false,
      errors: [{ column: 5, message: 'a manufactured solution may contain only t, parameters and numbers' }],
    });
  });
});

describe('arbitrary input', () => {
  const piece = fc.constantFrom(
    'y',
    "'",
    '(',
    ')',
    '[',
    ']',
    '=',
    '<=',
    't',
    '0',
    '1.5',
    '1e',
    '..',
    ',',
    '+',
    '-',
    '*',
    '/',
    '^',
    '**',
    'sin',
    'if',
    'for',
    'i',
    'u',
    'conserved',
    'log',
    '\n',
    ' ',
    '#',
    '\u{1F600}',
    '\\',
    '${x}',
    'constructor',
    '__proto__',
    'é',
    "y'",
    'u[i]',
    '0 <= t <= 1\n',
    "y' = -y\n",
    'y(0) = 1\n',
  );

  test('never throws, and every error has a place inside the text', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.array(piece, { maxLength: 60 }).map((p) => p.join('')),
          fc.string({ unit: 'binary', maxLength: 200 }),
        ),
        (text) => {
          for (const reading of [parseProblem(text), parseMethod(text)]) {
            if (reading.ok) continue;
            const lines = text.split('\n');
            const inside = reading.errors.every(
              (e) =>
                e.line >= 1 &&
                e.column >= 1 &&
                e.length >= 1 &&
                e.column <= (lines[e.line - 1]?.length ?? -1) + 1,
            );
            expect(reading.errors.length > 0 && inside).toBe(true);
          }
        },
      ),
      { numRuns: 1500 },
    );
  });

  test.each([
    ['a long sum', `y' = ${'y + '.repeat(4990)}y`],
    ['deep brackets', `y' = ${'('.repeat(9000)}y${')'.repeat(9000)}`],
    ['deep powers', `y' = ${'2^'.repeat(9000)}y`],
    ['many signs', `y' = ${'-'.repeat(19000)}y`],
    ['many primes', `y${"'".repeat(19000)} = y`],
    ['a long name', `${'y'.repeat(19990)}' = 1`],
    ['many lines', "y'=y\n".repeat(3999)],
    ['many unknowns', Array.from({ length: 1300 }, (_, i) => `a${i}' = 1\n`).join('')],
    ['many names', `y' = ${Array.from({ length: 3000 }, (_, i) => `q${i}`).join('+')}`],
    ['nested calls', `y' = ${'sin('.repeat(4000)}`],
    ['nested ifs', `y' = ${'if(1<2,'.repeat(2800)}`],
    ['products of sums', `y' = ${'(y+t)*'.repeat(3000)}1`],
    ['implicit equation', `${'(1+t)*('.repeat(190)}y'${')'.repeat(190)}${'+y'.repeat(1200)} = 0`],
    ['beyond the limit', "y' = y\n".repeat(5000)],
  ])('%s is read, or refused at a place inside the text', (_, text) => {
    const whole = `${text}\ny(0) = 1\n0 <= t <= 1\n`;
    const reading = parseProblem(whole);
    const lines = whole.split('\n');
    const errors = reading.ok ? [] : reading.errors;
    expect(errors.length > 0).toBe(!reading.ok);
    for (const { line, column } of errors)
      expect(column >= 1 && column <= (lines[line - 1]?.length ?? -1) + 1).toBe(true);
  });
});
