import { methodTex } from '../../method/tex-method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { parseProblem } from '../../problem/parse-problem.ts';
import { problemTex } from '../../problem/tex-problem.ts';
import type { Reading, Repair } from '../../text/place.ts';

const METHOD_TAKEN: readonly (readonly [text: string, tex: readonly string[]])[] = [
  ['y{n+1} = y{n} + h f(t{n}, y{n})', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  ['y_(n+1) = y_n + h f(t_n, y_n)', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  ['Y_{n+1} = Y_n + h f(t_n, Y_n)', ['Y_{n+1} = Y_{n} + h f(t_{n}, Y_{n})']],
  ['w_{i+1} = w_i + h f(t_i, w_i)', ['w_{n+1} = w_{n} + h f(t_{n}, w_{n})']],
  ['y_{n+1} = y_n + h f_n', ['y_{n+1} = y_{n} + h f_{n}']],
  [
    'k_1 = f(t_n, y_n)\nk_2 = f(t_n + h/2, y_n + h/2 k_1)\ny_{n+1} = y_n + h k_2',
    [
      'k_{1} = f(t_{n}, y_{n})',
      'k_{2} = f\\left(t_{n} + \\frac{h}{2}, y_{n} + \\frac{h}{2} k_{1}\\right)',
      'y_{n+1} = y_{n} + h k_{2}',
    ],
  ],
  [
    'k1 = h f(t, y)\nk2 = h f(t + h/2, y + k1/2)\ny[n+1] = y + k2',
    [
      'k_{1} = h f(t, y)',
      'k_{2} = h f\\left(t + \\frac{h}{2}, y + \\frac{k_{1}}{2}\\right)',
      'y_{n+1} = y + k_{2}',
    ],
  ],
  [
    'k1 = f(t,y)\ny[n+1] = y + h/6(k1 + 2k1)',
    ['k_{1} = f(t, y)', 'y_{n+1} = y + \\frac{h}{6}\\,(k_{1} + 2 k_{1})'],
  ],
  [
    'k1 = f(t,y)\ny[n+1] = y + (h/6)(k1 + 2k1)',
    ['k_{1} = f(t, y)', 'y_{n+1} = y + \\frac{h}{6}\\,(k_{1} + 2 k_{1})'],
  ],
  ['y(i+1) = y(i) + h*f(t(i), y(i));', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  ['y[i+1] = y[i] + h * f(t[i], y[i]);', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  ['u[k+1] = u[k] + h*f(t[k], u[k])', ['u_{n+1} = u_{n} + h f(t_{n}, u_{n})']],
  ['y[n+1] = y + 1/2h*f(t, y)', ['y_{n+1} = y + \\frac{1}{2} h f(t, y)']],
  ['y[n + 1] = y + h*f(t, y)', ['y_{n+1} = y + h f(t, y)']],
  ['y[n+1] = y + h*f(t, y);;', ['y_{n+1} = y + h f(t, y)']],
  ['y[n+1] = y + h·f(t,y).', ['y_{n+1} = y + h f(t, y)']],
  ['y[n+1] = y + h*f(t, y), n = 0, 1, 2, ...', ['y_{n+1} = y + h f(t, y)']],
  ['y[n+1] = y + h*f(t, y) for n = 0..N-1', ['y_{n+1} = y + h f(t, y)']],
  ['\\[ y_{n+1} = y_n + h f(t_n, y_n) \\]', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  ['\\begin{align} y_{n+1} &= y_n + h f(t_n, y_n) \\end{align}', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  ['y_{n+1} &= y_n + h f(t_n, y_n) \\\\', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  [
    'k_1 &= f(t_n, y_n),\\\\\ny_{n+1} &= y_n + h k_1.',
    ['k_{1} = f(t_{n}, y_{n})', 'y_{n+1} = y_{n} + h k_{1}'],
  ],
  ['y_{n+1} = y_n + \\tfrac12 h f(t_n, y_n)', ['y_{n+1} = y_{n} + \\frac{1}{2} h f(t_{n}, y_{n})']],
  ['y_{n+1} = y_n + \\frac12 h f(t_n, y_n)', ['y_{n+1} = y_{n} + \\frac{1}{2} h f(t_{n}, y_{n})']],
  ['y_{n+1} = y_n + \\frac h2 f(t_n, y_n)', ['y_{n+1} = y_{n} + \\frac{h}{2} f(t_{n}, y_{n})']],
  ['y_{n+1} = y_n + {h \\over 2} f(t_n, y_n)', ['y_{n+1} = y_{n} + \\frac{h}{2} f(t_{n}, y_{n})']],
  [
    '\\mathbf{y}_{n+1} = \\mathbf{y}_n + h \\mathbf{f}(t_n, \\mathbf{y}_n)',
    ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})'],
  ],
  ['y_{n+1} = y_n + h \\, f ( t_n , y_n ) \\label{euler}', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  [
    '\\tilde{y} = y + h f(t, y)\ny[n+1] = y + h/2 (f(t,y) + f(t+h, \\tilde{y}))',
    [
      'y_{\\mathrm{tilde}} = y + h f(t, y)',
      'y_{n+1} = y + \\frac{h}{2}\\,(f(t, y) + f(t + h, y_{\\mathrm{tilde}}))',
    ],
  ],
  ['ŷ = y + h*f(t, y)\ny[n+1] = ŷ', ['y_{\\mathrm{hat}} = y + h f(t, y)', 'y_{n+1} = y_{\\mathrm{hat}}']],
  ['k₁ = f(t, y)\ny[n+1] = y + h k₁', ['k_{1} = f(t, y)', 'y_{n+1} = y + h k_{1}']],
  ['yₙ₊₁ = yₙ + h f(tₙ, yₙ)', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  ['w0 = y0\nw[i+1] = w[i] + h*f(t[i], w[i])', ['w_{n+1} = w_{n} + h f(t_{n}, w_{n})']],
  [
    'k1 = f(t,y)\ny[n+1] = y + h[k1 + k1]/2',
    ['k_{1} = f(t, y)', 'y_{n+1} = y + \\frac{h\\,(k_{1} + k_{1})}{2}'],
  ],
  ['y = y + h*f(t, y)', ['y_{n+1} = y + h f(t, y)']],
  ['ynew = y + h*f(t, y)', ['y_{n+1} = y + h f(t, y)']],
  ['yn1 = yn + h*f(tn, yn)', ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})']],
  ['y_next = y + h*f(t, y)', ['y_{n+1} = y + h f(t, y)']],
  ['w_0 = alpha\nw_{i+1} = w_i + h f(t_i, w_i)', ['w_{n+1} = w_{n} + h f(t_{n}, w_{n})']],
  [
    'w_{i+1} = w_i + h/24 [55 f_i - 59 f_{i-1} + 37 f_{i-2} - 9 f_{i-3}]',
    ['w_{n+1} = w_{n} + \\frac{h}{24}\\,(55 f_{n} - 59 f_{n-1} + 37 f_{n-2} - 9 f_{n-3})'],
  ],
  ['k1 = f(t, y)\ny = y + h*k1', ['k_{1} = f(t, y)', 'y_{n+1} = y + h k_{1}']],
  ['y_new = y_old + h*f(t_old, y_old)', ['y_{n+1} = y + h f(t, y)']],
  [
    'x_new = x + h*v\nv_new = v + h*a(t + h, x_new, v)',
    ['x_{n+1} = x + h v', 'v_{n+1} = v + h a(t + h, x_{n+1}, v)'],
  ],
  [
    "y[n+1] = y + h*T2\nT2 = f(t, y) + h/2*f'(t, y)",
    ["T_{2} = f(t, y) + \\frac{h}{2} f'(t, y)", 'y_{n+1} = y + h T_{2}'],
  ],
  [
    "w_{i+1} = w_i + h T^{(2)}(t_i, w_i)\nT^{(2)}(t, y) = f(t, y) + h/2 f'(t, y)",
    ["w_{n+1} = w_{n} + h\\,\\left(f(t_{n}, w_{n}) + \\frac{h}{2} f'(t_{n}, w_{n})\\right)"],
  ],
];

const METHOD_TOLD: readonly (readonly [text: string, told: readonly string[], mended: string | null])[] = [
  [
    'y_n+1 = y_n + h f(t_n, y_n)',
    ['1:1 y_n+1 is ambiguous: write y[n+1] or y[n] + 1'],
    'y[n+1] = y_n + h f(t_n, y_n)',
  ],
  [
    'y^{n+1} = y^n + h f(t^n, y^n)',
    ['1:1 an index goes in square brackets, as in y[n+1]; ^ is a power'],
    'y[n+1] = y[n] + h f(t[n], y[n])',
  ],
  [
    'y_1 = y_0 + h f(t_0, y_0)',
    ['1:7 y_0 is not known; a method is written for one step, from y[n] at t[n] to y[n+1]'],
    'y_1 = y[n] + h f(t[n], y[n])',
  ],
  [
    'y1 = y0 + h*f(t0, y0)',
    ['1:6 y0 is not known; a method is written for one step, from y[n] at t[n] to y[n+1]'],
    'y1 = y[n] + h*f(t[n], y[n])',
  ],
  [
    'y[1] = y[0] + h*f(t[0], y[0])',
    ['1:1 write one general step: y[n+1] on the left, y[n] on the right'],
    'y[n+1] = y[n] + h*f(t[n], y[n])',
  ],
  [
    "y_{n+1} = y_n + h y'_n",
    ['1:19 the slope at a grid point is written f[n], or f(t, y)'],
    'y_{n+1} = y_n + h f[n]',
  ],
  [
    "y[n+1] = y[n] + h*y'[n]",
    ['1:19 the slope at a grid point is written f[n], or f(t, y)'],
    'y[n+1] = y[n] + h*f[n]',
  ],
  [
    'y_{n+1} = y_n + Δt f(t_n, y_n)',
    ['1:17 Δt is not known; the step size is written h'],
    'y_{n+1} = y_n + h f(t_n, y_n)',
  ],
  [
    'y[n+1] = y[n] + dt*f(t[n], y[n])',
    ['1:17 dt is not known; the step size is written h'],
    'y[n+1] = y[n] + h*f(t[n], y[n])',
  ],
  [
    'y[n+1] = y[n] + \\Delta t f(t[n], y[n])',
    ['1:17 Delta is not known; the step size is written h'],
    'y[n+1] = y[n] + h t f(t[n], y[n])',
  ],
  [
    'y[n+1] = y[n] + k*f(t[n], y[n])',
    ['1:17 k is not known; define it on a line above, such as k = f(t, y)'],
    null,
  ],
  [
    'K1 = f(t, y)\ny[n+1] = y + h*k1',
    ['2:16 k1 is not known, but K1 is; names are case-sensitive'],
    'K1 = f(t, y)\ny[n+1] = y + h*K1',
  ],
  [
    'k1 = f(t,y)\ny[n+1] = y + hk1',
    ['2:14 hk1 is not known; to multiply write h*k1'],
    'k1 = f(t,y)\ny[n+1] = y + h*k1',
  ],
  [
    'k1 = f(t,y)\ny[n+1] = y + h(k1 + k1)/2',
    ['2:14 h is not a function; to multiply write h*(k1+k1)'],
    'k1 = f(t,y)\ny[n+1] = y + h*(k1 + k1)/2',
  ],
  [
    'k1 = f(t,y)\ny[n+1] = y + h{k1 + k1}/2',
    ['2:14 h is not a function; to multiply write h*(k1+k1)'],
    'k1 = f(t,y)\ny[n+1] = y + h*{k1 + k1}/2',
  ],
  [
    'k1 := f(t, y)\ny[n+1] = y + h*k1',
    ['1:4 an equation is written with =, not with :='],
    'k1 = f(t, y)\ny[n+1] = y + h*k1',
  ],
  [
    'k1 <- f(t, y)\ny[n+1] <- y + h*k1',
    ['1:4 an equation is written with =, not with <-', '2:8 an equation is written with =, not with <-'],
    'k1 = f(t, y)\ny[n+1] = y + h*k1',
  ],
  [
    'k1 ← f(t, y)\ny[n+1] ← y + h*k1',
    ['1:4 an equation is written with =, not with ←', '2:8 an equation is written with =, not with ←'],
    'k1 = f(t, y)\ny[n+1] = y + h*k1',
  ],
  [
    'k1 == f(t, y)\ny[n+1] = y + h*k1',
    ['1:4 an equation is written with =, not with =='],
    'k1 = f(t, y)\ny[n+1] = y + h*k1',
  ],
  ['y += h*f(t, y)', ['1:1 the new value is written y[n+1] = y + ...'], 'y[n+1] = y + h*f(t, y)'],
  [
    'for i in range(n): y[i+1] = y[i] + h*f(t[i], y[i])',
    ['1:1 a method is one step from t to t + h; the loop is automatic, so keep only the step'],
    ' y[i+1] = y[i] + h*f(t[i], y[i])',
  ],
  [
    'for i = 1:n\ny(i+1) = y(i) + h*f(t(i), y(i))\nend',
    ['1:1 a method is one step from t to t + h; the loop is automatic, so keep only the step'],
    '\ny(i+1) = y(i) + h*f(t(i), y(i))\nend',
  ],
  [
    'for (int i = 0; i < n; i++) y[i+1] = y[i] + h*f(t[i], y[i]);',
    ['1:1 a method is one step from t to t + h; the loop is automatic, so keep only the step'],
    'y[i+1] = y[i] + h*f(t[i], y[i]);',
  ],
  [
    'do i = 1, n\n y(i+1) = y(i) + h*f(t(i), y(i))\nend do',
    ['1:1 a method is one step from t to t + h; the loop is automatic, so keep only the step'],
    '\n y(i+1) = y(i) + h*f(t(i), y(i))\nend do',
  ],
  [
    'def step(t, y, h): return y + h*f(t, y)',
    ['1:1 a method is written as its step: y[n+1] = ...'],
    'y[n+1] = y + h*f(t, y)',
  ],
  ['return y + h*f(t, y)', ['1:1 the new value is written y[n+1] = ...'], 'y[n+1] = y + h*f(t, y)'],
  [
    'double k1 = f(t, y);\ny[n+1] = y + h*k1;',
    ['1:1 start the line with its name, without double'],
    'k1 = f(t, y);\ny[n+1] = y + h*k1;',
  ],
  [
    'let k1 = f(t, y);\ny[n+1] = y + h*k1',
    ['1:1 start the line with its name, without let'],
    'k1 = f(t, y);\ny[n+1] = y + h*k1',
  ],
  [
    'var k1 = f(t, y)\ny[n+1] = y + h*k1',
    ['1:1 start the line with its name, without var'],
    'k1 = f(t, y)\ny[n+1] = y + h*k1',
  ],
  [
    'const double k1 = f(t, y);\ny[n+1] = y + h*k1',
    ['1:1 start the line with its name, without const double'],
    'k1 = f(t, y);\ny[n+1] = y + h*k1',
  ],
  [
    'k1 = feval(f, t, y)\ny[n+1] = y + h*k1',
    ['1:6 the right-hand side is written f(t, y)'],
    'k1 = f( t, y)\ny[n+1] = y + h*k1',
  ],
  [
    'k1 = f(t, y)  % slope\ny[n+1] = y + h*k1',
    ['1:15 a comment begins with #; a remainder is written mod(a, b)'],
    'k1 = f(t, y)  # slope\ny[n+1] = y + h*k1',
  ],
  [
    'k1 = f(t, y)  // slope\ny[n+1] = y + h*k1',
    ['1:15 a comment begins with #'],
    'k1 = f(t, y)  # slope\ny[n+1] = y + h*k1',
  ],
  [
    'k1 = f(t, y)  ! slope\ny[n+1] = y + h*k1',
    ['1:15 a comment begins with #'],
    'k1 = f(t, y)  # slope\ny[n+1] = y + h*k1',
  ],
  [
    '/* Euler */\ny[n+1] = y + h*f(t, y)',
    ['1:1 a comment begins with #'],
    '# Euler */\ny[n+1] = y + h*f(t, y)',
  ],
  [
    'k1 = f(t, y);\nk2 = f(t + 0.5*h, y + 0.5*h*k1);\ny[n+1] = y + h .* k2',
    ['3:16 operations are written without a point: *'],
    'k1 = f(t, y);\nk2 = f(t + 0.5*h, y + 0.5*h*k1);\ny[n+1] = y + h * k2',
  ],
  ['y[n+1] = y + 1.0d0*h*f(t, y)', ['1:17 d0 is not known; a power of ten is written e0, as in 1.5e0'], null],
  ['y[n+1] = y + 0.5f*h*f(t, y)', ['1:14 a number is written without f: 0.5'], 'y[n+1] = y + 0.5*h*f(t, y)'],
  ['y[n+1] = y + h**2*f(t,y)', ['1:15 a power is written ^, not **'], 'y[n+1] = y + h^2*f(t,y)'],
  ['y[n+1] = y + Math.pow(h, 2)*f(t,y)', ['1:14 write functions without Math.'], 'y[n+1] = y + h^2*f(t,y)'],
  ['y[n+1] = y + pow(h,2)*f(t,y)', ['1:14 a power is written h^2'], 'y[n+1] = y + h^2*f(t,y)'],
  ['y[n+1] = y + math.sqrt(h)*f(t,y)', ['1:14 write functions without math.'], 'y[n+1] = y + sqrt(h)*f(t,y)'],
  ['y[n+1] = y + np.sqrt(h)*f(t,y)', ['1:14 write functions without np.'], 'y[n+1] = y + sqrt(h)*f(t,y)'],
  [
    't = t + h\ny[n+1] = y + h*f(t, y)',
    ['1:1 t advances by h automatically; remove this line'],
    '\ny[n+1] = y + h*f(t, y)',
  ],
  [
    'y[n+1] = y + h*f(t, y)\nt = t + h',
    ['2:1 t advances by h automatically; remove this line'],
    'y[n+1] = y + h*f(t, y)\n',
  ],
  [
    'h = 0.1\ny[n+1] = y + h*f(t, y)',
    ['1:1 the step size h is chosen in the study; remove this line'],
    '\ny[n+1] = y + h*f(t, y)',
  ],
  [
    'y[n+1] = y + h*f(t, y)\nt[n+1] = t[n] + h',
    ['2:1 t advances by h automatically; remove this line'],
    'y[n+1] = y + h*f(t, y)\n',
  ],
  [
    'y[n+1] = y + h*f(y, t)',
    ['1:18 the first argument of f is a time such as t + h; the value comes second: f(t, y)'],
    'y[n+1] = y + h*f(t, y)',
  ],
  ['y[n+1] = y + h*f(y)', ['1:16 f takes the time and the value: f(t, y)'], null],
  [
    'y[n+1] = y + h*f',
    ['1:16 f needs its arguments: write f(t, y), or f[n] for the stored value'],
    'y[n+1] = y + h*f(t, y)',
  ],
  ['y[n+1] = y + h*f(t[n])', ['1:16 f takes the time and the value: f(t, y)'], null],
  [
    '=B2+$D$1*C2',
    ['1:1 a line starts with a name, as in k1 = f(t, y); spreadsheet cells are not allowed here'],
    null,
  ],
  [
    '=y+h*f(t;y)',
    ['1:1 a line starts with a name, as in k1 = f(t, y); spreadsheet cells are not allowed here'],
    null,
  ],
  [
    'y[n+1] = y + h*f(t; y)',
    ['1:19 separate the arguments of a function by commas'],
    'y[n+1] = y + h*f(t, y)',
  ],
  [
    'y[n+1] = y + 0,5*h*f(t, y)',
    ['1:14 use a decimal point, not a comma: write 0.5'],
    'y[n+1] = y + 0.5*h*f(t, y)',
  ],
  ['y[n+1] = y + h*f(t, y', ['1:17 this bracket is not closed: a ) is missing'], null],
  ['y[n+1] = y + h*f(t, y))', ['1:23 unmatched )'], null],
  ['y[n+1] = y + h*f(t y)', ['1:16 f takes the time and the value: f(t, y)'], null],
  ['y[n+1] y + h*f(t, y)', ['1:1 an = is missing: a line is written k1 = ... or y[n+1] = ...'], null],
  ['y[n+1] = = y + h*f(t, y)', ['1:10 a statement has only one ='], null],
  ['y[n+1] = y + h f t, y', ['1:19 a comma is allowed only between the arguments of a function'], null],
  [
    'y[n+1] = y + h*F(t, y)',
    ['1:16 F is not known, but f is; names are case-sensitive'],
    'y[n+1] = y + h*f(t, y)',
  ],
  [
    'Y[n+1] = y + h*f(t, y)',
    ['1:1 Y is not known, but y is; names are case-sensitive'],
    'y[n+1] = y + h*f(t, y)',
  ],
  [
    'y[n+2] = y[n+1] + h*f(t, y)',
    ['1:1 a method computes y[n+1]; decrease every index by 1'],
    'y[n+1] = y[n] + h*f(t, y)',
  ],
  [
    'y[n] = y[n-1] + h*f(t[n-1], y[n-1])',
    ['1:1 a method computes y[n+1]; increase every index by one'],
    'y[n+1] = y[n] + h*f(t[n], y[n])',
  ],
  [
    'y[n+1] = y[n] + h*f[n+1]',
    ['1:19 f at the new point is written f(t + h, y[n+1]) or with another value in place of y[n+1]'],
    null,
  ],
  [
    'y[n+1] = y[n] + h*f(t[n+1], y[n+1])',
    [
      '1:29 y[n+1] is not known yet; define it above, or write solve y[n+1] = ... if it is defined implicitly',
    ],
    'solve y[n+1] = y[n] + h*f(t[n+1], y[n+1])',
  ],
  [
    'y_{n + 1/2} = y_n + h/2 f(t_n, y_n)\ny_{n+1} = y_n + h f(t_n + h/2, y_{n+1/2})',
    [
      '1:1 an intermediate value needs a name of its own, such as ymid',
      '2:32 an intermediate value needs a name of its own, such as ymid',
    ],
    'ymid = y_n + h/2 f(t_n, y_n)\ny_{n+1} = y_n + h f(t_n + h/2, ymid)',
  ],
  [
    'y* = y + h*f(t, y)\ny[n+1] = y*',
    [
      '1:1 a name consists of letters, digits and _: write ystar',
      '2:10 a name consists of letters, digits and _: write ystar',
    ],
    'ystar = y + h*f(t, y)\ny[n+1] = ystar',
  ],
  [
    'p[n+1] = y + h*f(t, y)\ny[n+1] = y + h/2*(f(t,y) + f(t+h, p[n+1]))',
    ['1:1 p is a value of this step; write it without an index'],
    'p = y + h*f(t, y)\ny[n+1] = y + h/2*(f(t,y) + f(t+h, p))',
  ],
  [
    'Euler: y[n+1] = y + h*f(t, y)',
    ['1:1 put a label after #, at the end of the line'],
    'y[n+1] = y + h*f(t, y)',
  ],
  [
    '(1) y[n+1] = y + h*f(t, y)',
    ['1:1 put a label after #, at the end of the line'],
    'y[n+1] = y + h*f(t, y)',
  ],
  [
    "y[n+1] = y + h*y' + h^2/2*y''",
    ["1:16 y' is written f(t, y) in a method"],
    "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)",
  ],
  [
    'x[n+1] = x + h*v\nv[n+1] = v + h f(t, x)',
    ['2:16 in a method for x and v the right-hand side is the acceleration: write a(t, x, v)'],
    'x[n+1] = x + h*v\nv[n+1] = v + h a(t, x, v)',
  ],
  [
    'y = y + h/2*f(t, y)\ny = y + h/2*f(t, y)',
    ['1:1 the new value is written y[n+1] = ...', '2:1 the new value is written y[n+1] = ...'],
    null,
  ],
  [
    'y[n+1] = y + h*T(t)\nT(t, y) = h*f(t, y)',
    [
      '1:16 T takes the time and the value: T(t, y)',
      '2:11 h is not known in T(t, y), which may contain t, y and numbers defined above, such as h = 1; parameters of the problem are not available here',
    ],
    null,
  ],
];

const PROBLEM_TAKEN: readonly (readonly [text: string, tex: readonly string[]])[] = [
  ["y'=-y\ny(0) = 1\n0 <= t <= 2", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' + y = 0\ny(0) = 1\n0 <= t <= 2", ["y' + y = 0", 'y(0) = 1', '0 \\le t \\le 2']],
  ['y′ = −y\ny(0) = 1\n0 <= t <= 2', ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ['ẏ = -y\ny(0) = 1\n0 <= t <= 2', ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ['dy/dt + y = 0\ny(0) = 1\n0 <= t <= 2', ["y' + y = 0", 'y(0) = 1', '0 \\le t \\le 2']],
  ['d/dt y = -y\ny(0) = 1\n0 <= t <= 2', ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y'(t) = -y(t)\ny(0) = 1\n0 <= t <= 2", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ['f(t,y) = -y\ny(0) = 1\n0 <= t <= 2', ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -k y, k = 2\ny(0) = 1\n0 <= t <= 2", ["y' = -k y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -2y\ny(0) = 1\n0 <= t <= 2", ["y' = -2 y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -2 y t\ny(0) = 1\n0 <= t <= 2", ["y' = -2 y t", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = sin(2t)\ny(0) = 1\n0 <= t <= 2", ["y' = \\sin 2 t", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = sin(t)^2\ny(0) = 1\n0 <= t <= 2", ["y' = \\sin^{2} t", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = e^-t\ny(0) = 1\n0 <= t <= 2", ["y' = e^{-t}", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = e^{-t}\ny(0) = 1\n0 <= t <= 2", ["y' = e^{-t}", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = exp(-t)\ny(0) = 1\n0 <= t <= 2", ["y' = e^{-t}", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = y^1/2\ny(0) = 1\n0 <= t <= 2", ["y' = \\frac{y^{1}}{2}", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = y^2 t\ny(0) = 1\n0 <= t <= 2", ["y' = y^{2} t", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -y;\ny(0) = 1\n0 <= t <= 2", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = 3 × 10^-2 y\ny(0) = 1\n0 <= t <= 2", ["y' = 3 \\cdot 10^{-2} y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = 3e-2y\ny(0) = 1\n0 <= t <= 2", ["y' = 0.03 y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = 3*10^-2*y\ny(0) = 1\n0 <= t <= 2", ["y' = 3 \\cdot 10^{-2} y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = {1 - y}*t\ny(0) = 1\n0 <= t <= 2", ["y' = (1 - y) t", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = (1-y)(1+y)\ny(0) = 1\n0 <= t <= 2", ["y' = (1 - y) (1 + y)", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = 2(1-y)\ny(0) = 1\n0 <= t <= 2", ["y' = 2 (1 - y)", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y'' = -y\ny'(0) = 0\ny(0) = 1\n0 <= t <= 2", ["y'' = -y", "y'(0) = 0", 'y(0) = 1', '0 \\le t \\le 2']],
  [
    "x' = y\ny' = -x\nx(0) = 0\ny(0) = 1\n0 <= t <= 2",
    ["x' = y", "y' = -x", 'x(0) = 0', 'y(0) = 1', '0 \\le t \\le 2'],
  ],
  [
    "x' = y, y' = -x\nx(0) = 0\ny(0) = 1\n0 <= t <= 2",
    ["x' = y", "y' = -x", 'x(0) = 0', 'y(0) = 1', '0 \\le t \\le 2'],
  ],
  ["y' = t²\ny(0) = 1\n0 <= t <= 2", ["y' = t^{2}", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = \\frac{t}{y}\ny(0) = 1\n0 <= t <= 2", ["y' = \\frac{t}{y}", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = t/2y\ny(0) = 1\n0 <= t <= 2", ["y' = \\frac{t}{2} y", 'y(0) = 1', '0 \\le t \\le 2']],
  [
    "y' = \\lambda y\n\\lambda = -2\ny(0) = 1\n0 <= t <= 2",
    ["y' = \\lambda y", 'y(0) = 1', '0 \\le t \\le 2'],
  ],
  ["lambda = -2\ny' = lambda*y\ny(0) = 1\n0 <= t <= 2", ["y' = \\lambda y", 'y(0) = 1', '0 \\le t \\le 2']],
  [
    "y' = -0.5y + 2sin(3t)\ny(0) = 1\n0 <= t <= 2",
    ["y' = -0.5 y + 2 \\sin 3 t", 'y(0) = 1', '0 \\le t \\le 2'],
  ],
  ["y' = -y^3 + t·y\ny(0) = 1\n0 <= t <= 2", ["y' = -y^{3} + t y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -y\ny(0)=1, 0<=t<=2", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -y, y(0) = 1, t in [0, 2]", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -y\ny(t0) = 1\nt0 = 0\n0 <= t <= 2", ["y' = -y", 'y(t_{0}) = 1', '0 \\le t \\le 2']],
  ["y' = -y\ny(0) = 1\nt ∈ [0, 2]", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -y\ny(0) = 1\n0 < t < 2", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -y\ny(0) = 1\n0 ≤ t ≤ 2", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  [
    "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = e^(-t)",
    ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2', 'y(t) = e^{-t}'],
  ],
  ["y' = -y\ny(0) = 1\n0 <= t <= 2\nh = 0.1", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -y\ny(0) = 1\n0 <= t <= 2\nN = 20", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = x - y\ny(0) = 1\n0 <= x <= 2", ["y' = x - y", 'y(0) = 1', '0 \\le x \\le 2']],
  ['dy/dx = x - y\ny(0) = 1\n0 <= x <= 2', ["y' = x - y", 'y(0) = 1', '0 \\le x \\le 2']],
  ["y'(x) = x - y(x)\ny(0) = 1\n0 <= x <= 2", ["y' = x - y", 'y(0) = 1', '0 \\le x \\le 2']],
  ["y(0) = 1\nt from 0 to 2\ny' = t - 2y", ["y' = t - 2 y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = sin t\ny(0) = 1\n0 <= t <= 2", ["y' = \\sin t", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = sin 2t\ny(0) = 1\n0 <= t <= 2", ["y' = \\sin 2 t", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = sin^2(t)\ny(0) = 1\n0 <= t <= 2", ["y' = \\sin^{2} t", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = exp -t\ny(0) = 1\n0 <= t <= 2", ["y' = e^{-t}", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = ln t + 1\ny(0) = 1\n0 <= t <= 2", ["y' = \\ln t + 1", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = |y|\ny(0) = 1\n0 <= t <= 2", ["y' = \\left|y\\right|", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = [1 - y]*t\ny(0) = 1\n0 <= t <= 2", ["y' = (1 - y) t", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = sqrt y\ny(0) = 1\n0 <= t <= 2", ["y' = \\sqrt{y}", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -y\ny(0) = 1\nt = 0..2", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  [
    "y' = -y\ny(0) = 1\n0 <= t <= 2\nexact: y = exp(-t)",
    ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2', 'y(t) = e^{-t}'],
  ],
  ["y' = -y with y(0) = 1\n0 <= t <= 2", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  ["y' = -y for 0 <= t <= 2\ny(0) = 1", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
  [
    "y' = cos 2t + sin 3t\ny(0) = 1\n0 <= t <= 2",
    ["y' = \\cos 2 t + \\sin 3 t", 'y(0) = 1', '0 \\le t \\le 2'],
  ],
  ["y' = t ln t\ny(1) = 1\n1 <= t <= 2", ["y' = t\\,\\ln t", 'y(1) = 1', '1 \\le t \\le 2']],
  ["y' = -y\ny(0) = -1/ln 2\n0 <= t <= 2", ["y' = -y", 'y(0) = -\\frac{1}{\\ln(2)}', '0 \\le t \\le 2']],
  ["y' = sin t cos y\ny(0) = 1\n0 <= t <= 2", ["y' = \\sin t\\,\\cos y", 'y(0) = 1', '0 \\le t \\le 2']],
  [
    "y' = 2 sin^2 t cos 3t\ny(0) = 1\n0 <= t <= 2",
    ["y' = 2 \\sin^{2} t\\,\\cos 3 t", 'y(0) = 1', '0 \\le t \\le 2'],
  ],
  [
    "y' = sin pi t - exp -2t^2\ny(0) = 1\n0 <= t <= 2",
    ["y' = \\sin \\pi t - e^{-2 t^{2}}", 'y(0) = 1', '0 \\le t \\le 2'],
  ],
  ["y' = 2[t - {1 + y}]\ny(0) = 1\n0 <= t <= 2", ["y' = 2 (t - (1 + y))", 'y(0) = 1', '0 \\le t \\le 2']],
  [
    "y' = -|y| + 2|t - |y||\ny(0) = 1\n0 <= t <= 2",
    ["y' = -\\left|y\\right| + 2 \\left|t - \\left|y\\right|\\right|", 'y(0) = 1', '0 \\le t \\le 2'],
  ],
  [
    "y' = ln |y|/3 + t|y|\ny(0) = 1\n0 <= t <= 2",
    ["y' = \\frac{\\ln(\\left|y\\right|)}{3} + t \\left|y\\right|", 'y(0) = 1', '0 \\le t \\le 2'],
  ],
  ["y'' = -y\ny(0) = y'(0) = 0\n0 <= t <= 2", ["y'' = -y", 'y(0) = 0', "y'(0) = 0", '0 \\le t \\le 2']],
  ["y' = -y\ny(0) = 1\non [0, 10]", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 10']],
  ["y' = -y, y(0) = 1 on [0, 10]", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 10']],
  [
    "y' = -y, y(0) = 1, 0 <= t <= 2, exact: y = exp(-t)",
    ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2', 'y(t) = e^{-t}'],
  ],
  [
    'dy/dx = x y^2, y(0) = 1 on [0, 1/2], exact: y = 2/(2 - x^2)',
    ["y' = x y^{2}", 'y(0) = 1', '0 \\le x \\le \\frac{1}{2}', 'y(x) = \\frac{2}{2 - x^{2}}'],
  ],
  ["y' = x*y, y(0) = 1, x = 0..2", ["y' = x y", 'y(0) = 1', '0 \\le x \\le 2']],
  ["y' = -y for t in [0, 2]\ny(0) = 1", ["y' = -y", 'y(0) = 1', '0 \\le t \\le 2']],
];

const PROBLEM_TOLD: readonly (readonly [text: string, told: readonly string[], mended: string | null])[] = [
  [
    'Dy = -y\ny(0) = 1\n0 <= t <= 2',
    ["1:1 an equation is written y' = ..."],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    'y_t = -y\ny(0) = 1\n0 <= t <= 2',
    ["1:1 an equation is written y' = ..."],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = f(t, y)\ny(0) = 1\n0 <= t <= 2",
    ["1:6 f is the right-hand side in a method; in a problem, write the equation, as in y' = t - 2*y"],
    null,
  ],
  [
    'f = -y\ny(0) = 1\n0 <= t <= 2',
    ["1:1 the equation is written y' = ..., or f(t, y) = ..."],
    'f(t, y) = -y\ny(0) = 1\n0 <= t <= 2',
  ],
  [
    "y' := -y\ny(0) = 1\n0 <= t <= 2",
    ['1:4 an equation is written with =, not with :='],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' == -y\ny(0) = 1\n0 <= t <= 2",
    ['1:4 an equation is written with =, not with =='],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = -k y\nk := 2\ny(0) = 1\n0 <= t <= 2",
    ['2:3 an equation is written with =, not with :='],
    "y' = -k y\nk = 2\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = -ky\nk = 2\ny(0) = 1\n0 <= t <= 2",
    ['1:7 ky is not known; to multiply write k*y'],
    "y' = -k*y\nk = 2\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = ty\ny(0) = 1\n0 <= t <= 2",
    ['1:6 ty is not known; to multiply write t*y'],
    "y' = t*y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = y(1 - y)\ny(0) = 1\n0 <= t <= 2",
    ['1:6 inside a formula write y, not y(1-y); to multiply write y*(1-y)'],
    "y' = y*(1 - y)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = y (1 - y)\ny(0) = 1\n0 <= t <= 2",
    ['1:6 inside a formula write y, not y(1-y); to multiply write y*(1-y)'],
    "y' = y*(1 - y)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = r y(1 - y/K)\nr = 1\nK = 2\ny(0) = 1\n0 <= t <= 2",
    ['1:8 inside a formula write y, not y(1-y/K); to multiply write y*(1-y/K)'],
    "y' = r y*(1 - y/K)\nr = 1\nK = 2\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = log(t+1)\ny(0) = 1\n0 <= t <= 2",
    ['1:6 log means different things in different programs; write ln(t+1) or log10(t+1)'],
    "y' = ln(t+1)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = √y\ny(0) = 1\n0 <= t <= 2",
    ['1:6 a root is written sqrt(y)'],
    "y' = sqrt(y)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = y**2\ny(0) = 1\n0 <= t <= 2",
    ['1:7 a power is written ^, not **'],
    "y' = y^2\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = y*y*\ny(0) = 1\n0 <= t <= 2",
    ['1:10 the formula is incomplete: a number, a name or ( is missing'],
    null,
  ],
  [
    "y' = 2,5*y\ny(0) = 1\n0 <= t <= 2",
    ['1:6 use a decimal point, not a comma: write 2.5'],
    "y' = 2.5*y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = 1.000,5*y\ny(0) = 1\n0 <= t <= 2",
    ['1:6 use a decimal point, not a comma: write 1000.5'],
    "y' = 1000.5*y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = 5%*y\ny(0) = 1\n0 <= t <= 2",
    ['1:7 the character % is not allowed in a formula; write mod(a, b) for a remainder'],
    null,
  ],
  [
    "y' = -y // decay\ny(0) = 1\n0 <= t <= 2",
    ['1:9 a comment begins with #'],
    "y' = -y # decay\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = -y % decay\ny(0) = 1\n0 <= t <= 2",
    ['1:9 a comment begins with #; a remainder is written mod(a, b)'],
    "y' = -y # decay\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = y' \ny(0) = 1\n0 <= t <= 2",
    ["1:1 y' cancels out of this equation, so the equation does not determine it"],
    null,
  ],
  [
    "y'' = -y\ny(0) = 1\n0 <= t <= 2",
    ["3:12 the initial value of y' is missing; add a line y'(0) = ..."],
    null,
  ],
  [
    'y" = -y\ny\'(0) = 0\ny(0) = 1\n0 <= t <= 2',
    ["1:2 a second derivative is written with two primes: y''"],
    "y'' = -y\ny'(0) = 0\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "x', y' = y, -x\nx(0) = 0\ny(0) = 1\n0 <= t <= 2",
    ["1:1 write one equation per unknown: x' = ...; y' = ..."],
    "x' = y; y' = -x\nx(0) = 0\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "(x', y') = (y, -x)\nx(0) = 0\ny(0) = 1\n0 <= t <= 2",
    ["1:1 write one equation per unknown: x' = ...; y' = ..."],
    "x' = y; y' = -x\nx(0) = 0\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = A*y\nA = [0 1; -1 0]\ny(0) = 1\n0 <= t <= 2",
    [
      '1:6 A is not known; give it a value on a line of its own, such as A = 1',
      "2:1 vectors and matrices are not part of the notation; give every unknown an equation: x' = ...; y' = ...",
    ],
    null,
  ],
  [
    "y' = if y > 1 then 0 else 1\ny(0) = 1\n0 <= t <= 2",
    ['1:6 a case distinction is written if(y > 1, 0, 1)'],
    "y' = if(y > 1, 0, 1)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = if(y > 1; 0; 1)\ny(0) = 1\n0 <= t <= 2",
    [
      '1:14 separate the arguments of a function by commas',
      '1:17 separate the arguments of a function by commas',
    ],
    "y' = if(y > 1, 0, 1)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = (y > 1) ? 0 : 1\ny(0) = 1\n0 <= t <= 2",
    ['1:6 a case distinction is written if(y > 1, 0, 1)'],
    "y' = if(y > 1, 0, 1)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = y > 1\ny(0) = 1\n0 <= t <= 2",
    ['1:8 a comparison is allowed only in if(a < b, x, y) or in the interval'],
    null,
  ],
  ["y' = if(y = 1, 0, 1)\ny(0) = 1\n0 <= t <= 2", ['1:11 equality is written =='], null],
  [
    "y' = if(0 < y < 1, 0, 1)\ny(0) = 1\n0 <= t <= 2",
    ['1:15 a condition is a single comparison; nest another if: if(a < b, if(b < c, x, y), y)'],
    null,
  ],
  [
    "y' = arctan(t)\ny(0) = 1\n0 <= t <= 2",
    ['1:6 unknown function arctan; write atan'],
    "y' = atan(t)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = tan^-1(t)\ny(0) = 1\n0 <= t <= 2",
    ['1:6 the inverse function is written atan'],
    "y' = atan(t)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = Pi*t\ny(0) = 1\n0 <= t <= 2",
    ['1:6 Pi is not known, but pi is; names are case-sensitive'],
    "y' = pi*t\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = λy\nλ = -2\ny(0) = 1\n0 <= t <= 2",
    ['1:6 λy is not known; to multiply write λ*y'],
    "y' = λ*y\nλ = -2\ny(0) = 1\n0 <= t <= 2",
  ],
  ["y' = max(0, y\ny(0) = 1\n0 <= t <= 2", ['1:9 this bracket is not closed: a ) is missing'], null],
  [
    "y' = t-2y + \ny(0) = 1\n0 <= t <= 2",
    ['1:12 the formula is incomplete: a number, a name or ( is missing'],
    null,
  ],
  [
    "y' = 1/t y\ny(0) = 1\n0 <= t <= 2",
    ['1:10 a product written with a space after a quotient is ambiguous: 1/(t*y) or (1/t)*y'],
    "y' = 1/(t*y)\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = -y\ny0 = 1\n0 <= t <= 2",
    ['2:1 the initial value of y is written y(0) = ...'],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = -y\ny(0) = 1\n[0, 2]",
    ['3:1 the interval must name its variable: t in [0, 2]'],
    "y' = -y\ny(0) = 1\nt in [0, 2]",
  ],
  [
    "y' = -y\ny(0) = 1\n2 >= t >= 0",
    ['3:1 the interval runs upwards: 0 <= t <= 2'],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  ["y' = -y\ny(0) = 1\nt0 = 0\nT = 2", ['4:6 the interval is missing; add a line such as 0 <= t <= 1'], null],
  ["y' = -y\ny(0) = 1", ['2:9 the interval is missing; add a line such as 0 <= t <= 1'], null],
  ["y' = -y\n0 <= t <= 2", ['2:12 the initial value of y is missing; add a line y(0) = ...'], null],
  [
    "y' = -y\ny(1) = 1\n0 <= t <= 2",
    ['2:3 initial values belong to the start of the interval: write y(0)'],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = -y\ny(0) = 1\n0 <= t <= 2\ny = exp(-t)",
    [
      "4:1 y is an unknown: its value at the start is written y(0) = ..., its equation y' = ..., its exact solution y(t) = ...",
    ],
    null,
  ],
  [
    "y' = -y\ny(0) = 1\n0 <= t <= 2\nexact = exp(-t)",
    ['4:1 an exact solution is written y(t) = ...'],
    "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)",
  ],
  [
    "y' = -y\ny(0) = 1\n0 <= t <= 2\ny_exact(t) = exp(-t)",
    ['4:1 the exact solution is written with the name of its unknown: y(t) = ...'],
    "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)",
  ],
  [
    "y' = -y\ny(0) = 1\n0 <= t <= 2\ny_exact = exp(-t)",
    ['4:1 an exact solution is written y(t) = ...'],
    "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)",
  ],
  [
    "y' = t - y\ny(0) = 1\n0 <= x <= 2",
    ['1:6 t is not known; the interval names x as the independent variable'],
    "y' = x - y\ny(0) = 1\n0 <= x <= 2",
  ],
  [
    'u_t = -u\nu(0) = 1\n0 <= t <= 2',
    ["1:1 an equation is written u' = ..."],
    "u' = -u\nu(0) = 1\n0 <= t <= 2",
  ],
  [
    'def f(t, y): return -y\ny(0) = 1\n0 <= t <= 2',
    ["1:1 an equation is written y' = ..."],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    'f = @(t,y) -y\ny(0) = 1\n0 <= t <= 2',
    ["1:1 an equation is written y' = ..."],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    'f = lambda t, y: -y\ny(0) = 1\n0 <= t <= 2',
    ["1:1 an equation is written y' = ..."],
    "y' =  -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    'f(t, y) := -y\ny(0) = 1\n0 <= t <= 2',
    ['1:9 an equation is written with =, not with :='],
    'f(t, y) = -y\ny(0) = 1\n0 <= t <= 2',
  ],
  [
    "y[0] = 1\ny' = -y\n0 <= t <= 2",
    ['1:1 the initial value of y is written y(0) = ...'],
    "y(0) = 1\ny' = -y\n0 <= t <= 2",
  ],
  [
    "solve y' = -y\ny(0) = 1\n0 <= t <= 2",
    ['1:1 write the equation alone, without solve'],
    "y' = -y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = t - 2y\ny(0) = 1 \nt in (0, 2)",
    ['3:1 give both ends of the interval: t in [0, 2]'],
    "y' = t - 2y\ny(0) = 1 \nt in [0, 2]",
  ],
  [
    "y' = sin t/2\ny(0) = 1\n0 <= t <= 2",
    ['1:6 sin without brackets is ambiguous here: write sin(t)/2 or sin(t/2)'],
    "y' = sin(t)/2\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = ln 2 t\ny(0) = 1\n0 <= t <= 2",
    ['1:6 ln without brackets is ambiguous here: write ln(2)*t or ln(2*t)'],
    "y' = ln(2)*t\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = sin t y + 1\ny(0) = 1\n0 <= t <= 2",
    ['1:6 sin without brackets is ambiguous here: write sin(t)*y or sin(t*y)'],
    "y' = sin(t)*y + 1\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = exp -t*y\ny(0) = 1\n0 <= t <= 2",
    ['1:6 exp without brackets is ambiguous here: write exp(-t)*y or exp(-t*y)'],
    "y' = exp(-t)*y\ny(0) = 1\n0 <= t <= 2",
  ],
  [
    "y' = |y + 1\ny(0) = 1\n0 <= t <= 2",
    ['1:6 this | has no second one; an absolute value is written |y| or abs(y)'],
    null,
  ],
  [
    "y' = sin 2(t - 1)(t + 1)\ny(0) = 1\n0 <= t <= 2",
    ['1:6 sin without brackets is ambiguous here: write sin(2(t-1))*(t+1) or sin(2(t-1)*(t+1))'],
    "y' = sin(2(t-1))*(t+1)\ny(0) = 1\n0 <= t <= 2",
  ],
];

function method(text: string): Reading<readonly string[]> {
  const reading = parseMethod(text);
  return reading.ok ? { ok: true, value: methodTex(reading.value) } : reading;
}

function problem(text: string): Reading<readonly string[]> {
  const reading = parseProblem(text);
  if (!reading.ok) return reading;
  const { equations, initial, interval, exact } = problemTex(reading.value);
  return { ok: true, value: [...equations, ...initial, interval, ...exact] };
}

const KINDS = [
  { kind: 'method', read: method, taken: METHOD_TAKEN, told: METHOD_TOLD },
  { kind: 'problem', read: problem, taken: PROBLEM_TAKEN, told: PROBLEM_TOLD },
] as const;

/** The text with what was told of mended, one button after another; null where none is left to press. */
function mend(text: string, read: (text: string) => Reading<readonly string[]>): string | null {
  let now = text;
  for (let i = 0; i < 12; i += 1) {
    const reading = read(now);
    if (reading.ok) return now;
    const repair: Repair | undefined = reading.errors.find((e) => e.repairs !== undefined)?.repairs?.[0];
    if (repair === undefined) return null;
    now = now.slice(0, repair.from) + repair.text + now.slice(repair.to);
  }
  return null;
}

describe.each(KINDS)('a $kind', ({ read, taken, told }) => {
  test.each(taken)('%s is taken', (text, tex) => {
    expect(read(text)).toEqual({ ok: true, value: tex });
  });

  test.each(told)('%s is reported', (text, messages, mended) => {
    const reading = read(text);
    expect(reading.ok ? [] : reading.errors.map((e) => `${e.line}:${e.column} ${e.message}`)).toEqual(
      messages,
    );
    expect(mend(text, read)).toBe(mended);
  });
});

test('one mistake has one sentence, but where it stands in several lines', () => {
  const many = KINDS.flatMap(({ told }) => told).filter(
    ([text, messages]) => messages.length > text.split('\n').length,
  );
  // a list parted by two semicolons has two of them
  expect(many.map(([text]) => text.split('\n')[0])).toEqual([]);
});
