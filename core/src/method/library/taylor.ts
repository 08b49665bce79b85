import type { LibraryMethod } from './library-method.ts';

/** Taylor methods: the derivatives of f along the solution are made by the program. */
export const TAYLOR: readonly LibraryMethod[] = [
  {
    title: 'Taylor 2',
    order: 2,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section I.8',
    text: "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)\n",
  },
  {
    title: 'Taylor 3',
    order: 3,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section I.8',
    text: "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y)\n",
  },
  {
    title: 'Taylor 4',
    order: 4,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section I.8',
    text: "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y) + h^4/24*f'''(t, y)\n",
  },
  {
    title: 'Taylor 5',
    order: 5,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section I.8',
    text: "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y) + h^4/24*f'''(t, y) + h^5/120*f''''(t, y)\n",
  },
  {
    title: 'Taylor 6',
    order: 6,
    source:
      'E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section I.8',
    text: "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y) + h^4/24*f'''(t, y) + h^5/120*f''''(t, y) + h^6/720*f'''''(t, y)\n",
  },
];
