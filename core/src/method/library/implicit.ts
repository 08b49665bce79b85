import type { LibraryMethod } from './library-method.ts';

/** Methods with implicit stages. */
export const IMPLICIT: readonly LibraryMethod[] = [
  {
    title: 'Backward Euler',
    order: 1,
    source: 'E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), section IV.3',
    text: 'solve y[n+1] = y + h*f(t + h, y[n+1])\n',
  },
  {
    title: 'Trapezoidal rule',
    order: 2,
    source: 'E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), section IV.3',
    text: 'solve y[n+1] = y + h/2*(f(t, y) + f(t + h, y[n+1]))\n',
  },
  {
    title: 'Implicit midpoint',
    order: 2,
    source: 'E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), section IV.3',
    text: 'solve k1 = f(t + h/2, y + h/2*k1)\ny[n+1] = y + h*k1\n',
  },
  {
    title: 'Gauss 2',
    order: 4,
    source: 'E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), section IV.5',
    text: 's = sqrt(3)/6\nsolve k1, k2 = f(t + (1/2 - s)*h, y + h*(1/4*k1 + (1/4 - s)*k2)), f(t + (1/2 + s)*h, y + h*((1/4 + s)*k1 + 1/4*k2))\ny[n+1] = y + h/2*(k1 + k2)\n',
  },
  {
    title: 'BDF 2',
    order: 2,
    source: 'C. F. Curtiss, J. O. Hirschfelder, Proc. Nat. Acad. Sci. 38 (1952) 235-243',
    text: 'start with Trapezoidal rule\nsolve y[n+1] = 4/3*y - 1/3*y[n-1] + 2/3*h*f(t + h, y[n+1])\n',
  },
];
