import type { LibraryMethod } from './library-method.ts';

/** Methods for x'' = a(t, x, v). */
export const SECOND_ORDER: readonly LibraryMethod[] = [
  {
    title: 'Semi-implicit Euler',
    order: 1,
    source: 'E. Hairer, C. Lubich, G. Wanner, Geometric Numerical Integration (2nd ed., 2006), section I.1',
    text: 'v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]\n',
  },
  {
    title: 'Semi-implicit Euler, position first',
    order: 1,
    source: 'E. Hairer, C. Lubich, G. Wanner, Geometric Numerical Integration (2nd ed., 2006), section I.1',
    text: 'x[n+1] = x + h*v\nv[n+1] = v + h*a(t + h, x[n+1], v)\n',
  },
  {
    title: 'Velocity Verlet',
    order: 2,
    source: 'E. Hairer, C. Lubich, G. Wanner, Geometric Numerical Integration (2nd ed., 2006), section I.1',
    text: '# of order 2 where a does not depend on v\nhalf = v + h/2*a(t, x, v)\nx[n+1] = x + h*half\nv[n+1] = half + h/2*a(t + h, x[n+1], half)\n',
  },
  {
    title: 'Nystrom 4',
    order: 4,
    source: 'E. J. Nystrom, Acta Soc. Sci. Fenn. 50 (1925) no. 13',
    text: 'k1 = a(t, x, v)\nk2 = a(t + h/2, x + h/2*v + h^2/8*k1, v + h/2*k1)\nk3 = a(t + h/2, x + h/2*v + h^2/8*k1, v + h/2*k2)\nk4 = a(t + h, x + h*v + h^2/2*k3, v + h*k3)\nx[n+1] = x + h*v + h^2/6*(k1 + k2 + k3)\nv[n+1] = v + h/6*(k1 + 2*k2 + 2*k3 + k4)\n',
  },
];
