/** Coefficients as they are printed in the literature: numbers, fractions and roots in the notation of a text. */
export interface PublishedTableau {
  readonly name: string;
  readonly order: number;
  readonly c: readonly string[];
  /** Rows up to the last coefficient that is not zero. */
  readonly A: readonly (readonly string[])[];
  readonly b: readonly string[];
}

/** y[n+1] = sum alpha_j y[n-j] + h (next f[n+1] + sum beta_j f[n-j]), with its error constant. */
export interface PublishedFormula {
  readonly name: string;
  readonly order: number;
  readonly alpha: readonly string[];
  readonly beta: readonly string[];
  readonly next: string;
  readonly constant: string;
}

/** A method of rows `c a_1 a_2 ...` and weights. */
function tableau(name: string, order: number, rows: readonly string[], weights: string): PublishedTableau {
  const table = rows.map((row) => row.split(' '));
  return {
    name,
    order,
    c: table.map(([c = '0']) => c),
    A: table.map(([, ...a]) => a),
    b: weights.split(' '),
  };
}

/** An explicit method: its first row is a zero. */
function explicit(name: string, order: number, rows: readonly string[], weights: string): PublishedTableau {
  return tableau(name, order, ['0', ...rows], weights);
}

/**
 * Explicit methods. Sources: E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993),
 * chapter II; J. C. Butcher, Numerical Methods for Ordinary Differential Equations (3rd ed., 2016), chapter 3; S. Gottlieb,
 * D. Ketcheson, C.-W. Shu, Strong Stability Preserving Runge-Kutta and Multistep Time Discretizations (2011).
 */
