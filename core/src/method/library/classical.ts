import type { LibraryMethod } from './library-method.ts';

/** The classical explicit one-step methods. */
export const CLASSICAL: readonly LibraryMethod[] = [
  {
    title: 'Euler',
    order: 1,
    source: 'L. Euler, Institutionum calculi integralis I (1768), section 650',
    text: 'y[n+1] = y + h*f(t, y)\n',
  },
  {
    title: 'Heun',
    order: 2,
    source: 'K. Heun, Z. Math. Phys. 45 (1900) 23-38',
    text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)\n',
  },
  {
    title: 'Midpoint',
    order: 2,
    source: 'C. Runge, Math. Ann. 46 (1895) 167-178',
    text: 'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\ny[n+1] = y + h*k2\n',
  },
  {
    title: 'Kutta 3',
    order: 3,
    source: 'W. Kutta, Z. Math. Phys. 46 (1901) 435-453',
    text: 'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h, y - h*k1 + 2*h*k2)\ny[n+1] = y + h/6*(k1 + 4*k2 + k3)\n',
  },
  {
    title: 'RK4',
    order: 4,
    source: 'W. Kutta, Z. Math. Phys. 46 (1901) 435-453',
    text: 'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)\n',
  },
  {
    title: 'Ralston 2',
    order: 2,
    source: 'A. Ralston, Math. Comp. 16 (1962) 431-437',
    text: 'k1 = f(t, y)\nk2 = f(t + 2/3*h, y + 2/3*h*k1)\ny[n+1] = y + h*(1/4*k1 + 3/4*k2)\n',
  },
  {
    title: 'Order 2, one parameter',
    order: 2,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section II.1',
    text: 'alpha = 3/4  # 1/2 is the midpoint rule, 1 Heun, 2/3 Ralston\nk1 = f(t, y)\nk2 = f(t + alpha*h, y + alpha*h*k1)\ny[n+1] = y + h*((1 - 1/(2*alpha))*k1 + 1/(2*alpha)*k2)\n',
  },
  {
    title: 'Heun 3',
    order: 3,
    source: 'K. Heun, Z. Math. Phys. 45 (1900) 23-38',
    text: 'k1 = f(t, y)\nk2 = f(t + h/3, y + h/3*k1)\nk3 = f(t + 2/3*h, y + 2/3*h*k2)\ny[n+1] = y + h/4*(k1 + 3*k3)\n',
  },
  {
    title: 'SSP 3',
    order: 3,
    source: 'C.-W. Shu, S. Osher, J. Comput. Phys. 77 (1988) 439-471',
    text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\nk3 = f(t + h/2, y + h/4*(k1 + k2))\ny[n+1] = y + h/6*(k1 + k2 + 4*k3)\n',
  },
  {
    title: '3/8 rule',
    order: 4,
    source: 'W. Kutta, Z. Math. Phys. 46 (1901) 435-453',
    text: 'k1 = f(t, y)\nk2 = f(t + h/3, y + h/3*k1)\nk3 = f(t + 2/3*h, y + h*(k2 - 1/3*k1))\nk4 = f(t + h, y + h*(k1 - k2 + k3))\ny[n+1] = y + h/8*(k1 + 3*k2 + 3*k3 + k4)\n',
  },
];
