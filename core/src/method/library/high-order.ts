import type { LibraryMethod } from './library-method.ts';

/** Runge-Kutta methods of high order. */
export const HIGH_ORDER: readonly LibraryMethod[] = [
  {
    title: 'RK6',
    order: 6,
    source: 'J. C. Butcher, J. Austral. Math. Soc. 4 (1964) 179-194',
    text: 'k1 = f(t, y)\nk2 = f(t + h/3, y + h/3*k1)\nk3 = f(t + 2/3*h, y + 2/3*h*k2)\nk4 = f(t + h/3, y + h*(1/12*k1 + 1/3*k2 - 1/12*k3))\nk5 = f(t + h/2, y + h*(-1/16*k1 + 9/8*k2 - 3/16*k3 - 3/8*k4))\nk6 = f(t + h/2, y + h*(9/8*k2 - 3/8*k3 - 3/4*k4 + 1/2*k5))\nk7 = f(t + h, y + h*(9/44*k1 - 9/11*k2 + 63/44*k3 + 18/11*k4 - 16/11*k6))\ny[n+1] = y + h*(11/120*k1 + 27/40*k3 + 27/40*k4 - 4/15*k5 - 4/15*k6 + 11/120*k7)\n',
  },
  {
    title: 'RK8',
    order: 8,
    source: 'G. J. Cooper, J. H. Verner, SIAM J. Numer. Anal. 9 (1972) 389-405',
    text: 's = sqrt(21)\nk1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/4*(k1 + k2))\nk4 = f(t + (7 + s)/14*h, y + h*(1/7*k1 - (7 + 3*s)/98*k2 + (21 + 5*s)/49*k3))\nk5 = f(t + (7 + s)/14*h, y + h*((11 + s)/84*k1 + (18 + 4*s)/63*k3 + (21 - s)/252*k4))\nk6 = f(t + h/2, y + h*((5 + s)/48*k1 + (9 + s)/36*k3 + (-231 + 14*s)/360*k4 + (63 - 7*s)/80*k5))\nk7 = f(t + (7 - s)/14*h, y + h*((10 - s)/42*k1 + (-432 + 92*s)/315*k3 + (633 - 145*s)/90*k4 + (-504 + 115*s)/70*k5 + (63 - 13*s)/35*k6))\nk8 = f(t + (7 - s)/14*h, y + h*(1/14*k1 + (14 - 3*s)/126*k5 + (13 - 3*s)/63*k6 + 1/9*k7))\nk9 = f(t + h/2, y + h*(1/32*k1 + (91 - 21*s)/576*k5 + 11/72*k6 - (385 + 75*s)/1152*k7 + (63 + 13*s)/128*k8))\nk10 = f(t + (7 + s)/14*h, y + h*(1/14*k1 + 1/9*k5 - (733 + 147*s)/2205*k6 + (515 + 111*s)/504*k7 - (51 + 11*s)/56*k8 + (132 + 28*s)/245*k9))\nk11 = f(t + h, y + h*((-42 + 7*s)/18*k5 + (-18 + 28*s)/45*k6 - (273 + 53*s)/72*k7 + (301 + 53*s)/72*k8 + (28 - 28*s)/45*k9 + (49 - 7*s)/18*k10))\ny[n+1] = y + h*(1/20*k1 + 49/180*k8 + 16/45*k9 + 49/180*k10 + 1/20*k11)\n',
  },
];