export const EXPLICIT: readonly PublishedTableau[] = [
  explicit('Euler', 1, [], '1'),
  explicit('midpoint (Runge)', 2, ['1/2 1/2'], '0 1'),
  explicit('Heun', 2, ['1 1'], '1/2 1/2'),
  explicit('Ralston, order 2', 2, ['2/3 2/3'], '1/4 3/4'),
  explicit('Kutta, order 3', 3, ['1/2 1/2', '1 -1 2'], '1/6 2/3 1/6'),
  explicit('Heun, order 3', 3, ['1/3 1/3', '2/3 0 2/3'], '1/4 0 3/4'),
  explicit('Ralston, order 3', 3, ['1/2 1/2', '3/4 0 3/4'], '2/9 1/3 4/9'),
  explicit('Nystrom, order 3', 3, ['2/3 2/3', '2/3 0 2/3'], '1/4 3/8 3/8'),
  explicit('Wray, order 3', 3, ['8/15 8/15', '2/3 1/4 5/12'], '1/4 0 3/4'),
  explicit('SSP(3,3)', 3, ['1 1', '1/2 1/4 1/4'], '1/6 1/6 2/3'),
  explicit('SSP(3,2)', 2, ['1/2 1/2', '1 1/2 1/2'], '1/3 1/3 1/3'),
  explicit('SSP(4,3)', 3, ['1/2 1/2', '1 1/2 1/2', '1/2 1/6 1/6 1/6'], '1/6 1/6 1/6 1/2'),
  explicit('Kutta, order 4', 4, ['1/2 1/2', '1/2 0 1/2', '1 0 0 1'], '1/6 1/3 1/3 1/6'),
  explicit('Kutta, 3/8', 4, ['1/3 1/3', '2/3 -1/3 1', '1 1 -1 1'], '1/8 3/8 3/8 1/8'),
  explicit(
    'Gill',
    4,
    ['1/2 1/2', '1/2 (sqrt(2)-1)/2 (1-sqrt(2)/2)', '1 0 -sqrt(2)/2 (1+sqrt(2)/2)'],
    '1/6 (2-sqrt(2))/6 (2+sqrt(2))/6 1/6',
  ),
  explicit('England', 4, ['1/2 1/2', '1/2 1/4 1/4', '1 0 -1 2'], '1/6 0 2/3 1/6'),
  explicit('Merson', 4, ['1/3 1/3', '1/3 1/6 1/6', '1/2 1/8 0 3/8', '1 1/2 0 -3/2 2'], '1/6 0 0 2/3 1/6'),
  explicit(
    'Fehlberg 4',
    4,
    ['1/4 1/4', '3/8 3/32 9/32', '12/13 1932/2197 -7200/2197 7296/2197', '1 439/216 -8 3680/513 -845/4104'],
    '25/216 0 1408/2565 2197/4104 -1/5',
  ),
  explicit(
    'Fehlberg 5',
    5,
    [
      '1/4 1/4',
      '3/8 3/32 9/32',
      '12/13 1932/2197 -7200/2197 7296/2197',
      '1 439/216 -8 3680/513 -845/4104',
      '1/2 -8/27 2 -3544/2565 1859/4104 -11/40',
    ],
    '16/135 0 6656/12825 28561/56430 -9/50 2/55',
  ),
  explicit(
    'Cash and Karp 5',
    5,
    [
      '1/5 1/5',
      '3/10 3/40 9/40',
      '3/5 3/10 -9/10 6/5',
      '1 -11/54 5/2 -70/27 35/27',
      '7/8 1631/55296 175/512 575/13824 44275/110592 253/4096',
    ],
    '37/378 0 250/621 125/594 0 512/1771',
  ),
  explicit(
    'Dormand and Prince 5',
    5,
    [
      '1/5 1/5',
      '3/10 3/40 9/40',
      '4/5 44/45 -56/15 32/9',
      '8/9 19372/6561 -25360/2187 64448/6561 -212/729',
      '1 9017/3168 -355/33 46732/5247 49/176 -5103/18656',
    ],
    '35/384 0 500/1113 125/192 -2187/6784 11/84',
  ),
  explicit(
    'Dormand and Prince 4',
    4,
    [
      '1/5 1/5',
      '3/10 3/40 9/40',
      '4/5 44/45 -56/15 32/9',
      '8/9 19372/6561 -25360/2187 64448/6561 -212/729',
      '1 9017/3168 -355/33 46732/5247 49/176 -5103/18656',
      '1 35/384 0 500/1113 125/192 -2187/6784 11/84',
    ],
    '5179/57600 0 7571/16695 393/640 -92097/339200 187/2100 1/40',
  ),
  explicit(
    'Kutta and Nystrom 5',
    5,
    ['1/3 1/3', '2/5 4/25 6/25', '1 1/4 -3 15/4', '2/3 2/27 10/9 -50/81 8/81', '4/5 2/25 12/25 2/15 8/75'],
    '23/192 0 125/192 0 -27/64 125/192',
  ),
  explicit(
    'Butcher 5',
    5,
    ['1/4 1/4', '1/4 1/8 1/8', '1/2 0 -1/2 1', '3/4 3/16 0 0 9/16', '1 -3/7 2/7 12/7 -12/7 8/7'],
    '7/90 0 16/45 2/15 16/45 7/90',
  ),
];

