/** A method of the library: a text like any other, with where it comes from. */
export interface LibraryMethod {
  readonly title: string;
  readonly text: string;
  /** The order of convergence that its source proves. */
  readonly order: number;
  readonly source: string;
}

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
];
