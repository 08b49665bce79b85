/** Whose notation an example is. */
export type ExampleOf = 'problem' | 'method';

/** Something that may be written, and what it says. */
export interface Example {
  /** What is put into a text. */
  readonly text: string;
  readonly says: string;
  /** The text in which it is tried, where it is not one itself; `…` represents it. */
  readonly within?: string;
}

export interface ExampleGroup {
  readonly heading: string;
  readonly of: ExampleOf | 'both';
  readonly examples: readonly Example[];
}

const DECAY = "y' = -y\ny(0) = 1\n0 <= t <= 1\n";
const RATE = "y' = …\ny(0) = 1\n0 <= t <= 1";
const STEP = 'y[n+1] = y + h*f(t, y)';

/** The notation by example, in the order of a page. */
export const EXAMPLES: readonly ExampleGroup[] = [
  {
    heading: 'A problem',
    of: 'problem',
    examples: [
      { text: "y' = -2*y", says: 'the derivative of an unknown', within: '…\ny(0) = 1\n0 <= t <= 1' },
      { text: 'y(0) = 1', says: 'its value at the start', within: "y' = -y\n…\n0 <= t <= 1" },
      { text: '0 <= t <= 2', says: 'the interval, which names the variable', within: "y' = -y\ny(0) = 1\n…" },
      {
        text: 'y(t) = exp(-2*t)',
        says: 'the exact solution, if known',
        within: "y' = -2*y\ny(0) = 1\n0 <= t <= 1\n…",
      },
      { text: 'k = 0.35', says: 'a parameter, above the lines that use it', within: `…\n${DECAY}` },
      {
        text: "level'' = k^2/2",
        says: 'a derivative by hand, next to the equation: checked, and used by Taylor methods',
        within: "k = 0.35\nlevel' = -k*sqrt(level)\n…\nlevel(0) = 4\n0 <= t <= 6",
      },
      {
        text: "conserved E = x'^2/2 + x^2/2",
        says: 'a conserved quantity',
        within: "x'' = -x\nx(0) = 1\nx'(0) = 0\n…\n0 <= t <= 1",
      },
      { text: '# a remark', says: 'text after # is a comment', within: `…\n${DECAY}` },
    ],
  },
  {
    heading: 'Systems and higher order',
    of: 'problem',
    examples: [
      {
        text: "u' = u*(2 - w)\nw' = w*(u - 1)",
        says: 'several unknowns, one equation each',
        within: '…\nu(0) = 1\nw(0) = 1\n0 <= t <= 1',
      },
      {
        text: "x'' + 0.3*x' + 2*x = cos(t)\nx(0) = 0.8\nx'(0) = 0",
        says: 'any order, in any form that is linear in the highest derivative',
        within: '…\n0 <= t <= 1',
      },
      {
        text: "u[i]' = u[i-1] - 2*u[i] + u[i+1] for i = 1..20\nu[0] = 0\nu[21] = 0\nu[i](0) = sin(pi*i/21) for i = 1..20",
        says: 'a family: one equation with an index, boundary values given',
        within: '…\n0 <= t <= 1',
      },
    ],
  },
  {
    heading: 'A step of a method',
    of: 'method',
    examples: [
      { text: STEP, says: 'the new value, here by Euler' },
      {
        text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)',
        says: 'stages',
        within: '…\ny[n+1] = y + h/2*(k1 + k2)',
      },
      {
        text: 'yhat[n+1] = y + h/2*(k1 + k2)',
        says: 'an embedded formula, which estimates the local error',
        within: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*k1\n…',
      },
      { text: 'theta = 1/2', says: 'a constant', within: '…\ny[n+1] = y + theta*h*f(t, y)' },
      {
        text: 'y[n+1] = y + h/2*(3*f[n] - f[n-1])',
        says: 'earlier values and slopes: y[n-1], f[n], f[n-1], ...',
        within: 'start with Heun\n…',
      },
      {
        text: 'start with RK4',
        says: 'the starting method of a multistep method',
        within: '…\ny[n+1] = y[n-1] + 2*h*f[n]',
      },
    ],
  },
  {
    heading: 'Implicit formulas',
    of: 'method',
    examples: [
      {
        text: 'solve y[n+1] = y + h*f(t + h, y[n+1])',
        says: 'an implicit formula, solved by Newton’s method',
      },
      {
        text: 'solve k1 = f(t + h/2, y + h/2*k1)',
        says: 'a stage likewise; several with commas: solve k1, k2 = ..., ...',
        within: '…\ny[n+1] = y + h*k1',
      },
    ],
  },
  {
    heading: 'Derivatives of f',
    of: 'method',
    examples: [
      {
        text: "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)",
        says: "total derivatives f', f'', ... along the solution, computed automatically",
      },
      {
        text: 'y[n+1] = y + h*f(t, y) + h^2/2*(f_t(t, y) + f_y(t, y)*f(t, y))',
        says: 'partial derivatives f_t, f_y, f_ty, ...',
      },
      {
        text: 'd2(t, y) = 2*t + 2*y*(t^2 + y^2)',
        says: 'a typed derivative, for a problem with one equation',
        within: '…\ny[n+1] = y + h*f(t, y) + h^2/2*d2(t, y)',
      },
    ],
  },
  {
    heading: "Second order, x'' = a(t, x, x')",
    of: 'method',
    examples: [
      {
        text: 'v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]',
        says: 'position and velocity, only for second-order problems',
      },
    ],
  },
  {
    heading: 'Formulas',
    of: 'both',
    examples: [
      { text: '+ - * / ^', says: 'as written, to the last bit; x^2 is x*x', within: `${DECAY}# …` },
      { text: '3(t + 1)', says: 'a number in front multiplies; so does a space between names', within: RATE },
      { text: 'sqrt(y)', says: 'also cbrt, exp, ln, log10, log2, abs, sign', within: RATE },
      { text: 'sin(2 pi t)', says: 'also cos, tan, asin, acos, atan, atan2, sinh, cosh, tanh', within: RATE },
      { text: 'min(t, 1)', says: 'also max, floor, mod', within: RATE },
      { text: 'if(t < 1, 0, y)', says: 'cases, with < <= > >= == !=', within: RATE },
    ],
  },
];