/** Implicit methods. Source: E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), chapter IV. */
export const IMPLICIT: readonly PublishedTableau[] = [
  tableau('backward Euler (Radau IIA 1)', 1, ['1 1'], '1'),
  tableau('implicit midpoint (Gauss 1)', 2, ['1/2 1/2'], '1'),
  tableau('trapezoidal rule (Lobatto IIIA 2)', 2, ['0 0 0', '1 1/2 1/2'], '1/2 1/2'),
  tableau('Gauss 2', 4, ['1/2-sqrt(3)/6 1/4 1/4-sqrt(3)/6', '1/2+sqrt(3)/6 1/4+sqrt(3)/6 1/4'], '1/2 1/2'),
  tableau(
    'Gauss 3',
    6,
    [
      '1/2-sqrt(15)/10 5/36 2/9-sqrt(15)/15 5/36-sqrt(15)/30',
      '1/2 5/36+sqrt(15)/24 2/9 5/36-sqrt(15)/24',
      '1/2+sqrt(15)/10 5/36+sqrt(15)/30 2/9+sqrt(15)/15 5/36',
    ],
    '5/18 4/9 5/18',
  ),
  tableau('Radau IA 2', 3, ['0 1/4 -1/4', '2/3 1/4 5/12'], '1/4 3/4'),
  tableau('Radau IIA 2', 3, ['1/3 5/12 -1/12', '1 3/4 1/4'], '3/4 1/4'),
  tableau(
    'Radau IIA 3',
    5,
    [
      '(4-sqrt(6))/10 (88-7*sqrt(6))/360 (296-169*sqrt(6))/1800 (-2+3*sqrt(6))/225',
      '(4+sqrt(6))/10 (296+169*sqrt(6))/1800 (88+7*sqrt(6))/360 (-2-3*sqrt(6))/225',
      '1 (16-sqrt(6))/36 (16+sqrt(6))/36 1/9',
    ],
    '(16-sqrt(6))/36 (16+sqrt(6))/36 1/9',
  ),
  tableau('Lobatto IIIA 3', 4, ['0 0 0 0', '1/2 5/24 1/3 -1/24', '1 1/6 2/3 1/6'], '1/6 2/3 1/6'),
  tableau('Lobatto IIIB 2', 2, ['0 1/2 0', '1 1/2 0'], '1/2 1/2'),
  tableau('Lobatto IIIB 3', 4, ['0 1/6 -1/6 0', '1/2 1/6 1/3 0', '1 1/6 5/6 0'], '1/6 2/3 1/6'),
  tableau('Lobatto IIIC 2', 2, ['0 1/2 -1/2', '1 1/2 1/2'], '1/2 1/2'),
  tableau('Lobatto IIIC 3', 4, ['0 1/6 -1/3 1/6', '1/2 1/6 5/12 -1/12', '1 1/6 2/3 1/6'], '1/6 2/3 1/6'),
  tableau(
    'SDIRK 2, L-stable',
    2,
    ['1-sqrt(2)/2 1-sqrt(2)/2 0', '1 sqrt(2)/2 1-sqrt(2)/2'],
    'sqrt(2)/2 1-sqrt(2)/2',
  ),
  tableau(
    'SDIRK 3 (Norsett, Crouzeix)',
    3,
    ['1/2+sqrt(3)/6 1/2+sqrt(3)/6 0', '1/2-sqrt(3)/6 -sqrt(3)/3 1/2+sqrt(3)/6'],
    '1/2 1/2',
  ),
  tableau(
    'TR-BDF2',
    2,
    ['0 0 0 0', '2-sqrt(2) 1-sqrt(2)/2 1-sqrt(2)/2 0', '1 sqrt(2)/4 sqrt(2)/4 1-sqrt(2)/2'],
    'sqrt(2)/4 sqrt(2)/4 1-sqrt(2)/2',
  ),
];

/** The slopes of an Adams formula over their common divisor: `3 -1 / 2`. */
function slopesOf(slopes: string): readonly string[] {
  const [numerators = '', divisor = '1'] = slopes.split(' / ');
  return numerators.split(' ').map((slope) => `${slope}/${divisor}`);
}

function adams(name: string, order: number, slopes: string, constant: string): PublishedFormula {
  return { name, order, alpha: ['1'], beta: slopesOf(slopes), next: '0', constant };
}

function moulton(name: string, order: number, slopes: string, constant: string): PublishedFormula {
  const [next = '0', ...beta] = slopesOf(slopes);
  return { name, order, alpha: ['1'], beta, next, constant };
}

function backward(order: number, divisor: number, values: string, slope: number): PublishedFormula {
  const alpha = values.split(' ').map((value) => `${value}/${divisor}`);
  return {
    name: `BDF ${order}`,
    order,
    alpha,
    beta: [],
    next: `${slope}/${divisor}`,
    constant: `-1/${order + 1}`,
  };
}

