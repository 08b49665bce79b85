import { parseProblem } from './parse-problem.ts';

/** The errors of a text as `line:column+length message`. */
function errors(text: string): readonly string[] {
  const reading = parseProblem(text);
  return reading.ok ? [] : reading.errors.map((e) => `${e.line}:${e.column}+${e.length} ${e.message}`);
}

const REST = '\ny(0) = 1\n0 <= t <= 1';

test('a problem with parameters, system and exact solution', () => {
  const reading = parseProblem(
    "# two tanks\na' = -k*a\nb' = k*a - q*b\nk = 1/4   # per hour\nq = 2 k\na(0) = 2\nb(0) = -1e-1\n0 <= t <= sqrt(4)*pi\na(t) = 2*exp(-k*t)",
  );
  expect(reading).toMatchObject({
    ok: true,
    value: {
      independent: 't',
      start: 0,
      end: 2 * Math.PI,
      initial: [2, -0.1],
      size: 2,
      parameters: [
        { name: 'k', value: 0.25 },
        { name: 'q', value: 0.5 },
      ],
    },
  });
});

test.each([
  ["y' = ty", '1:6+2 ty is not known; to multiply write t*y'],
  ["y' = sin t/2", '1:6+7 sin without brackets is ambiguous here: write sin(t)/2 or sin(t/2)'],
  ["y' = -y(t)", '1:7+1 inside a formula write y, not y(t); to multiply write y*(t)'],
  ["y' = log(y)", '1:6+3 log means different things in different programs; write ln(y) or log10(y)'],
  ["y' = 0,5*y", '1:6+3 use a decimal point, not a comma: write 0.5'],
  ["y' = y**2", '1:7+2 a power is written ^, not **'],
  ["y' = 2*(y + 1", '1:8+1 this bracket is not closed: a ) is missing'],
  ["y' = y)", '1:7+1 unmatched )'],
  ["y' = k*y\nK = 1", '1:6+1 k is not known, but K is; names are case-sensitive'],
  ["y' = 3 + ", '1:9+1 the formula is incomplete: a number, a name or ( is missing'],
  ["y' = max(1)", '1:6+6 max takes 2 or more arguments, not 1'],
  ["y' = arctan(y)", '1:6+6 unknown function arctan; write atan'],
  ["y' = 1/0*k\nk = 1/0", '2:5+3 this is not a finite number (Infinity)'],
])('%s', (text, expected) => {
  expect(errors(text + REST)).toEqual([expected]);
});

test('all errors of a text are reported, each at its place', () => {
  expect(errors("y' = ty + cos x\nz' = y(t)\nk = 1,5\ny(0) = 1\n0 <= t <= -1")).toEqual([
    '1:6+2 ty is not known; to multiply write t*y',
    '1:15+1 x is not known; give it a value on a line of its own, such as x = 1',
    '2:6+1 inside a formula write y, not y(t); to multiply write y*(t)',
    '3:5+3 use a decimal point, not a comma: write 1.5',
    '5:1+12 the start of the interval must be less than its end; 0 is not less than -1',
  ]);
});

test.each([
  ["y' = -y\n0 <= t <= 1", 'the initial value of y is missing; add a line y(0) = ...'],
  ["y' = -y\ny(0) = 1", 'the interval is missing; add a line such as 0 <= t <= 1'],
  ["y' = -y\ny(1) = 1\n0 <= t <= 1", 'initial values belong to the start of the interval: write y(0)'],
  ["y' = -y\ny(0.0005) = 1\n0 <= t <= 1", 'initial values belong to the start of the interval: write y(0)'],
  ["y' = -y\ny' = y\ny(0) = 1\n0 <= t <= 1", "y' has two equations; remove one of them"],
  ['k = 1\n0 <= t <= 1', "an equation is missing; add a line such as y' = -y"],
  [
    "y' = -y\ny = 3\ny(0) = 1\n0 <= t <= 1",
    "y is an unknown: its value at the start is written y(0) = ..., its equation y' = ..., its exact solution y(t) = ...",
  ],
])('what is missing or doubled: %s', (text, expected) => {
  const reading = parseProblem(text);
  expect(reading.ok ? [] : reading.errors.map((e) => e.message)).toEqual([expected]);
});
