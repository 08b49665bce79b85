import type { LibraryMethod } from './library-method.ts';

/** Multistep methods. */
export const MULTISTEP: readonly LibraryMethod[] = [
  {
    title: 'Adams-Bashforth 2',
    order: 2,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.1',
    text: 'start with Heun\ny[n+1] = y + h/2*(3*f[n] - f[n-1])\n',
  },
  {
    title: 'Adams-Bashforth 3',
    order: 3,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.1',
    text: 'start with Kutta 3\ny[n+1] = y + h/12*(23*f[n] - 16*f[n-1] + 5*f[n-2])\n',
  },
  {
    title: 'Adams-Bashforth 4',
    order: 4,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.1',
    text: 'start with RK4\ny[n+1] = y + h/24*(55*f[n] - 59*f[n-1] + 37*f[n-2] - 9*f[n-3])\n',
  },
  {
    title: 'Adams-Bashforth 5',
    order: 5,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.1',
    text: 'start with RK6\ny[n+1] = y + h/720*(1901*f[n] - 2774*f[n-1] + 2616*f[n-2] - 1274*f[n-3] + 251*f[n-4])\n',
  },
  {
    title: 'Adams-Bashforth 6',
    order: 6,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.1',
    text: 'start with RK6\ny[n+1] = y + h/1440*(4277*f[n] - 7923*f[n-1] + 9982*f[n-2] - 7298*f[n-3] + 2877*f[n-4] - 475*f[n-5])\n',
  },
  {
    title: 'Adams-Moulton 2, predicted',
    order: 2,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.1',
    text: 'start with Heun\np = y + h/2*(3*f[n] - f[n-1])\ny[n+1] = y + h/2*(f(t + h, p) + f[n])\n',
  },
  {
    title: 'Adams-Moulton 3, predicted',
    order: 3,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.1',
    text: 'start with Kutta 3\np = y + h/12*(23*f[n] - 16*f[n-1] + 5*f[n-2])\ny[n+1] = y + h/12*(5*f(t + h, p) + 8*f[n] - f[n-1])\n',
  },
  {
    title: 'Adams-Moulton 4, predicted',
    order: 4,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.1',
    text: 'start with RK4\np = y + h/24*(55*f[n] - 59*f[n-1] + 37*f[n-2] - 9*f[n-3])\ny[n+1] = y + h/24*(9*f(t + h, p) + 19*f[n] - 5*f[n-1] + f[n-2])\n',
  },
  {
    title: 'Leapfrog',
    order: 2,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.1',
    text: 'start with Heun\ny[n+1] = y[n-1] + 2*h*f(t, y)\n',
  },
];