/**
 * Linear multistep formulas, with error constants over the sum of the weights. Source: E. Hairer, S. P. Norsett, G. Wanner,
 * Solving Ordinary Differential Equations I (2nd ed., 1993), sections III.1 and III.2.
 */
export const MULTISTEP: readonly PublishedFormula[] = [
  adams('Adams-Bashforth 2', 2, '3 -1 / 2', '5/12'),
  adams('Adams-Bashforth 3', 3, '23 -16 5 / 12', '3/8'),
  adams('Adams-Bashforth 4', 4, '55 -59 37 -9 / 24', '251/720'),
  adams('Adams-Bashforth 5', 5, '1901 -2774 2616 -1274 251 / 720', '95/288'),
  adams('Adams-Bashforth 6', 6, '4277 -7923 9982 -7298 2877 -475 / 1440', '19087/60480'),
  moulton('Adams-Moulton 3', 3, '5 8 -1 / 12', '-1/24'),
  moulton('Adams-Moulton 4', 4, '9 19 -5 1 / 24', '-19/720'),
  moulton('Adams-Moulton 5', 5, '251 646 -264 106 -19 / 720', '-3/160'),
  moulton('Adams-Moulton 6', 6, '475 1427 -798 482 -173 27 / 1440', '-863/60480'),
  backward(2, 3, '4 -1', 2),
  backward(3, 11, '18 -9 2', 6),
  backward(4, 25, '48 -36 16 -3', 12),
  backward(5, 137, '300 -300 200 -75 12', 60),
  backward(6, 147, '360 -450 400 -225 72 -10', 60),
  { name: 'leapfrog', order: 2, alpha: ['0', '1'], beta: ['2'], next: '0', constant: '1/6' },
  {
    name: 'Milne, predictor',
    order: 4,
    alpha: ['0', '0', '0', '1'],
    beta: ['8/3', '-4/3', '8/3'],
    next: '0',
    constant: '7/90',
  },
  {
    name: 'Milne and Simpson',
    order: 4,
    alpha: ['0', '1'],
    beta: ['4/3', '1/3'],
    next: '1/3',
    constant: '-1/180',
  },
  {
    name: 'Nystrom 3',
    order: 3,
    alpha: ['0', '1'],
    beta: ['7/3', '-2/3', '1/3'],
    next: '0',
    constant: '1/6',
  },
];

/** Linearly implicit methods. Source: Hairer and Wanner, section IV.7; J. G. Verwer et al., SIAM J. Sci. Comput. 20 (1999). */
export const ROSENBROCK: readonly {
  readonly name: string;
  readonly text: string;
  readonly order: number;
  /** With any matrix in place of the Jacobian. */
  readonly anyJacobian: number;
  readonly lStable: boolean;
}[] = [
  {
    name: 'Rosenbrock-Euler',
    text: 'J = f_y(t, y)\nT = f_t(t, y)\nsolve k1 = f(t, y) + h*J*k1 + h*T\ny[n+1] = y + h*k1',
    order: 1,
    anyJacobian: 1,
    lStable: true,
  },
  {
    name: 'linearly implicit midpoint, by division',
    text: 'y[n+1] = y + h*(f(t, y) + h/2*f_t(t, y))/(1 - h/2*f_y(t, y))',
    order: 2,
    anyJacobian: 1,
    lStable: false,
  },
  {
    name: 'ROS2',
    text: 'g = 1 + sqrt(2)/2\nJ = f_y(t, y)\nT = f_t(t, y)\nsolve k1 = f(t, y) + g*h*J*k1 + g*h*T\nsolve k2 = f(t + h, y + h*k1) - 2*k1 + g*h*J*k2 - g*h*T\ny[n+1] = y + 3*h/2*k1 + h/2*k2',
    order: 2,
    anyJacobian: 2,
    lStable: true,
  },
];
